import { newId } from './new-id';
import useSWR, { type SWRResponse } from 'swr';
import {
  paths,
  type AccessView,
  type LearnedView,
  type MailView,
  type Side,
  type WalkStop,
  type WalkView,
  type WeatherView,
  type RackView,
  type SeasonView,
  type StoredTree,
  type TreeSummary,
  type YardView,
} from '@ustle/contract';
import { NOTHING_LEARNT, type Bench, type Known, type Pace, type Silhouette, type Species } from '@ustle/core';
import { ask, send, type ApiError } from './http';
import { counted, refreshLists, setToday } from './traffic';

const RETRY_MS = 2_000;
/** A page that cannot be loaded is asked for again until it can. */
const again = { errorRetryInterval: RETRY_MS, errorRetryCount: 100, focusThrottleInterval: 15_000 };

const useGet = <T>(path: string | null): SWRResponse<T, ApiError> => useSWR<T, ApiError>(path, ask as (path: string) => Promise<T>, again);

export const useYard = (): SWRResponse<YardView, ApiError> =>
  useSWR<YardView, ApiError>(
    paths.yard,
    async (path: string) => {
      const yard = await ask<YardView>(path);
      setToday(yard.today);
      return yard;
    },
    again,
  );
export const useSpecies = (): SWRResponse<Species[], ApiError> => useGet(paths.species);
export const useTrees = (): SWRResponse<TreeSummary[], ApiError> => useGet(paths.trees);
export const useSeason = (): SWRResponse<SeasonView, ApiError> => useGet(paths.season);
export const useRack = (): SWRResponse<RackView, ApiError> => useGet(paths.rack);
export const useTree = (id: string): SWRResponse<StoredTree, ApiError> =>
  useSWR<StoredTree, ApiError>(paths.tree(id), async () => (await import('./desk-store')).fetchTree(id), again);
/** What is taken of a tree from others of its kind here; as nobody taught anything until that is told. */
export const useKnown = (tree: string): Known => useGet<Known>(paths.known(tree)).data ?? NOTHING_LEARNT;
export const useLearned = (): SWRResponse<LearnedView[], ApiError> => useGet(paths.learned);
export const useWeather = (): SWRResponse<WeatherView, ApiError> => useGet(paths.weather);
export const useMail = (): SWRResponse<MailView[], ApiError> => useGet(paths.mail);
export const useWalk = (): SWRResponse<WalkView, ApiError> => useGet(paths.walk);
export const useBenches = (): SWRResponse<Bench[], ApiError> => useGet(paths.benches);
export const useAccess = (): SWRResponse<AccessView, ApiError> => useGet(paths.access);
export const usePeople = (): SWRResponse<string[], ApiError> => useGet(paths.people);
const NO_PACE: Pace = {};
/** How long steps take here; by the rule until that is told. */
export const usePace = (): Pace => useGet<Pace>(paths.pace).data ?? NO_PACE;
export const useFeed = (): SWRResponse<{ path: string }, ApiError> => useGet(paths.feed);

/** A tree's small picture; null while it is out of sight. */
export const useSilhouette = ({ id, revision, recorded }: Pick<TreeSummary, 'id' | 'revision' | 'recorded'>, wanted: boolean): Silhouette | undefined =>
  useSWR<Silhouette, ApiError>(wanted ? paths.silhouette(id, revision, recorded) : null, ask as (path: string) => Promise<Silhouette>, {
    revalidateOnFocus: false,
    revalidateIfStale: false,
  }).data;

/** A tree's picture from so many quarter turns to the right of its front, with the outlines of some branches; undefined at its front, until it is there and where it cannot be had. */
export const useSide = (
  { tree, revision, recorded }: Pick<WalkStop, 'tree' | 'revision' | 'recorded'>,
  quarters: number,
  of: readonly string[],
): Side | undefined =>
  useSWR<Side, ApiError>(quarters ? paths.side(tree, quarters, of, revision, recorded) : null, ask as (path: string) => Promise<Side>, {
    revalidateOnFocus: false,
    revalidateIfStale: false,
  }).data;

async function added(write: Promise<StoredTree>): Promise<StoredTree> {
  const view = await counted(write);
  refreshLists();
  return view;
}

export const importTree = (text: string): Promise<StoredTree> =>
  added(ask<StoredTree>(paths.importTree(newId()), { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: text }));

export const beginTree = (name: string, species: string): Promise<StoredTree> => added(send(paths.trees, { id: newId(), name, species }));

export const makeUpTree = (body: { name: string; species: string; seed: number; age?: number; form?: string }): Promise<StoredTree> =>
  added(send(paths.generateTree, { id: newId(), ...body }));

export const pressCaliper = (near: number | undefined): Promise<unknown> => send(paths.caliperPress, near === undefined ? {} : { near });
