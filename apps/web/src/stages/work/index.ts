import type { Stage } from '../stage';
import { useWorkKit } from './kit';
import { settled } from './settled';
import { WorkPanel } from './WorkPanel';

export const work: Stage = {
  key: 'work',
  name: 'Work',
  first: 'a session is as long as you say; answer its steps in their turn.',
  settled,
  useKit: useWorkKit,
  Panel: WorkPanel,
  wide: true,
};
