import { ask } from '../apps/server/test/server';
import { idOf, loadStudio, open, press, pressWhere, says, sceneReady, stored, text, there, until, visit, type App } from './app';

let app: App;
beforeAll(async () => {
  app = await open(4780);
  loadStudio(app.server.address);
});
afterAll(() => app.close());

interface Run {
  id: string;
  kind: string;
  size: number;
  branches: { branch: string; hand: string; start: string }[];
}
const runsOf = async (name: string): Promise<Run[]> => (await ask(app.server.address, 'GET', `/api/trees/${await idOf(app, name)}/plan`)).body.runs;
const onOf = async (name: string): Promise<string[]> =>
  (await stored(app, name)).tree.record.filter((l: { kind: string }) => l.kind === 'wired').map((l: { branch: string }) => l.branch);

test('pieces on two branches: opened, laid straight, split by hand and joined again, pressed, put on and taken back', async () => {
  const { page } = app;
  await visit(app, `/tree/${await idOf(app, 'Lantern')}/wire`);
  await sceneReady(page);
  await says(page, /pieces for \d+ branches, \d+ of them on two at once/);
  const pair = (await runsOf('Lantern')).filter((r) => r.kind === 'pair').at(-1)!;
  const [first, second] = pair.branches;
  await (await there(page, `[data-run="${pair.id}"]`)).evaluate((row) => (row as HTMLElement).click());
  await says(page, /turns round the (back|front) from shoulder to shoulder/);
  const strip = await page.$eval('aside svg[aria-label^="The piece laid straight"]', (svg) => svg.getAttribute('aria-label')!);
  expect(strip).toMatch(/end loop.*shoulder of .*round, \d+°.*shoulder of .*end loop/);

  // By hand: split, then its other half named again; the plan goes with it.
  await press(page, 'split it');
  await until(app, 'Lantern', (v) => v.tree.plan.runs.some((r: Run) => r.branches.length === 1 && r.branches[0]!.branch === first!.branch));
  const apart = await runsOf('Lantern');
  expect(apart.some((r) => r.branches.some((b) => b.branch === first!.branch) && r.branches.some((b) => b.branch === second!.branch))).toBe(false);
  await press(page, 'change it');
  await there(page, `aside label:has(option[value="${second!.branch}"]) select`);
  await page.select(`aside label:has(option[value="${second!.branch}"]) select`, second!.branch);
  await until(app, 'Lantern', (v) =>
    v.tree.plan.runs.some(
      (r: Run) =>
        r.branches
          .map((b) => b.branch)
          .sort()
          .join() === [first!.branch, second!.branch].sort().join(),
    ),
  );

  // What cannot be is refused, and nothing is stored.
  const before = await stored(app, 'Lantern');
  const thickest = await page.$$eval('aside label:has(option[value="1.63"]) option', (all) => (all.at(-1) as HTMLOptionElement).value);
  await page.select('aside label:has(option[value="1.63"]) select', thickest);
  await says(page, /mm of wire cannot be wound on a branch of [\d.]+ mm/);
  expect((await stored(app, 'Lantern')).tree.plan.runs).toEqual(before.tree.plan.runs);

  // Pressed: the estimate moves, by a line of the record.
  await pressWhere(page, 'summary', /^Press a wire against/);
  await press(page, 'The wire gave');
  await says(page, /mm (copper|aluminium), the wire gave/);
  const line = (await stored(app, 'Lantern')).tree.record.at(-1);
  expect(line).toMatchObject({ kind: 'pushed', gave: 'wire' });

  // On, both halves at once; taken back, neither is.
  const had = await onOf('Lantern');
  await pressWhere(page, 'form button[type="submit"]', /^It is on .* and /);
  await until(app, 'Lantern', (v) => v.tree.record.filter((l: { kind: string }) => l.kind === 'wired').length === had.length + 2);
  const lines = (await stored(app, 'Lantern')).tree.record.slice(-2);
  expect(lines.map((l: { branch: string }) => l.branch).sort()).toEqual([first!.branch, second!.branch].sort());
  expect(lines[0]).toMatchObject({ anchor: 'good', turns: expect.any(Number), length: expect.any(Number) });
  await visit(app);
  await says(page, /carries wire/);
  await press(page, 'Undo');
  await until(app, 'Lantern', (v) => v.tree.record.slice(-2).every((l: { kind: string }) => l.kind === 'withdrawn'));
  await says(page, /It is on .* and /);
  expect(app.errors).toEqual([]);
});

test('by keyboard alone: a metal for the tree, a piece opened and settled', async () => {
  const { page } = app;
  await visit(app, `/tree/${await idOf(app, 'Marigold')}/wire`);
  await sceneReady(page);
  await says(page, /aluminium/);
  const [open] = await runsOf('Marigold');
  await page.focus(`[data-run="${open!.id}"]`);
  await page.keyboard.press('Enter');
  await says(page, /Put on/);
  await pressWhere(page, 'aside button', /^settle it as it is$/);
  await until(app, 'Marigold', (v) => v.tree.plan.runs.some((r: Run) => r.branches[0]!.branch === open!.branches[0]!.branch));
  expect(await text(page)).toMatch(/settled/);
  expect(app.errors).toEqual([]);
});
