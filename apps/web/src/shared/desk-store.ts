import { newId } from './new-id';
import { mutate } from 'swr';
import { DESK_HEADER, paths, type ActAnswer, type Change, type Problem, type StoredTree } from '@ustle/contract';
import { applyAct, dayOf, isGuarded, isRefused, type Act, type Intent } from '@ustle/core';
import { ApiError, ask, fateOf, isAway, send } from './http';
import { withSameParts } from './same-parts';
import { counted, refreshLists, tellActs, todayNow } from './traffic';
import { keepActs, keptActs } from './waiting';
import { deskNow, signed } from './who';

/**
 * One tree as this page has it: what the server stored, and the acts on their way there, in turn. What is shown is the one with
 * the others applied. An act that does not arrive waits and is sent again; one that is refused is taken back and said.
 */
interface Line {
  stored: StoredTree | null;
  waits: Waits[];
  sending: boolean;
}
/** An act, or a step back or forward, that is on its way. */
type Waits = { done: (error: unknown) => void } & ({ act: Act; step?: undefined } | { step: BackOrAgain; act?: undefined });
/** A step back or forward; it names the act that it means, or where that was not known when it was pressed, is told it in its turn. */
type BackOrAgain = { id: string; kind: 'undo' | 'redo'; of?: string };

const lines = new Map<string, Line>();
const lineOf = (id: string): Line => {
  let line = lines.get(id);
  if (!line) {
    line = { stored: null, waits: keptActs(id).map((act) => ({ act, done: () => undefined })), sending: false };
    lines.set(id, line);
  }
  return line;
};

const tell = (away?: boolean): void =>
  tellActs(
    [...lines.values()].reduce((sum, line) => sum + line.waits.length, 0),
    away,
  );

const afterAct = (stored: StoredTree, act: Act): StoredTree => {
  const outcome = applyAct(stored.tree, act, dayOf(todayNow() || act.on));
  if (isRefused(outcome)) return stored;
  return { ...stored, tree: outcome.lines.length ? { ...outcome.tree, record: [...outcome.tree.record, ...outcome.lines] } : outcome.tree };
};

const actsOf = ({ waits }: Line): Act[] => waits.flatMap(({ act }) => act ?? []);
const shownOf = (line: Line): StoredTree | null => line.stored && actsOf(line).reduce(afterAct, line.stored);

/** Trees whose stored view is kept on this device: without a network the page opens with it. */
const onDevice = new Set<string>();

const keep = (id: string): void => {
  const { stored } = lineOf(id);
  if (stored && onDevice.has(id)) void import('./kept-trees').then((m) => m.keepTree(stored));
};

/** Keeps a tree on this device from now on, as the server has it. */
export function keepOnDevice(id: string): void {
  onDevice.add(id);
  keep(id);
}

function show(id: string): void {
  keep(id);
  keepActs(id, actsOf(lineOf(id)));
  const shown = shownOf(lineOf(id));
  if (shown) void mutate(paths.tree(id), shown, { revalidate: false });
  tell();
}

/** A tree as the server has it, with what this device did last. */
const askTree = (id: string): Promise<StoredTree> => ask<StoredTree>(paths.tree(id), { headers: { [DESK_HEADER]: deskNow() } });

/** Another device changed a tree: where it is open here and that is news, it is read again. */
export async function catchUp({ tree, revision, recorded }: Change): Promise<void> {
  const stored = lines.get(tree)?.stored;
  if (stored && (stored.revision !== revision || stored.tree.record.length !== recorded)) {
    await fetchTree(tree).then(
      () => show(tree),
      () => undefined,
    );
  }
}

/** Reads all trees again that were read here, after a time without news. */
export const catchUpAll = (): void =>
  void [...lines].forEach(
    ([id, line]) =>
      line.stored &&
      void fetchTree(id).then(
        () => show(id),
        () => undefined,
      ),
  );

/** Reads a tree from the server; what waits to be sent is applied to it. */
export async function fetchTree(id: string): Promise<StoredTree> {
  const line = lineOf(id);
  const fresh = await askTree(id).catch(async (error: unknown) => {
    const last = isAway(error) && !line.stored ? await (await import('./kept-trees')).keptTree(id) : undefined;
    if (!last) throw error;
    return last;
  });
  line.stored = line.stored ? { ...fresh, tree: withSameParts(fresh.tree, line.stored.tree) } : fresh;
  void flush(id);
  return shownOf(line)!;
}

/** What the server stored of an act: the same act applied to what was stored before, unless somebody else came between. */
async function storedAfter(stored: StoredTree, act: Act, answer: ActAnswer): Promise<StoredTree> {
  const next = afterAct(stored, act);
  const changed = next.tree.plan !== stored.tree.plan || Object.entries(next.tree).some(([k, v]) => k !== 'record' && v !== stored.tree[k as 'plan']);
  const expected = stored.revision + Number(changed);
  if (answer.revision !== expected || answer.recorded !== next.tree.record.length) return askTree(stored.id);
  return { ...next, revision: answer.revision, undo: answer.undo, redo: answer.redo };
}

