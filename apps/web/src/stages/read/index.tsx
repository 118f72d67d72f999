import type { Stage } from '../stage';
import { ReadPanel } from './ReadPanel';

const KIT = { drawing: {} };

export const read: Stage = {
  key: 'read',
  name: 'Read',
  settled: (_tree, plan) => plan.read.verdict === 'go',
  useKit: () => KIT,
  Panel: ReadPanel,
};
