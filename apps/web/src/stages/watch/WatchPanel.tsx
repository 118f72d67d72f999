import type { PlanWire } from '@ustle/core';
import { PanelHead, Skeleton } from '../../shared/parts';
import { daysBetween, sayDate, saySpan, sayShort } from '../../shared/say';
import { StageGlyph, type Glyph } from '../../shared/StageGlyph';
import { useCurves } from '../../work/use-planner';
import { History } from '../History';
import { useDesk } from '../tree-context';
import { CoilActs } from './CoilActs';
import { RaceChart } from './RaceChart';

const CHART_WEEKS = 79;

const ADVICE: Record<string, string> = {
  window: 'can come off clean',
  rewire: 'wire again',
  guy: 'a guy after this',
  wrap: 'wrap next time',
  'bend-further': 'bend further',
  'remove-now': 'take it off',
  wait: 'wait',
};

const glyphFor = (wire: PlanWire, today: string, seen: Glyph | undefined): Glyph =>
  seen ?? (wire.advice === 'remove-now' ? 'marking' : wire.touching.p50 && wire.touching.p50 <= today ? 'touching' : 'clear');

export function WatchPanel() {
  const { tree, plan, branch, setBranch, today } = useDesk();
  const curves = useCurves(tree, today, CHART_WEEKS);
  if (!plan) return <Skeleton lines={8} />;
  const seenOf = (id: string): Glyph | undefined => [...tree.record].reverse().find((e) => e.kind === 'inspected' && e.branch === id)?.stage;
  return (
    <>
      <PanelHead title="Watch">
        {plan.wires.length
          ? `${plan.wires.length} ${plan.wires.length === 1 ? 'coil is' : 'coils are'} on. Forecasts, not facts: a look at one moves the others.`
          : 'No wire is on this tree.'}
      </PanelHead>
      <ul className="border-b border-rule">
        {plan.wires.map((wire) => {
          const open = wire.branch === branch;
          const late = daysBetween(wire.nextInspection, today);
          const curve = curves?.find((c) => c.branch === wire.branch);
          return (
            <li key={wire.branch} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
              <button
                type="button"
                aria-expanded={open}
                className="flex w-full items-center gap-3 px-2 py-2 text-left"
                onClick={() => setBranch(open ? null : wire.branch)}
              >
                <StageGlyph stage={glyphFor(wire, today, seenOf(wire.branch))} />
                <strong className="w-10 shrink-0">{wire.branch}</strong>
                <span className="flex-1">{ADVICE[wire.advice] ?? wire.advice}</span>
                <span className={late >= 0 ? 'font-bold text-copper' : 'text-quiet'}>
                  {late > 0 ? `look, ${late} days late` : late === 0 ? 'look today' : `look ${sayShort(wire.nextInspection)}`}
                </span>
              </button>
              {open && (
                <div className="space-y-3 px-2 pb-3">
                  {wire.because.map((b) => (
                    <p key={b}>{b}</p>
                  ))}
                  {curve ? <RaceChart curve={curve} wire={wire} today={today} /> : <Skeleton lines={5} />}
                  <dl className="grid grid-cols-[84px_1fr] gap-y-0.5">
                    {(
                      [
                        ['Presses', wire.touching],
                        ['Marks', wire.marking],
                        ['Set', wire.set],
                      ] as const
                    ).map(([name, dates]) => (
                      <div key={name} className="contents">
                        <dt className="text-quiet">{name}</dt>
                        <dd>
                          {dates.p10 && dates.p90
                            ? saySpan(dates.p10, dates.p90)
                            : dates.p50
                              ? `about ${sayDate(dates.p50)}`
                              : name === 'Set' && wire.set.p10 === null
                                ? 'not in sight'
                                : 'open'}
                        </dd>
                      </div>
                    ))}
                  </dl>
                  <CoilActs wire={wire} />
                </div>
              )}
            </li>
          );
        })}
      </ul>
      <History branch={plan.wires.some((w) => w.branch === branch) ? branch : null} />
    </>
  );
}
