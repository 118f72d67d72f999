import { useGesture } from '@use-gesture/react';
import { useEffect, useRef, useState, type KeyboardEvent } from 'react';
import { partOf, PLUMB_LINE, POT_LINE, type Px } from '@ustle/core';
import { boxOf, lieOf, type Box, type Lie } from '../../../turntable/photo-lie';
import { LED } from './drawn-line';
import { PhotoMarks } from './PhotoMarks';
import { PhotoStrip } from './PhotoStrip';
import { isMark, type Photographs } from './use-photographs';

const MOST_ZOOM = 8;
const STEP = 6;
const FAR = 36;

/** The size of an element, as it changes. */
function useSize(of: HTMLElement | null): { width: number; height: number } {
  const [size, setSize] = useState({ width: 0, height: 0 });
  useEffect(() => {
    if (!of) return undefined;
    const observer = new ResizeObserver(([entry]) => setSize({ width: entry!.contentRect.width, height: entry!.contentRect.height }));
    observer.observe(of);
    return () => observer.disconnect();
  }, [of]);
  return size;
}

const PRESS_WHAT = {
  shoulder: 'press where it leaves the wood',
  tip: 'press its tip',
  foot: 'press where it leaves the soil',
  top: 'press its top',
  left: 'press its left rim',
  right: 'press its right rim',
  high: 'press its upper end',
  low: 'press its lower end',
  root: 'press where it leaves the trunk',
  end: 'press where it goes into the soil',
  wood: 'press where it begins',
  ends: 'press where it ends',
  drawn: 'where it strays press beside it or drag its points; the next branch begins with a press on its shoulder',
  straight: 'drag its ends where they are not right',
} as const;

/** What is pressed of a line: first, then. */
function pressesFor(line: string): [keyof typeof PRESS_WHAT, keyof typeof PRESS_WHAT] {
  if (line === 'trunk') return ['foot', 'top'];
  if (line === POT_LINE) return ['left', 'right'];
  if (line === PLUMB_LINE) return ['high', 'low'];
  const part = partOf(line)?.part;
  return part === 'root' ? ['root', 'end'] : part === 'shari' ? ['wood', 'ends'] : ['shoulder', 'tip'];
}

