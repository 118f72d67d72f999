import type { ComponentType } from 'react';
import type { PlanDocument, Tree } from '@ustle/core';
import type { DrawnCoil } from '../turntable/coil-geometry';
import type { TurntableProps } from '../turntable/Turntable';
import { FrontPanel } from './front/FrontPanel';
import { frontOverlay } from './front/overlay';
import { MeasurePanel } from './measure/MeasurePanel';
import { ReadPanel } from './read/ReadPanel';
import { RemovePanel } from './remove/RemovePanel';
import { removeOverlay } from './remove/overlay';
import type { TreeDesk } from './tree-context';
import { WatchPanel } from './watch/WatchPanel';
import { watchOverlay } from './watch/overlay';
import { WirePanel } from './wire/WirePanel';
import { wireOverlay } from './wire/overlay';

export const STAGE_KEYS = ['read', 'measure', 'front', 'remove', 'wire', 'watch'] as const;
export type StageKey = (typeof STAGE_KEYS)[number];

type Overlay = Partial<Pick<TurntableProps, 'rose' | 'flags' | 'labels' | 'poses' | 'foliage' | 'evidence'>> & { planned?: readonly DrawnCoil[] };

interface Stage {
  key: StageKey;
  name: string;
  Panel: ComponentType;
  /** What the stage draws on the turntable. */
  overlay: (desk: TreeDesk) => Overlay;
}

export const STAGES: readonly Stage[] = [
  { key: 'read', name: 'Read', Panel: ReadPanel, overlay: () => ({}) },
  {
    key: 'measure',
    name: 'Measure',
    Panel: MeasurePanel,
    overlay: ({ branch, drafting }) => {
      // A crooked branch has its handles, where a word would stand in the way.
      const crooked = drafting.tree.branches.some((b) => b.id === branch && b.path);
      return { labels: branch && !crooked ? [{ branch, text: branch }] : [], foliage: 0.45 };
    },
  },
  { key: 'front', name: 'Front', Panel: FrontPanel, overlay: frontOverlay },
  { key: 'remove', name: 'Remove', Panel: RemovePanel, overlay: removeOverlay },
  { key: 'wire', name: 'Wire', Panel: WirePanel, overlay: wireOverlay },
  { key: 'watch', name: 'Watch', Panel: WatchPanel, overlay: watchOverlay },
];

/** The stages that need nothing more for now. */
export function settledStages(tree: Tree, plan: PlanDocument | null): Set<StageKey> {
  const settled = new Set<StageKey>();
  if (!plan) return settled;
  if (plan.read.verdict === 'go') settled.add('read');
  if (tree.branches.length) settled.add('measure');
  if (tree.plan.front) settled.add('front');
  const decided = new Set(tree.plan.decisions.map((d) => d.branch));
  if (decided.size && plan.findings.every((f) => decided.has(f.branch))) settled.add('remove');
  const wired = new Set(plan.wires.map((w) => w.branch));
  if (wired.size && plan.runs.every((r) => r.branches.every((b) => wired.has(b.branch)))) settled.add('wire');
  if (plan.wires.length && plan.wires.every((w) => w.nextInspection > plan.on && w.advice !== 'remove-now')) settled.add('watch');
  return settled;
}
