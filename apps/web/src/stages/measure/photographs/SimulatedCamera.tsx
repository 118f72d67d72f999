import { useState } from 'react';
import { paths } from '@ustle/contract';
import { askFile } from '../../../shared/http';
import type { Coming } from './bring-photos';
import type { Photographs } from './use-photographs';

/** Round the tree at the height of its branches, and every third from above: degrees round it, and down. */
const ALL_ROUND = Array.from({ length: 10 }, (_, i) => ({ bearing: i * 36, down: i % 3 === 2 ? 40 : 12 }));

/** The camera beside the turning table (a simulated one ships), with cards round the pot. */
export function SimulatedCamera({ tree, ph }: { tree: string; ph: Photographs }) {
  const [at, setAt] = useState<number | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const take = async (): Promise<void> => {
    setFault(null);
    const taken: Coming[] = [];
    try {
      for (const [i, { bearing, down }] of ALL_ROUND.entries()) {
        setAt(i + 1);
        taken.push({ picture: await askFile(paths.camera(tree, bearing, down)), name: `at ${bearing}°.jpg`, bearing });
      }
    } catch (error) {
      setFault(`The camera does not answer: ${(error as Error).message}`);
    }
    setAt(null);
    if (taken.length) await ph.bring(taken);
  };
  return (
    <div className="flex flex-wrap items-center gap-2">
      <button type="button" className="btn btn-outline border-rule font-normal" disabled={at !== null || ph.coming !== null} onClick={() => void take()}>
        {ALL_ROUND.length} by the table’s camera (simulated)
      </button>
      <span role="status" className="text-quiet">
        {at !== null ? `Picture ${at} of ${ALL_ROUND.length}` : ''}
      </span>
      {fault && (
        <span role="alert" className="text-madder">
          {fault}
        </span>
      )}
    </div>
  );
}
