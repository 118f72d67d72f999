import { readdirSync, readFileSync } from 'node:fs';
import { join, resolve } from 'node:path';
import { allSpecies, completed, dayOf, generateTree, planTree, sizeAtAge, speciesOf, type PlanDocument, type Tree } from '../src/index.js';

// Plans read as an artist reads them, by nothing but what they say.

const FORMS = ['upright', 'upright', 'cascade', 'upright', 'twin', 'clump'] as const;
const AGES = [8, 12, 18, 25, 35, 50, 65, 80];
const DAYS = ['2026-02-20', '2026-03-15', '2026-06-12', '2026-09-20', '2026-10-20', '2026-11-15'];
const MADE_UP = 60;

function madeUp(i: number): { tree: Tree; on: number } {
  const kinds = allSpecies();
  const { key } = kinds[i % kinds.length]!;
  const size = sizeAtAge(key, AGES[(i * 5 + (i >> 3)) % AGES.length]!);
  const faults = (['bar', 'whorl', 'dead', 'hanging'] as const).filter((_, k) => (i + k) % 3 === 0);
  const form = FORMS[(i * 2 + Math.floor(i / 6)) % FORMS.length]!;
  const made = generateTree({ seed: 9000 + i, name: `T${i}`, species: key, form, ...size, secondaries: 2 + (i % 3), swing: 0.04 + 0.02 * (i % 7), faults });
  const vigour = (['weak', 'normal', 'normal', 'strong', 'free', 'refined'] as const)[i % 6]!;
  const front = { bearing: (i * 47) % 360, pitch: 0, roll: 0 };
  return { tree: { ...made, vigour, plan: { ...made.plan, front } }, on: dayOf(DAYS[i % DAYS.length]!) };
}

const DEMO = resolve(__dirname, '../../../demo/trees');
const demo = (): { tree: Tree; on: number }[] =>
  readdirSync(DEMO).map((file) => ({ tree: completed(JSON.parse(readFileSync(join(DEMO, file), 'utf8'))), on: dayOf('2026-05-20') }));

const EASE = { none: 1, raffia: 0.75, parallel: 0.8, both: 0.65 };
const BANDS = ['calm', 'careful', 'heavy', 'no'];
const bandOf = (risk: number): string => (risk < 0.6 ? 'calm' : risk < 1 ? 'careful' : risk <= 1.6 ? 'heavy' : 'no');
const turn = (from: number, to: number): number => ((to - from + 540) % 360) - 180;

class Tally {
  readonly count: Record<string, number> = {};
  readonly laughable: string[] = [];

  add(what: string, is: boolean): void {
    this.count[what] ??= 0;
    this.count[`${what} of`] = (this.count[`${what} of`] ?? 0) + 1;
    if (is) this.count[what]!++;
  }

  share = (what: string): number => this.count[what]! / this.count[`${what} of`]!;

  read({ tree, on }: { tree: Tree; on: number }): void {
    const plan = planTree(tree, on, { fronts: false, places: true });
    const laugh = (what: string, is: boolean): void => void (is && this.laughable.push(`${tree.name}: ${what}`));
    const thickness = new Map(tree.branches.map((b) => [b.id, b.d]));
    this.bends(tree, plan, laugh);
    this.wire(plan);
    for (const tie of plan.guys.filter((g) => !g.fixed)) {
      for (const { check, ok } of tie.checks) laugh(`tie of ${tie.branch} fails ${check}`, !ok);
      laugh(`tie of ${tie.branch} at ${tie.tension} N`, tie.tension > 150 || tie.tension < 5);
      laugh(`tie on ${tie.branch}`, thickness.get(tie.branch)! < 4);
    }
    const held = new Set([
      ...plan.runs.flatMap((r) => r.branches.map((b) => b.branch)),
      ...plan.guys.map((g) => g.branch),
      ...(tree.plan.devices ?? []).map((d) => d.branch),
      ...plan.wires.map((w) => w.branch),
    ]);
    for (const { branch } of plan.poses) laugh(`${branch} is posed and held by nothing`, !held.has(branch));
  }