/** A photo in the turntable's place, to be drawn over; the others below it. */
export function PhotoTable({ photographs: ph }: { photographs: Photographs }) {
  const { photo, line, drawnHere, begun, found, cameras } = ph;
  const [box, setBox] = useState<HTMLDivElement | null>(null);
  const size = useSize(box);
  const [zoom, setZoom] = useState({ times: 1, x: 0, y: 0 });
  const [cross, setCross] = useState<Px | null>(null);
  // How near a photo is shown is settled when it is opened: what is drawn meanwhile moves nothing under the hand.
  const [opened, setOpened] = useState<{ photo: string | undefined; worked: boolean; box: Box | null }>({ photo: undefined, worked: false, box: null });
  const worked = ph.answer !== null;
  if (opened.photo !== photo?.photo || (worked && !opened.worked)) {
    const camera = photo && cameras.get(photo.photo);
    const points = camera ? [...found.values()].flatMap((l) => l.points) : [];
    setOpened({ photo: photo?.photo, worked, box: points.length ? boxOf(points, camera!) : null });
    setZoom({ times: 1, x: 0, y: 0 });
  }
  const whole = photo && size.width ? lieOf(photo, opened.box, size.width, size.height, 1) : { scale: 1, x: 0, y: 0 };
  const lie: Lie = { scale: whole.scale * zoom.times, x: whole.x + zoom.x, y: whole.y + zoom.y };
  const live = useRef(lie);
  useEffect(() => {
    live.current = lie;
  });
  const onPhoto = (clientX: number, clientY: number): Px => {
    const at = box!.getBoundingClientRect();
    return [(clientX - at.left - live.current.x) / live.current.scale, (clientY - at.top - live.current.y) / live.current.scale];
  };
  /** Nearer or farther about a place of the screen. */
  const nearer = (by: number, clientX: number, clientY: number): void => {
    const at = box!.getBoundingClientRect();
    const [px, py] = [clientX - at.left, clientY - at.top];
    setZoom((before) => {
      const times = Math.min(MOST_ZOOM, Math.max(1, before.times * by));
      if (times === 1) return { times: 1, x: 0, y: 0 };
      const [ox, oy] = [lie.x - before.x, lie.y - before.y];
      const k = times / before.times;
      return { times, x: px - ox - k * (px - ox - before.x), y: py - oy - k * (py - oy - before.y) };
    });
  };
  const bind = useGesture(
    {
      onDrag: ({ tap, xy: [x, y], delta: [dx, dy], pinching, cancel, event }) => {
        if (pinching || (event.target as Element).closest('button')) cancel();
        else if (tap) void ph.press(onPhoto(x, y), LED / lie.scale);
        else setZoom((z) => (z.times > 1 ? { ...z, x: z.x + dx, y: z.y + dy } : z));
      },
      onWheel: ({ delta: [, dy], event }) => nearer(Math.exp(-dy * 0.0016), (event as WheelEvent).clientX, (event as WheelEvent).clientY),
      onPinch: ({ origin: [x, y], movement: [scale], memo = 1 }) => {
        nearer(scale / (memo as number), x, y);
        return scale;
      },
    },
    { drag: { filterTaps: true, pointer: { keys: false } } },
  );
  if (!photo)
    return (
      <div className="flex h-full items-center justify-center p-8 text-center text-quiet" data-ready="1">
        <p className="max-w-96">Here the photos are seen, one at a time, and are drawn over. Bring some in beside this.</p>
      </div>
    );
  const middle: Px = [photo.width / 2, photo.height / 2];
  const onKeyDown = (event: KeyboardEvent): void => {
    if (event.target !== event.currentTarget || event.ctrlKey || event.metaKey || event.altKey) return;
    const step = (event.shiftKey ? FAR : STEP) / lie.scale;
    const ways: Record<string, Px> = { ArrowLeft: [-step, 0], ArrowRight: [step, 0], ArrowUp: [0, -step], ArrowDown: [0, step] };
    const way = ways[event.key];
    const rect = box!.getBoundingClientRect();
    const centre: [number, number] = [rect.left + rect.width / 2, rect.top + rect.height / 2];
    if (way)
      setCross((before) => {
        const [x, y] = before ?? middle;
        return [Math.min(photo.width, Math.max(0, x + way[0])), Math.min(photo.height, Math.max(0, y + way[1]))];
      });
    else if (event.key === 'Enter') void ph.press(cross ?? middle, LED / lie.scale);
    else if (event.key === '[' || event.key === ']') ph.step(event.key === ']' ? 1 : -1);
    else if (event.key === '+' || event.key === '-') nearer(event.key === '+' ? 1.4 : 1 / 1.4, ...centre);
    else if ((event.key === 'Delete' || event.key === 'Backspace') && drawnHere) void ph.put(null, undefined);
    else if (event.key === 'Escape' && begun) ph.cancel();
    else return;
    event.preventDefault();
    event.stopPropagation();
  };
  const startKnown = begun?.photo === photo.photo || ph.waiting.has(line);
  const [first, second] = pressesFor(line);
  const what = PRESS_WHAT[drawnHere ? (isMark(line) ? 'straight' : 'drawn') : startKnown ? second : first];
  return (
    <div className="flex h-full w-full flex-col" data-ready="1">
      <div
        ref={setBox}
        role="application"
        tabIndex={0}
        aria-label={`Photo ${ph.numbers.get(photo.photo)}. ${ph.nameOf(line)}: ${what}. Arrow keys move the cross, Enter presses, brackets go to the next photo, plus and minus bring it nearer.`}
        className="relative min-h-0 flex-1 cursor-crosshair touch-none select-none overflow-hidden bg-[#24251f] outline-offset-[-3px]"
        data-photo={photo.photo}
        data-scale={lie.scale}
        onKeyDown={onKeyDown}
        {...bind()}
      >
        <img
          src={ph.addressOf(photo.photo)}
          alt={`Photo ${ph.numbers.get(photo.photo)}`}
          draggable={false}
          className="absolute left-0 top-0 max-w-none origin-top-left"
          width={photo.width}
          height={photo.height}
          style={{ transform: `translate(${lie.x}px, ${lie.y}px) scale(${lie.scale})` }}
        />
        <PhotoMarks photographs={ph} photo={photo} lie={lie} cross={cross} size={size} />
        <p className="pointer-events-none absolute bottom-2 left-2 bg-base-100/90 px-2 py-0.5 lg:bottom-auto lg:left-3 lg:top-3" role="status">
          <strong className="font-semibold">{ph.nameOf(line)}</strong>: {ph.finding ? 'the line finds its way' : what}
          {begun && (
            <button type="button" className="pointer-events-auto ml-2 underline" onClick={ph.cancel}>
              not this one
            </button>
          )}
        </p>
      </div>
      <PhotoStrip photographs={ph} />
    </div>
  );
}
