import { useMemo } from 'react';
import { paths, type StoredTree } from '@ustle/contract';
import { cutList, dayOf, paperOf, placeTree, type PaperKind } from '@ustle/core';
import { Skeleton } from '../shared/parts';
import { useKnown, usePace, useRack } from '../shared/queries';
import { Agreement } from '../stages/Agreement';
import { PrintPage } from '../stages/PrintPage';
import { usePlan } from '../jobs/use-planner';
import { PaperView } from './PaperView';

function Made({ kind, stored, today }: { kind: PaperKind; stored: StoredTree; today: string }) {
  const { tree, id } = stored;
  const plan = usePlan(tree, today, useKnown(id));
  const pace = usePace();
  const { data: rack, error: noRack } = useRack();
  const stock = rack?.stock;
  const paper = useMemo(() => plan && paperOf(kind, tree, plan, dayOf(today), { pace, stock }), [kind, tree, plan, today, pace, stock]);
  const cuts = useMemo(() => (kind === 'proposal' ? cutList(placeTree(tree), 1) : []), [kind, tree]);
  // Without the rack nothing is known of rolls: each piece would seem to need a new one.
  if (!paper || (kind === 'pieces' && !rack && !noRack)) return <Skeleton lines={14} />;
  return (
    <>
      <PaperView paper={paper} />
      {kind === 'proposal' && (
        <div className="mt-5">
          <Agreement stored={stored} today={today} cuts={cuts} />
        </div>
      )}
    </>
  );
}

const page =
  (kind: PaperKind, what: string, back = 'work') =>
  () => (
    <PrintPage what={what} back={back} file={(id) => paths.paper(id, kind)}>
      {(stored, today) => <Made kind={kind} stored={stored} today={today} />}
    </PrintPage>
  );

/** What is proposed for a tree, to be agreed to; what was done to it; the work of a session; and every piece of its wire, laid straight. */
export const ProposalPage = page('proposal', 'what is proposed');
export const ReportPage = page('report', 'what was done');
export const SheetPage = page('sheet', 'the work on paper');
export const PiecesPage = page('pieces', 'the wire, piece by piece', 'wire');
