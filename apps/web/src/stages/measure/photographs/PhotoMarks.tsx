import { useDrag } from '@use-gesture/react';
import { useState } from 'react';
import { project, sightIn, type KeptLine, type KeptPhoto, type Px, type Vec } from '@ustle/core';
import { along, LED } from './drawn-line';
import type { Lie } from '../../../turntable/photo-lie';
import type { Photographs } from './use-photographs';

const joined = (points: readonly Px[]): string => points.map(([x, y]) => `${x.toFixed(1)},${y.toFixed(1)}`).join(' ');

/** So far from a point, px of the screen, it is not meant. */
const BESIDE = 11;

interface Props {
  photographs: Photographs;
  photo: KeptPhoto;
  lie: Lie;
  cross: Px | null;
  size: { width: number; height: number };
}

/** What is drawn over a photo: cards, all that is known in space, the chosen line with its handles, where it must be. */
export function PhotoMarks({ photographs: ph, photo, lie, cross, size }: Props) {
  const { line, sight, cameras, found, drawnHere, begun } = ph;
  const [moved, setMoved] = useState<readonly Px[] | null>(null);
  const [wider, setWider] = useState<KeptLine['widths'] | null>(null);
  const camera = cameras.get(photo.photo);
  const at = ([x, y]: Px): Px => [lie.x + x * lie.scale, lie.y + y * lie.scale];
  const seen = (of: readonly Vec[]): Px[] =>
    camera
      ? of
          .map((p) => project(camera, p))
          .filter((p) => p !== null)
          .map(at)
      : [];
  const points = moved ?? drawnHere?.points ?? null;
  const widths = wider ?? drawnHere?.widths ?? [];

  const dragPoint = useDrag(
    ({ args: [index], delta: [dx, dy], event, last, tap, xy: [cx, cy] }) => {
      event.stopPropagation();
      if (!drawnHere) return;
      if (tap) {
        // A finger finds a point from farther off than it means it: what is touched beside it is a place to lead the line through.
        const box = (event.target as Element).closest('[data-photo]')!.getBoundingClientRect();
        const place: Px = [(cx - box.left - lie.x) / lie.scale, (cy - box.top - lie.y) / lie.scale];
        const own = drawnHere.points[index as number]!;
        if (Math.hypot(place[0] - own[0], place[1] - own[1]) * lie.scale > BESIDE) void ph.press(place, LED / lie.scale);
        return;
      }
      const before = moved ?? drawnHere.points;
      const next = before.map((p, i): Px => (i === index ? [p[0] + dx / lie.scale, p[1] + dy / lie.scale] : p));
      setMoved(next);
      if (last) void ph.put(next, drawnHere.widths).finally(() => setMoved(null));
    },
    { pointer: { keys: true }, keyboardDisplacement: 2, filterTaps: true },
  );
  const dragWidth = useDrag(
    ({ args: [index, side], delta: [dx, dy], event, last, tap }) => {
      event.stopPropagation();
      if (!drawnHere || tap) return;
      const before = wider ?? drawnHere.widths ?? [];
      const { way } = along(drawnHere.points, before[index as number]![0]);
      const by = (2 * (side as number) * (-way[1] * dx + way[0] * dy)) / lie.scale;
      const next = before.map(([share, px], i): [number, number] => (i === index ? [share, Math.max(1, Math.round(10 * (px + by)) / 10)] : [share, px]));
      setWider(next);
      if (last) void ph.put(drawnHere.points, next).finally(() => setWider(null));
    },
    { pointer: { keys: true }, keyboardDisplacement: 1, filterTaps: true },
  );
  /** Where a line that is drawn in other photos only must be: between its ends' lines of sight. */
  const bands =
    camera && !drawnHere && !found.has(line)
      ? sight.drawn.flatMap((d) => {
          const other = d.line === line ? cameras.get(d.photo) : undefined;
          if (!other) return [];
          const [first, last] = [sightIn(other, d.points[0]!, camera), sightIn(other, d.points[d.points.length - 1]!, camera)];
          return [{ photo: d.photo, first: first.map(at), last: last.map(at) }];
        })
      : [];
  const start = begun?.photo === photo.photo && begun.line === line ? begun.at : null;
  return (
    <>
      <svg className="pointer-events-none absolute inset-0" width={size.width} height={size.height} aria-hidden="true">
        {photo.cards.map((c) => (
          <polygon key={c.card} points={joined(c.corners.map(at))} fill="none" stroke="#9db0de" strokeWidth={1.5} />
        ))}
        {bands.map((b) => (
          <g key={b.photo}>
            <polygon points={joined([...b.first, ...[...b.last].reverse()])} fill="#9db0de" fillOpacity={0.16} />
            <polyline points={joined(b.first)} fill="none" stroke="#9db0de" strokeDasharray="7 5" />
            <polyline points={joined(b.last)} fill="none" stroke="#9db0de" strokeDasharray="2 5" />
          </g>
        ))}
        {[...found.values()].map((l) => (
          <polyline
            key={l.line}
            points={joined(seen(l.points))}
            fill="none"
            stroke={l.line === line ? '#ffd9a8' : '#e8e2d2'}
            strokeWidth={l.line === line ? 3 : 1.6}
            strokeOpacity={l.line === line ? 1 : 0.75}
            strokeDasharray={l.line === line && drawnHere ? '8 5' : undefined}
          />
        ))}
        {sight.drawn
          .filter((d) => d.photo === photo.photo && d.line !== line && !found.has(d.line))
          .map((d) => (
            <polyline key={d.line} points={joined(d.points.map(at))} fill="none" stroke="#9db0de" strokeWidth={1.6} />
          ))}
        {points && <polyline points={joined(points.map(at))} fill="none" stroke="#1d1c19" strokeWidth={5} strokeOpacity={0.55} />}
        {points && <polyline data-drawn={line} points={joined(points.map(at))} fill="none" stroke="#f0a36b" strokeWidth={2.6} />}
        {points &&
          widths.map(([share, px]) => {
            const { at: mid, way } = along(points, share);
            const [ox, oy] = [(-way[1] * px) / 2, (way[0] * px) / 2];
            const [a, b] = [at([mid[0] + ox, mid[1] + oy]), at([mid[0] - ox, mid[1] - oy])];
            return <line key={share} x1={a[0]} y1={a[1]} x2={b[0]} y2={b[1]} stroke="#f0a36b" strokeWidth={2.6} />;
          })}
        {start && <circle cx={at(start)[0]} cy={at(start)[1]} r={6} fill="none" stroke="#f0a36b" strokeWidth={2.6} />}
        {!start &&
          [...ph.waiting].map(([of, p]) => {
            const [x, y] = at(p);
            const own = of === line;
            return <circle key={of} data-waits={of} cx={x} cy={y} r={own ? 6 : 5} fill="none" stroke={own ? '#f0a36b' : '#e8e2d2'} strokeWidth={own ? 2.6 : 1.8} strokeDasharray={own ? undefined : '3 2'} />; // prettier-ignore
          })}
        {cross && (
          <g stroke="#fffaf2" strokeWidth={1.5}>
            <line x1={at(cross)[0] - 16} x2={at(cross)[0] + 16} y1={at(cross)[1]} y2={at(cross)[1]} />
            <line x1={at(cross)[0]} x2={at(cross)[0]} y1={at(cross)[1] - 16} y2={at(cross)[1] + 16} />
          </g>
        )}
      </svg>
      {points?.map((p, i) => (
        <button
          key={i}
          type="button"
          aria-label={`Point ${i + 1} of ${points.length}: drag it, or move it with the arrow keys; Delete takes it out`}
          className="absolute flex h-8 w-8 -translate-x-1/2 -translate-y-1/2 cursor-move touch-none items-center justify-center pointer-coarse:h-11 pointer-coarse:w-11"
          style={{ left: at(p)[0], top: at(p)[1] }}
          {...dragPoint(i)}
          onKeyDown={(event) => {
            if ((event.key !== 'Delete' && event.key !== 'Backspace') || points.length < 3) return;
            event.preventDefault();
            event.stopPropagation();
            void ph.put(points.filter((_, k) => k !== i), drawnHere?.widths); // prettier-ignore
          }}
        >
          <span className={`block rounded-full border-2 border-[#f0a36b] bg-[#24251f]/60 ${i === 0 || i === points.length - 1 ? 'h-4 w-4' : 'h-3 w-3'}`} />
        </button>
      ))}
      {points &&
        widths.flatMap(([share, px], i) =>
          [1, -1].map((side) => {
            const { at: mid, way } = along(points, share);
            const [x, y] = at([mid[0] + (side * -way[1] * px) / 2, mid[1] + (side * way[0] * px) / 2]);
            const out = 9;
            return (
              <button
                key={`${share} ${side}`}
                type="button"
                aria-label={`How thick, ${i === 0 ? 'at its base' : 'farther out'}: drag to the bark's edge, or move it with the arrow keys`}
                className="absolute flex h-7 w-7 -translate-x-1/2 -translate-y-1/2 cursor-ew-resize touch-none items-center justify-center"
                style={{ left: x + side * -way[1] * out, top: y + side * way[0] * out }}
                {...dragWidth(i, side)}
              >
                <span className="block h-2.5 w-2.5 rotate-45 border-2 border-[#f0a36b] bg-[#24251f]/60" />
              </button>
            );
          }),
        )}
    </>
  );
}
