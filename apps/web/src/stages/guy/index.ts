import type { Stage } from '../stage';
import { GuyPanel } from './GuyPanel';
import { settled } from './settled';
import { useGuyKit } from './kit';

export const guy: Stage = {
  key: 'guy',
  name: 'Guy',
  first: 'open a tie or choose a branch, look where it leads and what its checks say, put it on, and note its twists. Coils first, ties after.',
  settled,
  useKit: useGuyKit,
  Panel: GuyPanel,
};
