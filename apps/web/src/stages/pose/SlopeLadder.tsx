import { useDrag } from '@use-gesture/react';
import { useRef, useState, type KeyboardEvent } from 'react';
import { clamp, slopeProfile, standingOf } from '@ustle/core';
import { useDesk } from '../desk';
import { usePlacedAfter } from '../posed-lines';
import { deg } from './words';

const WIDTH = 360;
const HEIGHT = 208;
const EDGE = { left: 14, right: 14, top: 10, bottom: 26 };
const LOW = -50;
const HIGH = 80;
const STROKE = 17;
/** Where the curve is held, as shares of the height. */
const HELD = [0.12, 0.35, 0.6, 0.85];

const xOf = (slope: number): number => EDGE.left + ((clamp(slope, LOW, HIGH) - LOW) / (HIGH - LOW)) * (WIDTH - EDGE.left - EDGE.right);
const yOf = (share: number): number => HEIGHT - EDGE.bottom - clamp(share, 0, 1) * (HEIGHT - EDGE.top - EDGE.bottom);
const slopeAt = (x: number): number => Math.round(clamp(LOW + ((x - EDGE.left) / (WIDTH - EDGE.left - EDGE.right)) * (HIGH - LOW), LOW, HIGH));
const shareAt = (y: number): number => clamp((HEIGHT - EDGE.bottom - y) / (HEIGHT - EDGE.top - EDGE.bottom), 0, 1);

type Point = { height: number; slope: number };

/** A short stroke at its height that lies as steep as its branch. */
function Stroke({ slope, share, wanted, chosen }: { slope: number; share: number; wanted: boolean; chosen: boolean }) {
  const [x, y] = [xOf(slope), yOf(share)];
  const turn = (slope * Math.PI) / 180;
  const [dx, dy] = [(Math.cos(turn) * STROKE) / 2, (Math.sin(turn) * STROKE) / 2];
  return (
    <path
      d={`M${x - dx} ${y + dy}L${x + dx} ${y - dy}`}
      stroke={chosen ? 'var(--color-copper)' : wanted ? 'var(--color-indigo)' : 'var(--color-bark)'}
      strokeWidth={wanted ? 3.5 : 4}
      strokeDasharray={wanted ? '0.5 5.5' : undefined}
      strokeLinecap="round"
    />
  );
}

