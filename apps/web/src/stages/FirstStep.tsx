import { useState } from 'react';
import { Worded } from '../words/Worded';
import type { Stage } from './stage';
import { isTaken } from './taken';

/** How one begins in a stage, for who has never done anything in it; what was there when it was opened stays while it is. */
export function FirstStep({ stage }: { stage: Stage }) {
  const [shown] = useState(() => !isTaken(stage.key));
  if (!shown) return null;
  return (
    <p className="mb-3 border-l-4 border-indigo bg-base-100 px-3 py-2">
      <span className="text-quiet">To begin: </span>
      <Worded>{stage.first}</Worded>
    </p>
  );
}
