import type { Stage } from '../stage';
import { GuyPanel } from './GuyPanel';
import { settled } from './settled';
import { useGuyKit } from './kit';

export const guy: Stage = { key: 'guy', name: 'Guy', settled, useKit: useGuyKit, Panel: GuyPanel };
