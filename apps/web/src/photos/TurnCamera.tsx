import { useState } from 'react';
import { paths } from '@ustle/contract';
import { askFile } from '../shared/http';
import { addPhoto, type PhotoOf } from './photo-queue';

/** Pictures of a tree all round: one each eighth of a turn. */
const ALL_ROUND = Array.from({ length: 8 }, (_, i) => i * 45);

/** The camera beside the turning table (a simulated one ships): it turns the tree and takes its picture, each with its bearing. */
export function TurnCamera({ tree, today, when, bearing }: { tree: string; today: string; when: PhotoOf['when']; bearing: number }) {
  const [turning, setTurning] = useState<{ at: number; of: number } | null>(null);
  const [fault, setFault] = useState<string | null>(null);
  const take = async (bearings: readonly number[]): Promise<void> => {
    setFault(null);
    try {
      for (const [i, each] of bearings.entries()) {
        setTurning({ at: i + 1, of: bearings.length });
        const picture = await askFile(paths.camera(tree, each));
        await addPhoto(tree, today, { when, bearing: each }, picture, `at ${each}°`);
      }
    } catch (error) {
      setFault(`The camera does not answer: ${(error as Error).message}`);
    }
    setTurning(null);
  };
  return (
    <fieldset>
      <legend className="mb-1 text-quiet">Camera beside the turning table (simulated)</legend>
      <div className="flex flex-wrap items-center gap-2">
        <button type="button" className="btn btn-outline border-rule font-normal" disabled={turning !== null} onClick={() => void take([bearing])}>
          As the table stands ({bearing}°)
        </button>
        <button type="button" className="btn btn-outline border-rule font-normal" disabled={turning !== null} onClick={() => void take(ALL_ROUND)}>
          All round, {ALL_ROUND.length} pictures
        </button>
        <span role="status" className="text-quiet">
          {turning && turning.of > 1 ? `Picture ${turning.at} of ${turning.of}` : ''}
        </span>
      </div>
      {fault && (
        <p role="alert" className="mt-1 text-madder">
          {fault}
        </p>
      )}
    </fieldset>
  );
}
