import { dayOf, isoOf, sayDay } from '../units/index.js';
import { thickensBy, watch, type Known, type Watched } from '../growth/index.js';
import { bendingOf, coilHistory, cutsAmong, isCutting, namesOf, sessionOf, type Decision, type PlacedTree } from '../tree/index.js';

/** Something the plan put off, that comes back as a task. */
export interface Promised {
  branch: string;
  kind: 'reserve' | 'sacrifice' | 'later cut';
  /** The day it comes back, ISO; null while that cannot be said. */
  on: string | null;
  /** Its time has come. */
  ready: boolean;
  text: string;
}

type Found = Omit<Promised, 'branch' | 'kind'>;

const byDate = (until: string, onDay: number, then: string, now: string): Found => {
  const ready = dayOf(until) <= onDay;
  return { on: until, ready, text: ready ? now : then };
};

/** A reserve that waits for a bend elsewhere: for its coil to be set, and the branch to be alive. */
function afterBend(placed: PlacedTree, of: string, onDay: number, watched: readonly Watched[]): Found {
  const branch = placed.byId.get(of)?.branch;
  const name = namesOf(placed.tree)(of);
  if (!branch || branch.state === 'dead')
    return { on: isoOf(onDay), ready: true, text: `${name} ${branch ? 'is dead' : 'is gone'}: this one may have to take its place.` };
  if (bendingOf(placed.tree, onDay).get(of)?.crack === 'across')
    return { on: null, ready: false, text: `${name} cracked across the fibre: keep this one until it shows whether that lives.` };
  const on = watched.find((w) => w.coil.branch === of);
  if (on) {
    const set = on.race.forecast.setSure;
    if (set === null)
      return { on: null, ready: false, text: `${name} does not set where it was wanted under this wire, as far as can be foreseen: wire it again, or tie it.` };
    return {
      on: isoOf(set),
      ready: set <= onDay,
      text: `${name} ${set <= onDay ? 'has set' : 'will have set'} by ${sayDay(set)}, four chances in five. See that it is alive.`,
    };
  }
  const off = coilHistory(placed.tree, onDay).filter((c) => c.branch === of && c.offOn !== null);
  const last = off[off.length - 1]?.offOn;
  return last !== undefined && last !== null
    ? { on: isoOf(last), ready: true, text: `The wire came off ${name} on ${sayDay(last)}. See that it holds and is alive.` }
    : { on: null, ready: false, text: `Waits for ${name} to be bent.` };
}

function afterGrowth(placed: PlacedTree, id: string, untilD: number, onDay: number, known?: Known): Found {
  const { branch, parentDiameter: now } = placed.byId.get(id)!;
  const rest = untilD - now;
  const name = namesOf(placed.tree)(branch.parent);
  if (rest <= 0) return { on: isoOf(onDay), ready: true, text: `${name} is ${now.toFixed(1)} mm thick there: it has done its work.` };
  const { early, likely, late } = thickensBy(placed, branch.parent, onDay, rest, known);
  if (likely === null) return { on: null, ready: false, text: `${rest.toFixed(1)} mm more on ${name} will take over fifteen years.` };
  const span = early !== null && late !== null ? `, between ${sayDay(early)} and ${sayDay(late)}` : '';
  return { on: isoOf(likely), ready: false, text: `${rest.toFixed(1)} mm more on ${name} by about ${sayDay(likely)}${span}. An estimate: measure.` };
}

/** What was put off on a tree: reserves, sacrifices and cuts left for a later session, soonest first. */
export function promisesOf(placed: PlacedTree, onDay: number, known?: Known): Promised[] {
  const { plan } = placed.tree;
  const watched = plan.decisions.some((d) => d.act === 'reserve' && d.untilSet) ? watch(placed, onDay, known) : [];
  const cuts = new Set<Decision>(cutsAmong(placed.tree));
  const found = plan.decisions.flatMap((d): Promised[] => {
    if (!placed.byId.has(d.branch)) return [];
    const promise = (kind: Promised['kind'], f: Found): Promised[] => [{ branch: d.branch, kind, ...f }];
    if (d.act === 'reserve') {
      if (d.untilSet) return promise('reserve', afterBend(placed, d.untilSet, onDay, watched));
      return promise(
        'reserve',
        d.until
          ? byDate(d.until, onDay, 'Kept in reserve until then.', 'Kept in reserve until now: decide.')
          : { on: null, ready: false, text: 'Kept in reserve, no day set.' },
      );
    }
    if (d.act === 'sacrifice') {
      if (d.untilD) return promise('sacrifice', afterGrowth(placed, d.branch, d.untilD, onDay, known));
      return promise(
        'sacrifice',
        d.until
          ? byDate(d.until, onDay, 'Runs free until then.', 'Has it done its work? Measure below it.')
          : { on: null, ready: false, text: 'Runs free, no thickness set.' },
      );
    }
    if (isCutting(d) && cuts.has(d) && sessionOf(d) > 1)
      return promise(
        'later cut',
        d.until
          ? byDate(d.until, onDay, `Left for session ${sessionOf(d)}.`, 'Left for now: its time has come.')
          : { on: null, ready: false, text: `Left for session ${sessionOf(d)}.` },
      );
    return [];
  });
  return found.sort((a, b) => ((a.on ?? '9999') + a.branch < (b.on ?? '9999') + b.branch ? -1 : 1));
}
