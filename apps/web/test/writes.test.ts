import { paths, type StoredTree } from '@ustle/contract';
import { dayOf, decided, EMPTY_LOG, generateTree, isGuarded, perform, type Act } from '@ustle/core';
import { trafficNow } from '../src/shared/traffic';

const TODAY = '2026-05-20';
const tree = generateTree({ seed: 2, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 3, secondaries: 1 });
const [a, b] = tree.branches.map((x) => x.id) as [string, string];

const kept = new Map<string, string>();
Object.assign(globalThis, {
  localStorage: {
    getItem: (key: string) => kept.get(key) ?? null,
    setItem: (key: string, value: string) => kept.set(key, value),
    removeItem: (key: string) => kept.delete(key),
  },
});

interface Asked {
  path: string;
  body: { act?: Act; revision?: number };
}

/** A server made of one tree: it does acts as the real one does, may hold its answers back, be away, or refuse. */
class Stand {
  asked: Asked[] = [];
  away = false;
  held: (() => void)[] | null = null;
  refuses: (act: Act) => boolean = () => false;
  /** What it answers instead, by an act; 200 where it does it. */
  stumbles: (act: Act) => number = () => 200;
  steps: string[] = [];
  done = new Set<string>();
  constructor(public now: StoredTree) {
    globalThis.fetch = (async (path: string, init: RequestInit = {}) => {
      const asked = { path, body: init.body ? JSON.parse(String(init.body)) : {} };
      if (this.away) throw new Error('no way');
      this.asked.push(asked);
      if (this.held) await new Promise<void>((go) => this.held!.push(go));
      const { status, body } = this.answer(asked);
      return new Response(JSON.stringify(body), { status });
    }) as typeof fetch;
  }

  private answer(asked: Asked): { status: number; body: unknown } {
    const {
      path,
      body: { act, revision },
    } = asked;
    if (path === paths.tree(this.now.id)) return { status: 200, body: this.now };
    if (path === paths.steps(this.now.id)) {
      const { kind } = asked.body as { kind?: string };
      if (revision !== this.now.revision) return { status: 409, body: { code: 'stale', message: 'Changed elsewhere.', current: this.now } };
      this.steps.push(kind!);
      this.now = { ...this.now, revision: this.now.revision + 1 };
      return { status: 200, body: this.now };
    }
    if (!act) return { status: 200, body: [] };
    if (this.stumbles(act) !== 200) return { status: this.stumbles(act), body: { code: 'server', message: 'Something went wrong.' } };
    if (this.refuses(act)) return { status: 400, body: { code: 'range', message: 'Not that one.', field: 'act' } };
    if (isGuarded(act) && revision !== this.now.revision) return { status: 409, body: { code: 'stale', message: 'Changed elsewhere.', current: this.now } };
    const result = this.done.has(act.id) ? null : perform(this.now.tree, EMPTY_LOG, act, dayOf(TODAY));
    if (result && 'refused' in result) return { status: 400, body: result.refused[0] };
    if (result) this.now = { ...this.now, revision: this.now.revision + Number(isGuarded(act)), tree: result.tree };
    this.done.add(act.id);
    return { status: 200, body: { revision: this.now.revision, lines: result?.lines ?? [], recorded: this.now.tree.record.length, undo: null, redo: null } };
  }

  acts = (): Act[] => this.asked.flatMap((x) => x.body.act ?? []);
}

let count = 0;
const turn = (ms = 0): Promise<void> => new Promise((done) => setTimeout(done, ms));

/** The store as a freshly loaded page has it, on a tree of its own. */
async function opened(id = `t${count++}`) {
  jest.resetModules();
  const { setToday } = await import('../src/shared/traffic');
  setToday(TODAY);
  const store = await import('../src/shared/desk-store');
  const view: StoredTree = { id, revision: 1, tree, asideOn: null, undo: null, redo: null };
  return { store, view, stand: new Stand(view) };
}

/** What is shown now, by the page's own cache. */
const showing = async (id: string): Promise<StoredTree> => (await import('swr')).SWRConfig.defaultValue.cache.get(paths.tree(id))!.data as StoredTree;
const fatesNow = async (id: string): Promise<string[]> => (await showing(id)).tree.plan.decisions.map((d) => `${d.branch} ${d.act}`);

