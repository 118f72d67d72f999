import type { Stage } from '../stage';
import { useWorkKit } from './kit';
import { settled } from './settled';
import { WorkPanel } from './WorkPanel';

export const work: Stage = {
  key: 'work',
  name: 'Work',
  first: 'say how many hours there are; the steps then come one by one, each with its answer.',
  settled,
  useKit: useWorkKit,
  Panel: WorkPanel,
  wide: true,
};
