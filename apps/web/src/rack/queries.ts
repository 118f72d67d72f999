import { newId } from '../shared/new-id';
import useSWR, { mutate } from 'swr';
import { paths, type PieceView, type RackView } from '@ustle/contract';
import type { RackLine } from '@ustle/core';
import { ask, send, type ApiError } from '../shared/http';
import { counted, todayNow } from '../shared/traffic';

/** The pieces that the plans of some trees cut; those shown before stay until the others are there. */
export const usePieces = (trees: readonly string[]) =>
  useSWR<PieceView[], ApiError>(
    trees.length ? ['pieces', ...trees] : null,
    async () => (await Promise.all(trees.map((tree) => ask<PieceView[]>(paths.pieces(tree))))).flat(),
    { keepPreviousData: true, errorRetryInterval: 2000 },
  );

type Given<L> = L extends RackLine ? Omit<L, 'id' | 'on'> & { id?: string; on?: string } : never;
export type RackIntent = Given<RackLine>;

/** Writes a line of the rack's history, today where no other day is said; sent again by the same id it is written once. */
export async function writeRack(intent: RackIntent): Promise<void> {
  const line = { ...intent, id: intent.id ?? newId(), on: intent.on ?? todayNow() };
  await mutate(paths.rack, await counted(send<RackView>(paths.rackLines, { line })), { revalidate: false });
}

/** Lays something on the scale; only the simulated one asks what. */
export const pressScale = (near: number | undefined): Promise<unknown> => send(paths.scalePress, near === undefined ? {} : { near });
