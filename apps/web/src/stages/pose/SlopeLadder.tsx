import { clamp, standingOf, standsAt } from '@ustle/core';
import { useDesk } from '../desk';
import { usePlacedAfter } from '../posed-lines';
import { EDGE, HEIGHT, HIGH, LOW, STROKE, WIDTH, xOf, yOf } from './ladder-scale';
import { arrowStep, useLadderDrags } from './use-ladder-drags';
import { deg } from './words';

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
  const { tree, plan, branch, setBranch, names } = useDesk();
  const placed = usePlacedAfter(tree);
  const { height, lineOf } = standingOf(placed);
  const { svg, sorted, moved, store, withPoint, poseAt, hold, draw, lift } = useLadderDrags(tree);
  const mains = (plan?.poses ?? []).filter((p) => placed.byId.get(p.branch)?.branch.parent === 'trunk');
  const still = (plan?.asGrown ?? []).filter((p) => placed.byId.get(p.branch)?.branch.parent === 'trunk');
  const shareOf = (id: string): number => standsAt(placed, placed.byId.get(id)!, lineOf.get(id)!.points[0]![2], height).share;
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
                const by = arrowStep(event);
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
            const by = arrowStep(event);
            if (by) void store(withPoint(i, p.slope + by));
          }}
          {...hold(i)}
        />
      ))}
    </svg>
  );
}
