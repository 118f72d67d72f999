import { isRead } from '@ustle/core';
import type { Stage } from '../stage';
import { ReadPanel } from './ReadPanel';

const KIT = { drawing: {} };

export const read: Stage = {
  key: 'read',
  name: 'Read',
  settled: (tree, plan) => isRead(tree) && plan.read.verdict === 'go',
  useKit: () => KIT,
  Panel: ReadPanel,
};
