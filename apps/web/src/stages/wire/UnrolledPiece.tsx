import { useCallback, useMemo, useRef } from 'react';
import { unrolled, type Names, type PlanDocument, type PlanRun, type Tree, type Unrolled } from '@ustle/core';
import { Quiet } from '../../shared/parts';
import { saveSvg } from '../../shared/save-svg';
import { sayTurn } from '../pose/words';

const TICK = 50;
const STRIP_X = 46;
const WIDE = 350;
/** Least room between two lines of words. */
const LINE = 20;

/** Words beside a strip, moved down where two would lie over each other. */
function spread(at: readonly number[]): number[] {
  const out: number[] = [];
  at.forEach((y, i) => out.push(i ? Math.max(y, out[i - 1]! + LINE) : y));
  return out;
}

/** One piece of wire laid out straight and to scale: shoulders, the way round the limb, bends, side shoots stepped over, a tick each 50 mm. */
export function UnrolledPiece({ run, tree, plan, short }: { run: PlanRun; tree: Tree; plan: PlanDocument; short: Names }) {
  const drawing = useRef<SVGSVGElement>(null);
  const bendsOf = useCallback((branch: string) => (branch === 'trunk' ? plan.trunk?.bends : plan.poses.find((p) => p.branch === branch)?.bends) ?? [], [plan]);
  const piece = useMemo<Unrolled | null>(() => {
    if (!run.places) return null;
    return unrolled(tree, { ...run, places: run.places }, bendsOf);
  }, [run, bendsOf, tree]);
  if (!piece) return null;
  const scale = Math.min(0.85, Math.max(0.4, 520 / piece.length));
  const told = piece.marks.map((mark) => {
    const bend = mark.kind === 'bend' ? bendsOf(mark.branch!)[mark.bend!] : undefined;
    const text =
      mark.kind === 'end'
        ? 'end loop'
        : mark.kind === 'shoulder'
          ? mark.branch === 'trunk'
            ? 'out of the soil'
            : `shoulder of ${short(mark.branch!)}`
          : mark.kind === 'shoot'
            ? `past ${short(mark.branch!)}`
            : `${bend!.angle.toFixed(0)}° ${sayTurn(bend!.start, bend!.toward)}`;
    return { ...mark, text };
  });
  const route = {
    ...piece.route,
    text:
      run.kind === 'trunk'
        ? `${(run.anchor?.soil ?? 0).toFixed(0)} mm into the soil`
        : run.kind === 'pair'
          ? `round, ${run.route!.turnDeg.toFixed(0)}°`
          : `${(run.anchor?.turns ?? 2).toFixed(1)} turns to anchor`,
  };
  const words = [
    ...told.map((m) => ({ at: m.at + m.length / 2, mark: m, text: m.text })),
    { at: (route.from + route.to) / 2, mark: null, text: route.text },
  ].sort((a, b) => a.at - b.at);
  const y = (mm: number): number => 14 + mm * scale;
  const lines = spread(words.map((w) => y(w.at)));
  const height = Math.max(y(piece.length), lines[lines.length - 1] ?? 0) + 16;
  const colour = run.metal === 'copper' ? 'var(--color-copper)' : 'var(--color-pewter)';
  return (
    <>
      <svg
        ref={drawing}
        viewBox={`0 0 ${WIDE} ${height}`}
        width="100%"
        role="img"
        aria-label={`The piece laid straight, ${piece.length.toFixed(0)} mm: ${words.map((w) => `${w.at.toFixed(0)} mm ${w.text}`).join('; ')}`}
        className="font-sans"
      >
        {Array.from({ length: Math.floor(piece.length / TICK) + 1 }, (_, i) => (
          <g key={i}>
            <line x1={STRIP_X - 13} x2={STRIP_X - 7} y1={y(i * TICK)} y2={y(i * TICK)} stroke="var(--color-quiet)" />
            {i % 2 === 0 && (
              <text x={STRIP_X - 16} y={y(i * TICK) + 5} textAnchor="end" fontSize="15" fill="var(--color-quiet)">
                {i * TICK}
              </text>
            )}
          </g>
        ))}
        <rect x={STRIP_X - 2.5} y={y(0)} width="5" height={piece.length * scale} fill={colour} />
        <rect x={STRIP_X - 5} y={y(route.from)} width="10" height={Math.max(2, (route.to - route.from) * scale)} fill="var(--color-bark)" opacity="0.55" />
        {told.map((m, i) =>
          m.kind === 'bend' ? (
            <path
              key={i}
              d={`M${STRIP_X + 6} ${y(m.at)}q7 ${(m.length * scale) / 2} 0 ${m.length * scale}`}
              fill="none"
              stroke="var(--color-ink)"
              strokeWidth="2"
            />
          ) : m.kind === 'shoot' ? (
            <circle key={i} cx={STRIP_X} cy={y(m.at)} r="4.5" fill="var(--color-sheet)" stroke="var(--color-moss)" strokeWidth="2" />
          ) : m.kind === 'shoulder' ? (
            <path key={i} d={`M${STRIP_X - 9} ${y(m.at)}h18`} stroke="var(--color-ink)" strokeWidth="2.5" />
          ) : (
            <circle key={i} cx={STRIP_X} cy={y(m.at + m.length / 2)} r={Math.max(3, (m.length * scale) / 3)} fill="none" stroke={colour} strokeWidth="2" />
          ),
        )}
        {words.map((w, i) => (
          <g key={i}>
            <path d={`M${STRIP_X + 14} ${y(w.at)}L${STRIP_X + 22} ${lines[i]}`} stroke="var(--color-rule)" fill="none" />
            <text x={STRIP_X + 26} y={lines[i]! + 5} fontSize="15" fill={w.mark?.kind === 'shoot' ? 'var(--color-moss)' : 'var(--color-ink)'}>
              {w.text}
            </text>
          </g>
        ))}
      </svg>
      <span className="print:hidden">
        <Quiet onClick={() => saveSvg(drawing.current!, `${tree.name} ${run.branches.map((b) => short(b.branch)).join(' ')}`)}>
          keep this drawing as a file (SVG)
        </Quiet>
      </span>
    </>
  );
}