test('quick acts go one after the other, each from the revision before it, and all are shown at once', async () => {
  const { store, view, stand } = await opened();
  stand.held = [];
  const writes = [
    store.doAct(view, { kind: 'decide', branch: a, act: 'keep' }),
    store.doAct(view, { kind: 'decide', branch: b, act: 'remove' }),
    store.doAct(view, { kind: 'decide', branch: a, act: 'reserve' }),
  ];
  await turn();
  expect(await fatesNow(view.id)).toEqual([`${b} remove`, `${a} reserve`]);
  expect(stand.acts()).toHaveLength(1);
  const { held } = stand;
  stand.held = null;
  held.forEach((go) => go());
  await Promise.all(writes);
  expect(stand.asked.filter((x) => x.body.act).map((x) => x.body.revision)).toEqual([1, 2, 3]);
  expect(stand.now.tree.plan.decisions).toEqual((await showing(view.id)).tree.plan.decisions);
  expect((await showing(view.id)).revision).toBe(4);
});

test('an act that is refused is taken back with the reason, and the next one still goes', async () => {
  const { store, view, stand } = await opened();
  stand.refuses = (act) => act.kind === 'decide' && act.act === 'remove';
  await expect(store.doAct(view, { kind: 'decide', branch: a, act: 'remove' })).rejects.toMatchObject({ status: 400, message: 'Not that one.' });
  expect(await fatesNow(view.id)).toEqual([]);
  await store.doAct(view, { kind: 'decide', branch: b, act: 'keep' });
  expect(await fatesNow(view.id)).toEqual([`${b} keep`]);
  // What cannot be is said at once, and nothing is sent.
  const sent = stand.asked.length;
  await expect(store.doAct(view, { kind: 'decide', branch: 'nobody', act: 'keep' })).rejects.toMatchObject({ problem: { field: 'branch' } });
  expect(stand.asked).toHaveLength(sent);
});

test('what was changed elsewhere is brought as it is now, not written over; a line of the record goes all the same', async () => {
  const { store, view, stand } = await opened();
  stand.now = { ...view, revision: 7, tree: decided(tree, b, 'remove') };
  const note = store.doAct(view, { kind: 'note', text: 'Full buds.' });
  const front = store.doAct(view, { kind: 'front', front: { bearing: 40, pitch: 0, roll: 0 } });
  await note;
  // The answer did not fit what was known: the tree was read anew, and the act after it was made on that.
  await front;
  expect(await fatesNow(view.id)).toEqual([`${b} remove`]);
  expect(stand.now.tree).toMatchObject({ plan: { front: { bearing: 40 } }, record: [{ text: 'Full buds.' }] });
  stand.now = { ...stand.now, revision: 20 };
  await expect(store.doAct(view, { kind: 'decide', branch: a, act: 'keep' })).rejects.toMatchObject({ status: 409 });
  expect((await showing(view.id)).revision).toBe(20);
});

test('while the server is away acts wait, are kept over a reload of the page, and are sent once by their own ids', async () => {
  const first = await opened();
  first.stand.away = true;
  // A page that is left tries nothing again: what it would do later never comes.
  const later = globalThis.setTimeout;
  globalThis.setTimeout = ((run: () => void, ms = 0) => (ms >= 500 ? 0 : later(run, ms))) as typeof setTimeout;
  void first.store.doAct(first.view, { kind: 'decide', branch: b, act: 'remove' });
  void first.store.doAct(first.view, { kind: 'note', text: 'Seen.' });
  await turn(20);
  globalThis.setTimeout = later;
  expect(await fatesNow(first.view.id)).toEqual([`${b} remove`]);
  const waiting = JSON.parse(kept.get('ustle-waiting')!)[first.view.id] as Act[];
  expect(waiting.map((act) => act.kind)).toEqual(['decide', 'note']);

  // The page is loaded anew; the server took the first act before, but its answer never came.
  const again = await opened(first.view.id);
  const taken = perform(tree, EMPTY_LOG, waiting[0]!, dayOf(TODAY));
  if ('refused' in taken) throw new Error('refused');
  again.stand.now = { ...again.view, revision: 2, tree: taken.tree };
  again.stand.done.add(waiting[0]!.id);
  await again.store.fetchTree(first.view.id);
  for (let i = 0; i < 50 && again.stand.acts().length < 2; i++) await turn(10);
  await turn(10);
  expect(again.stand.acts().map((act) => act.id)).toEqual(waiting.map((act) => act.id));
  expect(again.stand.now.tree.record).toMatchObject([{ text: 'Seen.' }]);
  expect([await fatesNow(first.view.id), kept.get('ustle-waiting')]).toEqual([[`${b} remove`], undefined]);
});