  private bends(tree: Tree, plan: PlanDocument, laugh: (what: string, is: boolean) => void): void {
    const k0 = speciesOf(tree.species).bendRatio.value;
    for (const { branch, bends } of plan.poses)
      for (const b of bends) {
        if (b.handDeg === null) continue;
        const k = k0 * (1 + 0.03 * Math.max(0, b.diameter - 8)) * EASE[b.protection];
        const risk = (b.diameter / ((2 * b.length * 180) / (b.handDeg * Math.PI))) * 2 * k;
        const what = `${branch} ${b.kind} of ${b.handDeg}° by hand on ${b.diameter} mm`;
        this.add('calm', risk <= 0.6);
        this.add('wrapped', b.protection !== 'none');
        laugh(`${what} is called ${b.band}`, BANDS.indexOf(b.band) < BANDS.indexOf(bandOf(risk - 0.02)));
        laugh(`${what} is too far`, b.handDeg > 110 || risk > 1.62);
        laugh(`${what} wants a wrap or stages`, b.diameter < 5 && (b.protection !== 'none' || (b.stages ?? 1) > 1));
      }
  }

  private wire(plan: PlanDocument): void {
    const poseOf = new Map(plan.poses.map((p) => [p.branch, p]));
    for (const run of plan.runs)
      for (const part of run.branches) {
        const pose = poseOf.get(part.branch);
        this.add('under a turn', part.turns < 1);
        this.add('shared', run.branches.length > 1);
        if (!pose) continue;
        const [aside, rise] = [turn(pose.now.bearing, pose.bearing), pose.elevation - pose.now.elevation];
        if (Math.abs(aside) >= 8) this.add('hand against', part.hand !== (aside < 0 ? 'ccw' : 'cw'));
        if (Math.abs(rise) >= 5) this.add('start against', part.start !== (rise < 0 ? 'over' : 'under'));
        const ends = Math.max(...run.places!.flatMap((p) => (p.limb === part.branch ? p.s : [])));
        part.bends.forEach((bend, i) => {
          if (!bend) return;
          this.add('beyond its end', pose.bends[i]!.at + pose.bends[i]!.length / 2 > ends + 1);
          this.add('any missed', bend.missDeg > 25);
          if (pose.bends[i]!.kind === 'drop') this.add('drop missed', bend.missDeg > 25);
        });
      }
    const sum = (of: (run: PlanDocument['runs'][number]) => number): number => plan.runs.reduce((all, run) => all + of(run), 0);
    this.count['wire'] = (this.count['wire'] ?? 0) + sum((r) => r.length);
    this.count['route'] = (this.count['route'] ?? 0) + sum((r) => r.route?.length ?? 0);
    this.add('many sizes', new Set(plan.runs.map((r) => `${r.metal} ${r.size}`)).size > 5);
    for (const { because } of plan.unwired) this.add('no room', /no room on the bark/.test(because.join(' ')));
    for (const _ of plan.runs.flatMap((r) => r.branches)) this.add('no room', false);
  }
}

test('sixty made-up trees of all forms, kinds and ages, and the demo trees: their plans ask for nothing that an artist would laugh at', () => {
  const tally = new Tally();
  for (let i = 0; i < MADE_UP; i++) tally.read(madeUp(i));
  for (const tree of demo()) tally.read(tree);
  expect(tally.laughable).toEqual([]);
  expect(tally.count['under a turn']).toBe(0);
  const most = {
    wrapped: 0.15,
    'many sizes': 0.1,
    'hand against': 0.1,
    'start against': 0.1,
    'any missed': 0.1,
    'beyond its end': 0.01,
    'drop missed': 0.05,
    'no room': 0.02,
  };
  expect(Object.entries(most).filter(([what, share]) => !(tally.share(what) <= share))).toEqual([]);
  expect(tally.share('calm')).toBeGreaterThan(0.75);
  expect(tally.share('shared')).toBeGreaterThan(0.6);
  expect(tally.count['route']! / tally.count['wire']!).toBeLessThan(0.25);
});
