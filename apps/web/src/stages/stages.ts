import type { ComponentType } from 'react';
import type { DrawnCoil } from '../turntable/coil-geometry';
import type { TurntableProps } from '../turntable/Turntable';
import { FrontPanel } from './front/FrontPanel';
import { frontOverlay } from './front/overlay';
import { MeasurePanel } from './measure/MeasurePanel';
import { ReadPanel } from './read/ReadPanel';
import { RemovePanel } from './remove/RemovePanel';
import { removeOverlay } from './remove/overlay';
import type { StageKey } from './settled';
import type { TreeDesk } from './tree-context';
import { WatchPanel } from './watch/WatchPanel';
import { watchOverlay } from './watch/overlay';
import { WirePanel } from './wire/WirePanel';
import { wireOverlay } from './wire/overlay';

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
