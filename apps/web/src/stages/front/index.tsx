import { useDesk } from '../desk';
import type { Stage } from '../stage';
import { useFront, useFrontKit } from './kit';
import { FrontPanel } from './FrontPanel';
import { Level } from './Level';

/** The level over the turntable: tilts the tree looked at. */
function Over() {
  const { here, setView } = useDesk();
  const { judged } = useFront();
  return <Level pitch={here.pitch} roll={here.roll} wedge={judged?.planting.wedge ?? null} onTilt={(pitch, roll) => setView({ ...here, pitch, roll })} />;
}

export const front: Stage = {
  key: 'front',
  name: 'Front',
  first: 'turn the tree by dragging it, look at the fronts that were found, and choose one.',
  settled: (tree) => Boolean(tree.plan.front),
  useKit: useFrontKit,
  Panel: FrontPanel,
  Over,
};
