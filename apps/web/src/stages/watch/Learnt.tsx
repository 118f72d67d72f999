import { dayOf, isoOf, MANNER, speciesOf, type LineKind, type Range, type Watching } from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { Facts, Quiet } from '../../shared/parts';
import { count, sayDate } from '../../shared/say';
import { AgreeTo } from '../AgreeTo';
import { useDesk } from '../desk';

const times = ({ low, likely, high }: Range): string => `${likely.toFixed(2)} times (${low.toFixed(2)} to ${high.toFixed(2)})`;

const EVENTS: { kind: Extract<LineKind, 'fed' | 'pruned' | 'defoliated' | 'repotted' | 'ailing'>; name: string }[] = [
  { kind: 'fed', name: 'Fed' },
  { kind: 'pruned', name: 'Pruned hard' },
  { kind: 'defoliated', name: 'Leaves off' },
  { kind: 'repotted', name: 'Repotted' },
  { kind: 'ailing', name: 'A weak spell' },
];

/** How good the forecasts on this tree were, with how few or many cases. */
function sayCases({ inside, early, late, open }: Watching['cases']): string {
  const told = inside + early + late;
  if (!told) return open ? `none yet: ${count(open, 'coil')} ended, or still ${open === 1 ? 'runs' : 'run'}, before it could be told` : 'none yet';
  const rest = [early ? `${early} marked sooner` : '', late ? `${late} later` : ''].filter(Boolean).join(', ');
  return `${inside} of ${told} first marks came within the days that were foreseen with four chances in five${rest ? `; ${rest}` : ''}${told < 10 ? '. Few cases: chance speaks too' : ''}`;
}

/** What changes the growth of the tree, and what was learnt of it. */
export function Learnt({ watching }: { watching: Watching }) {
  const { tree, act, today } = useDesk();
  const { pace, spring, cases } = watching;
  return (
    <section className="mt-6 space-y-3" aria-label="Growth">
      <h3 className="text-lg">How it grows</h3>
      <div>
        <p className="mb-1 text-quiet">Today it was…</p>
        <div className="flex flex-wrap gap-1.5">
          {EVENTS.map(({ kind, name }) => (
            <button key={kind} type="button" className="btn btn-outline btn-sm border-rule font-normal" onClick={() => void act({ kind })}>
              {name}
            </button>
          ))}
        </div>
        <AgreeTo deeds={['repotting', 'leaves', 'pruning']} />
      </div>
      <Facts
        rows={[
          ['It thickens', `${times(pace.now)} as fast as usual for ${speciesOf(tree.species).name} of its vigour`],
          ['Before looks', `${times(pace.before)}; ${count(pace.looks, 'look')} since`],
          ['Springs back', `${times(spring)} what is computed`],
          ['Forecasts', sayCases(cases)],
        ]}
      />
      <NumberField
        label="You know better: times the usual"
        rule={MANNER.pace}
        unit="times"
        value={tree.plan.pace ?? null}
        open
        onValue={(value) => void act({ kind: 'manner', pace: value })}
      />
      {tree.plan.learnFrom ? (
        <p>
          Learns from {sayDate(tree.plan.learnFrom)} on.{' '}
          <Quiet onClick={() => void act({ kind: 'manner', learnFrom: null })}>learn from all that was seen</Quiet>
        </p>
      ) : (
        pace.looks > 0 && (
          <Quiet onClick={() => void act({ kind: 'manner', learnFrom: isoOf(dayOf(today) + 1) })}>forget what was learnt, and learn anew from tomorrow</Quiet>
        )
      )}
    </section>
  );
}