const RETRY_MS = [500, 1000, 2000, 4000];
const pause = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** Sends one of what waits; resolves once what the server has is known here. */
async function sendNext(id: string, line: Line, stored: StoredTree, { act, step }: Waits): Promise<void> {
  if (step) {
    const of = step.of ?? stored[step.kind]?.of;
    const fresh = await send<StoredTree>(paths.steps(id), { ...step, ...(of ? { of } : {}), ...signed(), revision: stored.revision });
    line.stored = { ...fresh, tree: withSameParts(fresh.tree, stored.tree) };
    return;
  }
  const answer = await send<ActAnswer>(paths.acts(id), { act, ...(isGuarded(act) ? { revision: stored.revision } : {}) });
  line.stored = await storedAfter(stored, act, answer);
}

/** What is refused is let go of; what was decided on a tree that has changed since is not sent after it. */
async function takeBack(id: string, line: Line, refused: Waits, error: unknown): Promise<void> {
  const changed = error instanceof ApiError ? error.problem.current : undefined;
  // What could be done here and is refused there is refused for what came in between: it is shown as it is now.
  const now = changed ?? (await askTree(id).catch(() => undefined));
  if (now) line.stored = { ...now, tree: withSameParts(now.tree, line.stored!.tree) };
  const dropped = line.waits.filter((w) => w === refused || (changed && (w.step || isGuarded(w.act))));
  line.waits = line.waits.filter((w) => !dropped.includes(w));
  show(id);
  dropped.forEach((w) => w.done(error));
}

/** Sends what waits, one after the other, until all is answered. What the server stumbles over waits, and does not hold up what stands behind it. */
async function flush(id: string): Promise<void> {
  const line = lineOf(id);
  if (line.sending || !line.stored) return;
  line.sending = true;
  let passed = new Set<Waits>();
  for (let tries = 0; line.waits.length;) {
    const next = line.waits.find((w) => !passed.has(w));
    if (!next) {
      await pause(RETRY_MS[Math.min(tries++, RETRY_MS.length - 1)]!);
      passed = new Set();
      continue;
    }
    try {
      await sendNext(id, line, line.stored, next);
      line.waits = line.waits.filter((w) => w !== next);
      show(id);
      tell(false);
      next.done(null);
      refreshLists();
    } catch (error) {
      const fate = fateOf(error);
      if (fate === 'refused') await takeBack(id, line, next, error);
      else if (fate === 'later') passed.add(next);
      else {
        tell(true);
        await pause(RETRY_MS[Math.min(tries++, RETRY_MS.length - 1)]!);
        passed = new Set();
      }
    }
  }
  line.sending = false;
  tell(false);
}

/** An act as thought of, with its id and day. */
export const actFrom = (intent: Intent): Act => ({ ...intent, id: newId(), on: intent.on ?? todayNow(), ...signed() }) as Act;

/** Does an act: shown at once, sent in its turn. Resolves when it is stored; fails with the refusal. */
export function doAct(view: StoredTree, intent: Intent): Promise<void> {
  const line = lineOf(view.id);
  line.stored ??= view;
  const act = actFrom(intent);
  const shown = shownOf(line)!;
  const guess = applyAct(shown.tree, act, dayOf(todayNow() || act.on));
  // What cannot be is said at once, and nothing is sent.
  if (isRefused(guess)) return Promise.reject(new ApiError(400, { ...guess.refused[0]! } as Problem));
  return new Promise((done, fail) => {
    line.waits.push({ act, done: (error) => (error ? fail(error as Error) : done()) });
    show(view.id);
    void flush(view.id);
  });
}

/** Takes the newest act back or makes it again, in its turn: as often as it is asked for. */
export function doStep(view: StoredTree, kind: 'undo' | 'redo'): Promise<void> {
  const line = lineOf(view.id);
  line.stored ??= view;
  const before = line.waits.at(-1);
  // What was done last here, sent or not, is what is meant; behind another step it is known when that is done.
  const of = kind === 'undo' && before?.act ? before.act.id : before ? undefined : view[kind]?.of;
  return new Promise((done, fail) => {
    line.waits.push({ step: { id: newId(), kind, ...(of ? { of } : {}) }, done: (error) => (error ? fail(error as Error) : done()) });
    tell();
    void flush(view.id);
  });
}

/** Puts a tree aside or back on the bench, once all that waits is stored. */
export async function putAside(id: string, aside: boolean): Promise<void> {
  const line = lineOf(id);
  while (line.waits.length) await pause(50);
  const fresh = await counted(send<StoredTree>(paths.aside(id), { aside }, 'PUT'));
  line.stored = line.stored ? { ...fresh, tree: withSameParts(fresh.tree, line.stored.tree) } : fresh;
  show(id);
  refreshLists();
}

/** Deletes a tree for good; what waited for it is let go of. */
export async function forgetTree(id: string): Promise<void> {
  await counted(ask<unknown>(paths.tree(id), { method: 'DELETE' }));
  keepActs(id, []);
  lines.delete(id);
  refreshLists();
}

/** Whatever waited when the page was left is sent now, also of trees that are not looked at. */
export const resume = (ids: readonly string[]): void => ids.forEach((id) => void fetchTree(id).catch(() => undefined));
