import useSWR, { mutate, type SWRResponse } from 'swr';
import {
  paths,
  type DecisionBody,
  type EntryBody,
  type MadeUpBody,
  type Problem,
  type SeasonView,
  type TreeSummary,
  type TreeView,
  type WiredBody,
  type YardView,
} from '@ustle/contract';
import {
  afterCut,
  chooseFront,
  chooseRules,
  decide,
  measure,
  noteReading,
  putOff,
  toggleEither,
  togglePinned,
  type Change,
  type Measured,
  type ReadingNotes,
  type RemovalChoice,
  type Species,
  type View,
} from '@ustle/core';
import { withSameParts } from './same-parts';
import { followed } from './writing';

/** A refusal by the server, in its own words. */
export class ApiError extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message);
  }
}

async function ask<T>(path: string, init?: RequestInit): Promise<T> {
  let response: Response;
  try {
    response = await fetch(path, init);
  } catch {
    throw new ApiError(0, { code: 'offline', message: 'The server does not answer. Nothing was changed; try again.' });
  }
  const body: unknown = await response.json().catch(() => null);
  if (!response.ok) throw new ApiError(response.status, (body as Problem | null) ?? { code: 'refused', message: `The server said ${response.status}.` });
  return body as T;
}

const useGet = <T>(path: string): SWRResponse<T, ApiError> => useSWR<T, ApiError>(path, ask as (path: string) => Promise<T>);

export const useYard = (): SWRResponse<YardView, ApiError> => useGet(paths.yard);
export const useSpecies = (): SWRResponse<Species[], ApiError> => useGet(paths.species);
export const useTrees = (): SWRResponse<TreeSummary[], ApiError> => useGet(paths.trees);
export const useTree = (id: string): SWRResponse<TreeView, ApiError> => useGet(paths.tree(id));
export const useSeason = (): SWRResponse<SeasonView, ApiError> => useGet(paths.season);

const send = <T>(method: string, path: string, body: unknown): Promise<T> =>
  followed(ask<T>(path, { method, headers: { 'Content-Type': 'application/json' }, body: JSON.stringify(body) }));

/** What other screens show of the trees is out of date after a change. */
const refreshLists = (): void => void Promise.all([mutate(paths.trees), mutate(paths.season)]);

/** The last change sent of each tree: the next one waits for it and goes on from its revision, however quick the hand. */
const last = new Map<string, Promise<TreeView>>();

function inTurn(view: TreeView, request: (now: TreeView) => Promise<TreeView>): Promise<TreeView> {
  const before = last.get(view.id)?.catch(() => view) ?? Promise.resolve(view);
  const sent = before.then((newest) => request(newest.revision > view.revision ? newest : view));
  last.set(view.id, sent);
  return sent;
}

/** Sends a change of one tree: shown at once, taken back if refused; a stale revision brings the tree as it is now. */
async function change(view: TreeView, request: (now: TreeView) => Promise<TreeView>, guess?: Change): Promise<TreeView> {
  const key = paths.tree(view.id);
  let guessed = view.tree;
  try {
    const fresh = await mutate<TreeView>(key, followed(inTurn(view, request)), {
      revalidate: false,
      rollbackOnError: true,
      populateCache: (answer: TreeView) => ({ ...answer, tree: withSameParts(answer.tree, guessed) }),
      ...(guess
        ? {
            optimisticData: (_stored, shown) => {
              guessed = guess((shown ?? view).tree);
              return { ...(shown ?? view), tree: guessed };
            },
          }
        : {}),
    });
    refreshLists();
    return fresh!;
  } catch (error) {
    if (error instanceof ApiError && error.problem.current) await mutate(key, error.problem.current, { revalidate: false });
    throw error;
  }
}

export const putFront = (view: TreeView, front: View | null): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.front(view.id), { revision: now.revision, front }), chooseFront(front));

export const putDecision = (view: TreeView, branch: string, body: Omit<DecisionBody, 'revision'>): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.decision(view.id, branch), { revision: now.revision, ...body }), decide(branch, body));

/** Cuts left for a later session, or with session 1 brought back into this one. */
export const putSession = (view: TreeView, branches: string[], session: number, until: string | null): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.sessions(view.id), { revision: now.revision, branches, session, until }), putOff(branches, session, until));

export const putEither = (view: TreeView, a: string, b: string): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.either(view.id), { revision: now.revision, a, b }), toggleEither(a, b));

export const putRules = (view: TreeView, rules: RemovalChoice): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.rules(view.id), { revision: now.revision, ...rules }), chooseRules(rules));

/** Branches that were cut as decided. */
export const postCut = (view: TreeView, on: string, branches: string[]): Promise<TreeView> =>
  change(
    view,
    (now) => send('POST', paths.cut(view.id), { revision: now.revision, on, branches }),
    (tree) => afterCut(tree, branches),
  );

export const putPinned = (view: TreeView, pinned: View): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.pinned(view.id), { revision: now.revision, view: pinned }), togglePinned(pinned));

export const putReading = (view: TreeView, reading: ReadingNotes): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.reading(view.id), { revision: now.revision, ...reading }), noteReading(reading));

export const putMeasured = (view: TreeView, measured: Partial<Measured>): Promise<TreeView> =>
  change(view, (now) => send('PUT', paths.measured(view.id), { revision: now.revision, measured }), measure(measured));

/** Branches or cylinders as text, from a spreadsheet or a scan; refused with the line of each fault. */
export const putCsv = (view: TreeView, kind: 'branches' | 'cylinders', text: string): Promise<TreeView> =>
  change(view, (now) => ask(paths.measuredCsv(view.id, now.revision, kind), { method: 'PUT', headers: { 'Content-Type': 'text/csv' }, body: text }));

export const pressCaliper = (near: number | undefined): Promise<unknown> => send('POST', paths.caliperPress, near === undefined ? {} : { near });

export const step = (view: TreeView, direction: 'undo' | 'redo'): Promise<TreeView> =>
  change(view, (now) => send('POST', direction === 'undo' ? paths.undo(view.id) : paths.redo(view.id), { revision: now.revision }));

export const postWired = (view: TreeView, body: Omit<WiredBody, 'revision'>): Promise<TreeView> =>
  change(view, (now) => send('POST', paths.wired(view.id), { revision: now.revision, ...body }));

export const postEntry = (view: TreeView, body: EntryBody): Promise<TreeView> => change(view, () => send('POST', paths.record(view.id), body));

export async function importTree(text: string): Promise<TreeView> {
  const view = await followed(ask<TreeView>(paths.importTree, { method: 'POST', headers: { 'Content-Type': 'application/json' }, body: text }));
  refreshLists();
  return view;
}

export async function beginTree(name: string, species: string): Promise<TreeView> {
  const view = await send<TreeView>('POST', paths.trees, { name, species });
  refreshLists();
  return view;
}

export async function makeUpTree(body: MadeUpBody): Promise<TreeView> {
  const view = await send<TreeView>('POST', paths.generateTree, body);
  refreshLists();
  return view;
}