/** Slopes of the main branches by height: as they are, as wanted, and the curve that says so. The curve and the wanted strokes are dragged, or moved with the arrow keys; across the free ground a curve is drawn by hand. */
export function SlopeLadder() {
  const { tree, plan, branch, setBranch, names, act } = useDesk();
  const placed = usePlacedAfter(tree);
  const { height, lineOf } = standingOf(placed);
  const svg = useRef<SVGSVGElement>(null);
  const [draft, setDraft] = useState<Point[] | null>(null);
  const [moved, setMoved] = useState<{ branch: string; slope: number } | null>(null);
  const profile = slopeProfile(tree);
  const curve: Point[] = draft ?? tree.plan.posing?.curve ?? HELD.map((share) => ({ height: share, slope: Math.round(profile.at(share)) }));
  const sorted = [...curve].sort((a, b) => a.height - b.height);

  const place = ([clientX, clientY]: [number, number]): { x: number; y: number } => {
    const { left, top, width } = svg.current!.getBoundingClientRect();
    const scale = WIDTH / width;
    return { x: (clientX - left) * scale, y: (clientY - top) * scale };
  };
  const store = async (points: Point[]): Promise<void> => {
    await act({ kind: 'posing', curve: points.map(({ height: h, slope }) => ({ height: Math.round(h * 100) / 100, slope })) });
    setDraft(null);
  };
  const withPoint = (i: number, slope: number): Point[] => sorted.map((p, k) => (k === i ? { ...p, slope: clamp(slope, LOW, HIGH) } : p));

  const hold = useDrag(
    ({ args: [i], xy, last, event }) => {
      event.stopPropagation();
      const next = withPoint(i as number, slopeAt(place(xy).x));
      setDraft(next);
      if (last) void store(next);
    },
    { pointer: { keys: false }, filterTaps: true },
  );
  const drawn = useRef<Point[]>([]);
  const draw = useDrag(
    ({ xy, first, last, tap }) => {
      if (tap) return;
      if (first) drawn.current = [];
      const { x, y } = place(xy);
      // One point for each step of the height: what is drawn last counts.
      const step = Math.round(shareAt(y) * 10) / 10;
      drawn.current = [...drawn.current.filter((p) => p.height !== step), { height: step, slope: slopeAt(x) }].sort((a, b) => a.height - b.height);
      setDraft(drawn.current);
      if (last && drawn.current.length > 1) void store(drawn.current);
      else if (last) setDraft(null);
    },
    { pointer: { keys: false }, filterTaps: true, threshold: 4 },
  );
  const poseAt = async (id: string, bearing: number, slope: number): Promise<void> => {
    await act({ kind: 'pose', branch: id, bearing, elevation: slope, bends: [] });
    setMoved(null);
  };
  const lift = useDrag(
    ({ args: [id, bearing], xy, last, tap, event }) => {
      event.stopPropagation();
      if (tap) return setBranch(id as string);
      const slope = slopeAt(place(xy).x);
      setMoved({ branch: id as string, slope });
      if (last) void poseAt(id as string, bearing as number, slope);
    },
    { pointer: { keys: false }, filterTaps: true },
  );
  const step = (event: KeyboardEvent): number => {
    const by = ({ ArrowRight: 1, ArrowUp: 1, ArrowLeft: -1, ArrowDown: -1 }[event.key] ?? 0) * (event.shiftKey ? 5 : 1);
    if (by) event.preventDefault();
    return by;
  };

  const mains = (plan?.poses ?? []).filter((p) => placed.byId.get(p.branch)?.branch.parent === 'trunk');
  const still = (plan?.asGrown ?? []).filter((p) => placed.byId.get(p.branch)?.branch.parent === 'trunk');
  const shareOf = (id: string): number => lineOf.get(id)!.points[0]![2] / height;
  return (
    <svg
      ref={svg}
      viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
      className="w-full cursor-crosshair touch-none select-none"
      role="group"
      aria-label="Slope ladder: height runs up, slope from hanging on the left to steep on the right"
      {...draw()}
    >
      {[-30, 0, 30, 60].map((slope) => (
        <g key={slope}>
          <path d={`M${xOf(slope)} ${EDGE.top}V${HEIGHT - EDGE.bottom}`} stroke="var(--color-rule)" strokeWidth={slope ? 1 : 2} />
          <text x={xOf(slope)} y={HEIGHT - 8} textAnchor="middle" fontSize="14" fill="var(--color-quiet)">
            {slope === 0 ? 'level' : deg(slope)}
          </text>
        </g>
      ))}
      <path
        d={`M${sorted.map((p) => `${xOf(p.slope)} ${yOf(p.height)}`).join('L')}`}
        fill="none"
        stroke="var(--color-indigo)"
        strokeWidth="1.5"
        opacity="0.7"
      />
      {still.map((b) => (
        <Stroke key={b.branch} slope={b.elevation} share={shareOf(b.branch)} wanted={false} chosen={b.branch === branch} />
      ))}
      {mains.map((p) => {
        const share = shareOf(p.branch);
        const slope = moved?.branch === p.branch ? moved.slope : p.elevation;
        return (
          <g key={p.branch}>
            <path d={`M${xOf(p.now.elevation)} ${yOf(share)}H${xOf(slope)}`} stroke="var(--color-rule)" strokeWidth="1" />
            <Stroke slope={p.now.elevation} share={share} wanted={false} chosen={p.branch === branch} />
            <Stroke slope={slope} share={share} wanted chosen={p.branch === branch} />
            <circle
              cx={xOf(slope)}
              cy={yOf(share)}
              r="13"
              fill="transparent"
              className="cursor-ew-resize focus-visible:stroke-copper focus-visible:stroke-2 focus-visible:outline-none"
              role="slider"
              tabIndex={0}
              aria-label={`Slope wanted of ${names(p.branch)}`}
              aria-valuemin={LOW}
              aria-valuemax={HIGH}
              aria-valuenow={Math.round(slope)}
              aria-valuetext={`${deg(slope)}, now ${deg(p.now.elevation)}`}
              onKeyDown={(event) => {
                const by = step(event);
                if (by) void poseAt(p.branch, p.bearing, clamp(Math.round(p.elevation) + by, LOW, HIGH));
                if (event.key === 'Enter') setBranch(p.branch);
              }}
              {...lift(p.branch, p.bearing)}
            />
          </g>
        );
      })}
      {sorted.map((p, i) => (
        <rect
          key={i}
          x={xOf(p.slope) - 6}
          y={yOf(p.height) - 6}
          width="12"
          height="12"
          fill="var(--color-sheet)"
          stroke="var(--color-indigo)"
          strokeWidth="2"
          className="cursor-ew-resize focus-visible:stroke-copper focus-visible:outline-none"
          role="slider"
          tabIndex={0}
          aria-label={`Slope of the curve at ${Math.round(p.height * 100)}% of the height`}
          aria-valuemin={LOW}
          aria-valuemax={HIGH}
          aria-valuenow={Math.round(p.slope)}
          aria-valuetext={deg(p.slope)}
          onKeyDown={(event) => {
            const by = step(event);
            if (by) void store(withPoint(i, p.slope + by));
          }}
          {...hold(i)}
        />
      ))}
    </svg>
  );
}
