import { lazy, Suspense } from 'react';
import { coilsOn, dayOf, speciesOf, toleranceOf, type PlanWire, type Tolerance } from '@ustle/core';
import { Facts, PanelHead, Pick, Skeleton } from '../../shared/parts';
import { count, sayDate, saySpan, sayShort } from '../../shared/say';
import { StageGlyph, type Glyph } from '../../shared/StageGlyph';
import { Worded } from '../../words/Worded';
import { useDesk } from '../desk';
import { History } from '../History';
import { useWatch } from './kit';
import { AfterWire } from './AfterWire';
import { CoilActs } from './CoilActs';
import { Learnt } from './Learnt';

const RaceChart = lazy(() => import('./RaceChart').then((m) => ({ default: m.RaceChart })));

const ADVICE: Record<string, string> = {
  window: 'comes off clean in its window',
  rewire: 'wire again',
  guy: 'a guy after this',
  wrap: 'wrap next time',
  'bend-further': 'bend further',
  'remove-now': 'take it off',
  wait: 'wait',
};

/** What is to be done with a coil, and when. */
function sayTask({ kind, on, late }: PlanWire['task'], today: string): string {
  const now = on <= today;
  if (kind === 'look') return late ? 'look first of all' : now ? 'look today' : `look by ${sayShort(on)}`;
  if (kind === 'remove') return now ? 'take it off today' : `off by ${sayShort(on)}`;
  return now ? 'off today, its window ends' : `can come off, by ${sayShort(on)}`;
}

type Dates = PlanWire['touching'];

/** When something is likely, four chances in five between two days. */
const sayDates = (dates: Dates, none: string): string =>
  dates.p10 && dates.p90 ? saySpan(dates.p10, dates.p90) : dates.p50 ? `about ${sayDate(dates.p50)}` : none;

const WHERE = { bend: 'At the bend', straight: 'Straight turns' };

const forecastOf = (wire: PlanWire): [string, string][] => [
  ['Touching', sayDates(wire.touching, 'open')],
  ['Marking', sayDates(wire.marking, 'open')],
  ['Marking deeply', sayDates(wire.deep, 'open')],
  ['Set', sayDates(wire.set, wire.set.p10 === null ? 'not in sight' : 'open')],
  ...wire.stretches.map((s): [string, string] => [WHERE[s.where], s.p50 ? `likely to mark about ${sayDate(s.p50)}` : 'not likely to mark']),
];

/** Which marks the tree bears: what the day to take wire off follows from. */
function Bears() {
  const { tree, act } = useDesk();
  const { markFadeYears } = speciesOf(tree.species);
  const options: { value: Tolerance; name: string }[] = [
    { value: 'none', name: 'None: off before it marks' },
    {
      value: 'fading',
      name:
        markFadeYears === null
          ? 'Shallow ones, though this bark keeps them'
          : `Shallow ones, that grow out in about ${markFadeYears === 1 ? 'a year' : `${markFadeYears} years`}`,
    },
  ];
  return (
    <Pick label="Marks that this tree bears" value={toleranceOf(tree)} options={options} onChange={(tolerance) => void act({ kind: 'manner', tolerance })} />
  );
}

function OpenCoil({ wire }: { wire: PlanWire }) {
  const { today } = useDesk();
  const { curves } = useWatch();
  const curve = curves?.find((c) => c.branch === wire.branch);
  return (
    <div className="space-y-3 px-2 pb-3">
      {wire.because.map((b) => (
        <p key={b}>
          <Worded>{b}</Worded>
        </p>
      ))}
      {wire.snoozed && (
        <p className="text-quiet">
          Put off to {sayDate(wire.snoozed.until)}: {wire.snoozed.why}
        </p>
      )}
      <CoilActs wire={wire} />
      <Facts rows={forecastOf(wire)} />
      <Suspense fallback={<Skeleton lines={5} />}>{curve ? <RaceChart curve={curve} wire={wire} today={today} /> : <Skeleton lines={5} />}</Suspense>
      <History branch={wire.branch} />
    </div>
  );
}

export function WatchPanel() {
  const { tree, plan, branch, setBranch, today, names } = useDesk();
  const { watching } = useWatch();
  if (!plan) return <Skeleton lines={8} />;
  const coils = coilsOn(tree, dayOf(today));
  const seenOf = ({ branch: id, run }: PlanWire): Glyph | undefined => coils.find((c) => c.branch === id && c.run === run)?.seen.at(-1)?.stage;
  return (
    <>
      <PanelHead title="Watch">
        {plan.wires.length
          ? `${count(plan.wires.length, 'coil')} ${plan.wires.length === 1 ? 'is' : 'are'} on. Forecasts, not facts: a look at one moves the others.`
          : 'No wire is on this tree.'}
      </PanelHead>
      <ul className="border-b border-rule">
        {plan.wires.map((wire) => {
          const open = wire.branch === branch;
          return (
            <li key={`${wire.run}${wire.branch}`} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
              <button
                type="button"
                aria-expanded={open}
                data-branch={wire.branch}
                className="flex w-full items-center gap-3 px-2 py-2 text-left"
                onClick={() => setBranch(open ? null : wire.branch)}
              >
                <StageGlyph stage={seenOf(wire) ?? 'unseen'} />
                <span className="min-w-0 flex-1">
                  <strong className="block">{names(wire.branch)}</strong>
                  {ADVICE[wire.advice] ?? wire.advice}
                </span>
                <span className={`text-right ${wire.task.on <= today ? 'font-bold text-copper' : 'text-quiet'}`}>{sayTask(wire.task, today)}</span>
              </button>
              {open && <OpenCoil wire={wire} />}
            </li>
          );
        })}
      </ul>
      {watching && <AfterWire watching={watching} />}
      {plan.wires.length > 0 && <Bears />}
      {watching && <Learnt watching={watching} />}
      {!plan.wires.some((w) => w.branch === branch) && <History branch={null} kinds={['wired', 'inspected', 'unwired']} title="Wire so far" />}
    </>
  );
}
