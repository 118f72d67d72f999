import { sayByHand, sayRoute, type PlanRun, type RunBranchPlan } from '@ustle/core';
import type { ReactNode } from 'react';
import { Facts } from '../../shared/parts';
import { percent } from '../../shared/say';
import { Worded } from '../../words/Worded';
import { useDesk } from '../desk';
import { ChangePiece } from './ChangePiece';
import { PastTarget } from './PastTarget';
import { PressTest } from './PressTest';
import { PutOn } from './PutOn';
import { ThisBranch } from './ThisBranch';
import { UnrolledPiece } from './UnrolledPiece';
import { WindGlyph } from './WindGlyph';
import { sayMiss, sayPush } from './words';

/** Bends that its wire holds; a tie may hold others. */
const heldBy = ({ bends }: RunBranchPlan) => bends.flatMap((b) => b ?? []);

const factsOf = (part: RunBranchPlan): [string, string][] => [
  ['Turns', `${part.turns.toFixed(1)}`],
  ['Bend to', `about ${sayByHand(part.bendTo)} by hand, spread over ${part.bendLength.toFixed(0)} mm`],
  ...(heldBy(part).length > 1
    ? [
        [
          'Then',
          `its way and tip, to ${heldBy(part)
            .slice(1)
            .map((b) => sayByHand(b.bendTo))
            .join(', ')}: see Pose`,
        ] as [string, string],
      ]
    : []),
  ['Settles at', `${part.settles.toFixed(0)}°; ${percent(part.springBack)} of the bend comes back when you let go`],
  ['The wire lies', sayMiss(part)],
  ['Pressed to it', sayPush(part.firmness.pushChance)],
  ['Rules of thumb', `aluminium ${part.rule.aluminium.toFixed(1)} mm, copper ${part.rule.copper.toFixed(1)} mm`],
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

/** A part of a piece, folded until it is asked for. */
const Fold = ({ of, children }: { of: string; children: ReactNode }) => (
  <details className="border-t border-rule pt-2">
    <summary className="min-h-8 cursor-pointer content-center first-letter:uppercase">{of}</summary>
    <div className="space-y-2 pt-1">{children}</div>
  </details>
);

function Half({ run, part }: { run: PlanRun; part: RunBranchPlan }) {
  const { plan, names } = useDesk();
  const bends = part.branch === 'trunk' ? plan!.trunk?.bends : plan!.poses.find((p) => p.branch === part.branch)?.bends;
  const bend = bends?.find((_, i) => part.bends[i]);
  return (
    <Fold of={`${names(part.branch)}: bent to about ${sayByHand(part.bendTo)}, ${part.turns.toFixed(1)} turns`}>
      <WindGlyph hand={part.hand} start={part.start} />
      {part.because
        .filter((b) => !b.startsWith('By the rules'))
        .map((b) => (
          <p key={b}>
            <Worded>{b}</Worded>
          </p>
        ))}
      <Facts rows={factsOf(part)} />
      {bend && (
        <p className="text-quiet">
          {bend.protection === 'none' || bend.band !== 'calm' ? BANDS[bend.band] : ''} {UNDER[bend.protection] ?? ''}{' '}
          {bend.stages !== null && bend.stages > 1 ? `In ${bend.stages} stages, with rest between.` : ''}
        </p>
      )}
      {part.branch !== 'trunk' && (
        <>
          <PastTarget branch={part.branch} now={part.target > 0 ? part.settles / part.target - 1 : 0} />
          <ThisBranch branch={part.branch} />
          <PressTest key={`${run.metal}${run.size}`} branch={part.branch} metal={run.metal} size={run.size} />
        </>
      )}
    </Fold>
  );
}

/** A piece of wire, opened: how it goes, laid out straight, how each half holds, and what was put on. */
export function OpenPiece({ run, settled, replaces }: { run: PlanRun; settled: boolean; replaces: string | null }) {
  const { tree, plan, short, names } = useDesk();
  return (
    <div className="space-y-2 px-2 pb-3">
      <p>
        {run.length.toFixed(0)} mm, {run.mass.toFixed(0)} g, the wire at {run.angle}° to the branch; {sayRoute(run, names)}.
      </p>
      {run.because.map((b) => (
        <p key={b} className="text-quiet">
          <Worded>{b}</Worded>
        </p>
      ))}
      <ChangePiece run={run} settled={settled} />
      <PutOn key={`${run.metal}${run.size}${run.branches.map((b) => b.branch).join()}`} run={run} replaces={replaces} />
      <Fold of="Laid out straight, with its shoulders and bends">
        <UnrolledPiece run={run} tree={tree} plan={plan!} short={short} />
      </Fold>
      {run.branches.map((part) => (
        <Half key={part.branch} run={run} part={part} />
      ))}
    </div>
  );
}
