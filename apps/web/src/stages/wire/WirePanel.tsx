import { coilsOn, dayOf, type Firmness, type RunBranchPlan, type RunPlan } from '@ustle/core';
import { Caution, Facts, PanelHead, Pick, Skeleton } from '../../shared/parts';
import { count, percent, sayDate, sayMetal } from '../../shared/say';
import { useDesk } from '../desk';
import { PutOn } from './PutOn';
import { WindGlyph } from './WindGlyph';

/** What the push test is likely to say of a wire. */
function sayPush(chance: number): string {
  if (chance >= 0.95) return 'moves the branch, almost surely';
  if (chance >= 0.65) return `moves the branch, ${Math.round(chance * 10)} times in 10`;
  return 'as likely moves the branch as gives way: press it first';
}

const factsOf = (run: RunPlan, part: RunBranchPlan): [string, string][] => [
  ['Turns', `${part.turns.toFixed(1)}, the wire at ${run.angle}° to the branch`],
  ['Piece', `${run.length.toFixed(0)} mm, ${run.mass.toFixed(0)} g`],
  ['Bend to', `${part.bendTo.toFixed(0)}° by hand, spread over ${part.bendLength.toFixed(0)} mm`],
  ...(part.bends.length > 1
    ? [
        [
          'Then',
          `its way and tip, to ${part.bends
            .slice(1)
            .map((b) => `${b.bendTo.toFixed(0)}°`)
            .join(', ')}: see Pose`,
        ] as [string, string],
      ]
    : []),
  ['Settles at', `${part.settles.toFixed(0)}°; ${percent(part.springBack)} of the bend comes back when you let go`],
  ['Pressed to it', sayPush(part.firmness.pushChance)],
  ['Rules of thumb', `aluminium ${part.rule.aluminium.toFixed(1)} mm, copper ${part.rule.copper.toFixed(1)} mm`],
];

const FIRMNESS: { value: Firmness; name: string }[] = [
  { value: 'firm', name: 'Firm: bent hardly past where it stays' },
  { value: 'usual', name: 'Usual: bent up to two fifths past' },
  { value: 'light', name: 'Light: thinner wire, bent further past' },
];

const BANDS: Record<string, string> = {
  calm: 'The wood bears this bend easily.',
  careful: 'The wood bears this bend, if it is done slowly.',
  heavy: 'A heavy bend for this wood.',
  no: 'More than this wood bears in one season.',
};
const UNDER: Record<string, string> = {
  raffia: 'Wrap it with raffia first.',
  parallel: 'Lay parallel wires first.',
  both: 'Wrap it with raffia and lay parallel wires first.',
};

function OpenRun({ run, part }: { run: RunPlan; part: RunBranchPlan }) {
  const { plan } = useDesk();
  const bend = plan!.poses.find((p) => p.branch === part.branch)?.bends[0];
  return (
    <div className="space-y-3 px-2 pb-3">
      {part.because
        .filter((b) => !b.startsWith('By the rules'))
        .map((b) => (
          <p key={b}>{b}</p>
        ))}
      <WindGlyph hand={part.hand} start={part.start} />
      <Facts rows={factsOf(run, part)} />
      {bend && (
        <p className="text-quiet">
          {bend.protection === 'none' || bend.band !== 'calm' ? BANDS[bend.band] : ''} {UNDER[bend.protection] ?? ''}{' '}
          {bend.stages !== null && bend.stages > 1 ? `In ${bend.stages} stages, with rest between.` : ''}
        </p>
      )}
      <PutOn key={`${run.id}${run.size}`} run={run} part={part} />
    </div>
  );
}

export function WirePanel() {
  const { tree, plan, branch, setBranch, today, names, act } = useDesk();
  if (!plan) return <Skeleton lines={9} />;
  const on = new Map(coilsOn(tree, dayOf(today)).map((c) => [c.branch, c]));
  const runs = plan.runs.filter((r) => r.branches.some((b) => !on.has(b.branch)));
  const chosenOn = branch ? plan.wires.find((w) => w.branch === branch) : undefined;
  return (
    <>
      <PanelHead title="Wire">
        {runs.length
          ? `${count(runs.length, 'branch', 'branches')} to wire, thick before thin, from inside and below. Press a wire against the branch: whichever gives way is the weaker.`
          : 'No branch waits for wire.'}
      </PanelHead>
      {chosenOn && (
        <p className="mb-3 border-l-4 border-copper bg-base-100 px-3 py-2">
          {names(branch!)} carries wire since {sayDate(chosenOn.since)}. See it under Watch.
        </p>
      )}
      <ul className="mb-4 border-b border-rule">
        {runs.map((run) =>
          run.branches.map((part) => {
            const open = part.branch === branch;
            return (
              <li key={`${run.id}${part.branch}`} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
                <button
                  type="button"
                  aria-expanded={open}
                  data-branch={part.branch}
                  className="flex w-full items-baseline gap-3 px-2 py-2 text-left"
                  onClick={() => setBranch(open ? null : part.branch)}
                >
                  <span className="min-w-0 flex-1">
                    <strong className="block">{names(part.branch)}</strong>
                    {run.strands > 1 && `${run.strands} × `}
                    {sayMetal(run.metal, run.size, run.gauge)}
                  </span>
                  <span className="text-quiet">bend {part.target.toFixed(0)}°</span>
                </button>
                {open && <OpenRun run={run} part={part} />}
              </li>
            );
          }),
        )}
      </ul>
      <Pick
        label="How firm the wire is on this tree"
        value={tree.plan.firmness ?? 'usual'}
        options={FIRMNESS}
        onChange={(firmness) => void act({ kind: 'manner', firmness })}
      />
      <div className="mt-4" />
      <Caution>
        A wire's end springs: hold it, and protect your eyes. Copper under load more so. Annealing is fire, hot metal and fumes: outdoors, and by someone who
        knows it.
      </Caution>
      {plan.unwired.length > 0 && (
        <details className="mt-4">
          <summary className="cursor-pointer">{count(plan.unwired.length, 'branch', 'branches')} without wire, and why</summary>
          <ul className="mt-2 space-y-1">
            {plan.unwired.map((u) => (
              <li key={u.branch}>
                <strong>{names(u.branch)}</strong>: <span className="text-quiet">{u.because.join(' ')}</span>
              </li>
            ))}
          </ul>
        </details>
      )}
    </>
  );
}
