import { isRead } from '@ustle/core';
import type { Stage } from '../stage';
import { ReadPanel } from './ReadPanel';

const KIT = { drawing: {} };

export const read: Stage = {
  key: 'read',
  name: 'Read',
  first: 'press what you see of its tips, its foliage and its buds; how much work it bears today follows from that.',
  settled: (tree, plan) => isRead(tree) && plan.read.verdict === 'go',
  useKit: () => KIT,
  Panel: ReadPanel,
};
