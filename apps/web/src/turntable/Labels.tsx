import { useCallback, useMemo, useState, type RefObject } from 'react';
import { lengthOf, pointAt, type Evidence, type PlacedTree } from '@ustle/core';
import { inPicture, useFrames, type Frame, type FrameListeners } from './frames';
import { LABEL_HEIGHT, placeLabels, type PlacedLabel } from './labels';

const sameLabels = (a: readonly PlacedLabel[], b: readonly PlacedLabel[]): boolean =>
  a.length === b.length &&
  a.every((l, i) => l.id === b[i]!.id && l.text === b[i]!.text && Math.abs(l.left - b[i]!.left) < 0.5 && Math.abs(l.top - b[i]!.top) < 0.5);

interface Props {
  placed: PlacedTree;
  labels: readonly { branch: string; text: string }[];
  evidence: Evidence | undefined;
  selected: string | null;
  onSelect: (branch: string | null) => void;
  listeners: FrameListeners;
  again: RefObject<(() => void) | null>;
}

/** Words beside branches and at what a judgement saw, kept clear of each other while the table turns. */
export function Labels({ placed, labels, evidence, selected, onSelect, listeners, again }: Props) {
  const [shown, setShown] = useState<readonly PlacedLabel[]>([]);
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
      setShown((before) => (sameLabels(before, next) ? before : next));
    },
    [anchors],
  );
  useFrames(listeners, again, listen);
  return (
    <>
      <svg className="pointer-events-none absolute inset-0 h-full w-full" aria-hidden="true">
        {shown.map((l) => {
          const edge = l.left > l.x ? l.left : l.left + l.width;
          return <path key={l.id} d={`M${l.x} ${l.y}L${edge} ${l.top + LABEL_HEIGHT / 2}`} stroke="var(--color-quiet)" strokeWidth="1" fill="none" />;
        })}
      </svg>
      {shown.map((l) => (
        <button
          key={l.id}
          type="button"
          tabIndex={-1}
          onPointerDown={(event) => event.stopPropagation()}
          onClick={() => onSelect(placed.byId.has(l.id) ? l.id : null)}
          className={`absolute cursor-pointer whitespace-nowrap rounded-[2px] border px-1.5 text-center text-[13px] leading-5 ${l.id === selected ? 'border-copper bg-copper text-primary-content' : l.id.startsWith('evidence') ? 'border-indigo bg-sheet/90 text-indigo' : 'border-rule bg-sheet/90'}`}
          style={{ left: l.left, top: l.top, width: l.width, height: LABEL_HEIGHT }}
        >
          {l.text}
        </button>
      ))}
    </>
  );
}
