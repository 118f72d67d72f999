import type { PlanDocument } from '../plan/index.js';
import type { Stock } from '../rack/index.js';
import type { Tree } from '../tree/index.js';
import { cuttingPaperOf } from './cutting-paper.js';
import { layOut, running } from './lay-out.js';
import type { Pace } from './pace.js';
import type { Paper } from './paper.js';
import { proposalOf } from './proposal.js';
import { reportOf } from './report.js';
import { piecesPaperOf } from './wire-papers.js';
import { workSheetOf } from './work-sheet.js';

export const PAPERS = ['proposal', 'report', 'sheet', 'cuts', 'pieces'] as const;
export type PaperKind = (typeof PAPERS)[number];

/** Hours of a session on paper where none is open and nobody said. */
const USUAL_HOURS = 4;

/** A paper of a tree: the same from whoever asks. `pieces` needs a plan with its places, and the rack's stock. */
export function paperOf(
  kind: PaperKind,
  tree: Tree,
  plan: PlanDocument,
  onDay: number,
  { pace = {}, stock = [] }: { pace?: Pace; stock?: readonly Stock[] } = {},
): Paper {
  if (kind === 'proposal') return proposalOf(tree, plan, onDay, pace);
  if (kind === 'report') return reportOf(tree, plan, onDay);
  if (kind === 'cuts') return cuttingPaperOf(tree, plan, onDay);
  if (kind === 'pieces') return piecesPaperOf(tree, plan, onDay, stock);
  const now = running(tree, plan, onDay, pace);
  return workSheetOf(tree, plan, now ? { steps: now.open, minutes: now.minutes } : layOut(tree, plan, onDay, { hours: USUAL_HOURS, pace }), onDay);
}
