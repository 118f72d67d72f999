import type { Stage } from '../stage';
import { useWorkKit } from './kit';
import { settled } from './settled';
import { WorkPanel } from './WorkPanel';

export const work: Stage = { key: 'work', name: 'Work', settled, useKit: useWorkKit, Panel: WorkPanel, wide: true };
