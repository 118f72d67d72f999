import { useCallback, useMemo, useRef, useState } from 'react';
import { lengthOf, pointAt, type Evidence, type PlacedTree } from '@ustle/core';
import { inPicture, useFrames, type Frame, type FrameListeners } from './frames';
import { LABEL_HEIGHT, placeLabels, type PlacedLabel } from './labels';

/** The same words in the same order: only their places have changed. */
const sameWords = (a: readonly PlacedLabel[], b: readonly PlacedLabel[]): boolean =>
  a.length === b.length && a.every((l, i) => l.id === b[i]!.id && l.text === b[i]!.text && l.width === b[i]!.width);

const lineTo = (l: PlacedLabel): string => `M${l.x} ${l.y}L${l.left > l.x ? l.left : l.left + l.width} ${l.top + LABEL_HEIGHT / 2}`;

interface Props {
  placed: PlacedTree;
  labels: readonly { branch: string; text: string }[];
  evidence: Evidence | undefined;
  selected: string | null;
  onSelect: (branch: string | null) => void;
  listeners: FrameListeners;
}

/** Words beside branches and at what a judgement saw, kept clear of each other while the table turns. */
export function Labels({ placed, labels, evidence, selected, onSelect, listeners }: Props) {
  const [shown, setShown] = useState<readonly PlacedLabel[]>([]);
  const drawn = useRef<readonly PlacedLabel[]>([]);
  const words = useRef<HTMLDivElement>(null);
  const lines = useRef<SVGSVGElement>(null);
  const anchors = useMemo(
    () => [
      ...(evidence?.words ?? []).map(({ at, text }, i) => ({ id: `evidence ${i}`, text, at })),
      ...labels.flatMap(({ branch, text }) => {
        const b = placed.byId.get(branch);
        return b ? [{ id: branch, text, at: pointAt(b.line, lengthOf(b.line) * 0.55).point }] : [];
      }),
    ],
    [labels, evidence, placed],
  );
  const listen = useCallback(
    (frame: Frame): void => {
      const next = placeLabels(
        anchors.map(({ id, text, at }, i) => ({ id, text, ...inPicture(frame, at), weight: anchors.length - i })),
        frame.width,
        frame.height,
      );
      // While the table turns the words are only moved, which the page need not be laid out anew for.
      const box = words.current;
      if (box && sameWords(drawn.current, next) && box.children.length === next.length) {
        next.forEach((l, i) => {
          const word = box.children[i] as HTMLElement;
          word.style.left = `${l.left}px`;
          word.style.top = `${l.top}px`;
          lines.current?.children[i]?.setAttribute('d', lineTo(l));
        });
      } else setShown(next);
      drawn.current = next;
    },
    [anchors],
  );
  useFrames(listeners, listen);
  return (
    <>
      <svg ref={lines} className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
        {shown.map((l) => (
          <path key={l.id} d={lineTo(l)} stroke="var(--color-quiet)" strokeWidth="1" fill="none" />
        ))}
      </svg>
      <div ref={words}>
        {shown.map((l) => (
          <button
            key={l.id}
            type="button"
            tabIndex={-1}
            data-label
            onPointerDown={(event) => event.stopPropagation()}
            onClick={() => onSelect(placed.byId.has(l.id) ? l.id : null)}
            className={`absolute cursor-pointer whitespace-nowrap rounded-[2px] border px-[6px] text-center text-[14px] leading-[20px] ${l.id === selected ? 'border-copper bg-copper text-primary-content' : l.id.startsWith('evidence') ? 'border-indigo bg-sheet/90 text-indigo' : 'border-rule bg-sheet/90'}`}
            style={{ left: l.left, top: l.top, width: l.width, height: LABEL_HEIGHT }}
          >
            {l.text}
          </button>
        ))}
      </div>
    </>
  );
}
