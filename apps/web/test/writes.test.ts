import { mutate, SWRConfig } from 'swr';
import { paths, type TreeView } from '@ustle/contract';
import { decide, generateTree, type Tree } from '@ustle/core';
import { ApiError, importTree, postEntry, putDecision, putFront, step } from '../src/shared/api';

const tree = generateTree({ seed: 2, name: 'Any', species: 'larch', height: 500, base: 45, primaries: 3, secondaries: 1 });
const [a, b] = tree.branches.map((x) => x.id) as [string, string];

interface Asked {
  method: string;
  path: string;
  body: { revision?: number; act?: string };
}

/** A server made of one function: it is told what was asked, and its answers come when they are let go. */
function stand(answer: (asked: Asked) => { status: number; body: unknown } | Error): { asked: Asked[]; held: (() => void)[]; hold: boolean } {
  const desk = { asked: [] as Asked[], held: [] as (() => void)[], hold: false };
  globalThis.fetch = (async (path: string, init: RequestInit = {}) => {
    const asked = { method: init.method ?? 'GET', path, body: init.body ? JSON.parse(String(init.body)) : {} };
    desk.asked.push(asked);
    if (desk.hold) await new Promise<void>((go) => desk.held.push(go));
    const reply = answer(asked);
    if (reply instanceof Error) throw reply;
    return { ok: reply.status < 400, status: reply.status, json: async () => reply.body } as Response;
  }) as typeof fetch;
  return desk;
}

let count = 0;
const shownAs = (view: TreeView): TreeView => SWRConfig.defaultValue.cache.get(paths.tree(view.id))!.data as TreeView;
async function opened(): Promise<TreeView> {
  const view = { id: `t${count++}`, revision: 1, tree, undo: null, redo: null } as unknown as TreeView;
  await mutate(paths.tree(view.id), view, { revalidate: false });
  return view;
}
const turn = (): Promise<void> => new Promise((done) => setTimeout(done));

/** Keeps what it is told, as the server does: each write on the newest revision only. */
function keeper(view: TreeView) {
  let now = view;
  return (asked: Asked): { status: number; body: unknown } => {
    if (asked.method === 'GET') return { status: 200, body: [] };
    if (asked.body.revision !== undefined && asked.body.revision !== now.revision)
      return { status: 409, body: { code: 'stale', message: 'Changed elsewhere.', current: now } };
    const branch = decodeURIComponent(asked.path.split('/').at(-1)!);
    const next: Tree = asked.body.act ? decide(branch, { act: asked.body.act as 'keep' })(now.tree) : now.tree;
    now = { ...now, revision: now.revision + 1, tree: next };
    return { status: 200, body: now };
  };
}

test('quick writes go one after the other, each from the revision before it, and all are shown at once', async () => {
  const view = await opened();
  const desk = stand(keeper(view));
  desk.hold = true;
  const writes = [putDecision(view, a, { act: 'keep' }), putDecision(view, b, { act: 'remove' }), putDecision(view, a, { act: 'reserve' })];
  await turn();
  // Shown before anything is answered; only the first one is under way.
  expect(shownAs(view).tree.plan.decisions).toEqual(
    expect.arrayContaining([
      { branch: b, act: 'remove' },
      { branch: a, act: 'reserve' },
    ]),
  );
  expect(desk.asked.filter((x) => x.method === 'PUT')).toHaveLength(1);
  desk.hold = false;
  desk.held.forEach((go) => go());
  const answers = await Promise.all(writes);
  expect(desk.asked.filter((x) => x.method === 'PUT').map((x) => x.body.revision)).toEqual([1, 2, 3]);
  expect(answers.at(-1)!.revision).toBe(4);
  const kept = shownAs(view);
  expect([kept.revision, kept.tree.plan.decisions.find((d) => d.branch === a)?.act, kept.tree.plan.decisions.find((d) => d.branch === b)?.act]).toEqual([
    4,
    'reserve',
    'remove',
  ]);
});

test('a write that is refused is taken back with the reason, and the next one still goes', async () => {
  const view = await opened();
  const keep = keeper(view);
  stand((asked) => (asked.body.act === 'remove' ? { status: 400, body: { code: 'range', message: 'Not that one.', field: 'act' } } : keep(asked)));
  await expect(putDecision(view, a, { act: 'remove' })).rejects.toMatchObject({ status: 400, message: 'Not that one.', problem: { field: 'act' } });
  expect(shownAs(view).tree.plan.decisions).toEqual([]);
  await putDecision(view, b, { act: 'keep' });
  expect(shownAs(view).tree.plan.decisions).toEqual([{ branch: b, act: 'keep' }]);
});

test('what was changed elsewhere is brought as it is now, not written over', async () => {
  const view = await opened();
  const keep = keeper({ ...view, revision: 7, tree: decide(b, { act: 'remove' })(tree) });
  const desk = stand(keep);
  await expect(putFront(view, { bearing: 40, pitch: 0, roll: 0 })).rejects.toMatchObject({ status: 409 });
  const now = shownAs(view);
  expect([now.revision, now.tree.plan.front ?? null, now.tree.plan.decisions]).toEqual([7, tree.plan.front ?? null, [{ branch: b, act: 'remove' }]]);
  // From there it goes on.
  await putDecision(now, a, { act: 'keep' });
  expect(desk.asked.filter((x) => x.method === 'PUT').map((x) => x.body.revision)).toEqual([1, 7]);
});

test('without a server it says so and leaves everything as it was; an answer that is no JSON is a refusal too', async () => {
  const view = await opened();
  stand(() => new Error('no way'));
  for (const write of [() => putFront(view, null), () => step(view, 'undo'), () => postEntry(view, { on: '2026-01-01', kind: 'note', text: 'x' } as never)]) {
    const refused = await write().catch((error: unknown) => error);
    expect(refused).toBeInstanceOf(ApiError);
    expect(refused).toMatchObject({ status: 0, problem: { code: 'offline' } });
    expect((refused as Error).message).toMatch(/Nothing was changed/);
  }
  expect(shownAs(view).revision).toBe(1);
  stand(() => ({ status: 502, body: null }));
  await expect(importTree('{}')).rejects.toMatchObject({ status: 502, problem: { code: 'refused' } });
});