test('taken back as often as it is asked for, however quickly, behind what was done before; another one’s change is told and ends it', async () => {
  const { store, view, stand } = await opened();
  const writes = [
    store.doAct(view, { kind: 'decide', branch: a, act: 'keep' }),
    ...['undo', 'undo', 'undo', 'redo'].map((kind) => store.doStep(view, kind as 'undo' | 'redo')),
    store.doAct(view, { kind: 'decide', branch: b, act: 'keep' }),
  ];
  await Promise.all(writes);
  expect([stand.steps, stand.acts().length, stand.now.revision]).toEqual([['undo', 'undo', 'undo', 'redo'], 2, 7]);
  stand.now = { ...stand.now, revision: 30 };
  const late = await Promise.allSettled([store.doStep(view, 'undo'), store.doStep(view, 'undo')]);
  expect(late.map((l) => l.status)).toEqual(['rejected', 'rejected']);
  expect([stand.steps.length, (await showing(view.id)).revision]).toEqual([4, 30]);
});

test.each([401, 408, 429, 503, 507])('refused by %i for the moment, all waits, and is sent in its order when that is over', async (status) => {
  const { store, view, stand } = await opened();
  let times = 0;
  stand.stumbles = () => (times++ < 2 ? status : 200);
  await Promise.all([store.doAct(view, { kind: 'note', text: 'one' }), store.doAct(view, { kind: 'note', text: 'two' })]);
  expect(stand.now.tree.record.map((l) => l.text)).toEqual(['one', 'two']);
});

test('what the server stumbles over, or whose day has not come there yet, is kept and tried again; what stands behind it goes on', async () => {
  const { store, view, stand } = await opened();
  let times = 0;
  stand.stumbles = (act) => ('text' in act && act.text === 'one' && times++ < 2 ? 500 : 200);
  const notes = ['one', 'two', 'three'].map((text) => store.doAct(view, { kind: 'note', text }));
  await Promise.all(notes.slice(1));
  expect(stand.now.tree.record.map((l) => l.text)).toEqual(['two', 'three']);
  await notes[0];
  expect(stand.now.tree.record.map((l) => l.text)).toEqual(['two', 'three', 'one']);
  const { ApiError, fateOf } = await import('../src/shared/http');
  const fates = [0, 400, 404, 409, 500, 502].map((s) => fateOf(new ApiError(s, { code: 'x', message: 'x' })));
  expect(fates).toEqual(['away', 'refused', 'refused', 'refused', 'later', 'away']);
  expect(fateOf(new ApiError(400, { code: 'not-yet', message: 'x' }))).toBe('later');
  expect(fateOf(new TypeError('x'))).toBe('away');
});

test('the day of an answer is the day on which it is given, however long ago the yard told its own; a refusal stays until it is read', async () => {
  const { deviceDay, yardDay } = await import('../src/shared/day');
  expect(deviceDay(new Date(2026, 2, 1, 0, 5))).toBe('2026-03-01');
  // The yard told 12 June when this device had 1 March; three days went by here.
  expect([yardDay('2026-06-12', '2026-03-01', '2026-03-04'), yardDay('2026-06-12', '2026-03-01', '2026-02-27')]).toEqual(['2026-06-15', '2026-06-12']);
  const { withNotice } = await import('../src/shared/notices');
  expect(['a', 'b', 'a', 'c', 'd'].reduce<string[]>(withNotice, [])).toEqual(['a', 'c', 'd']);
});

test('an answer that is no JSON is a refusal too', async () => {
  globalThis.fetch = (async () => ({ ok: false, status: 500, json: async () => JSON.parse('<html>') })) as unknown as typeof fetch;
  const { importTree } = await import('../src/shared/queries');
  await expect(importTree('{}')).rejects.toMatchObject({ status: 500, problem: { code: 'refused' } });
  expect(trafficNow()).toEqual({ waiting: 0, away: false });
});
