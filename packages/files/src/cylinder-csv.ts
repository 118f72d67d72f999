import { greatestOf, bearingAndElevation, distance, sub, wrapDeg, type Branch, type Station, type Vec, MOST_FAULTS, type FileFault } from '@ustle/core';
import { numberOf, rowsOf, type MeasuredResult } from './branch-csv.js';

const COLUMNS = ['parent', 'x', 'y', 'z', 'ax', 'ay', 'az', 'length', 'radius'] as const;

interface Cylinder {
  line: number;
  start: Vec;
  end: Vec;
  diameter: number;
  children: number[];
}

/** Scans come in metres or in millimetres: no bonsai is a metre thick, and none is less than 20 mm high. */
const METRES_BELOW = 20;

function cylindersOf(text: string): { cylinders: Cylinder[]; roots: number[] } | { faults: FileFault[] } {
  const { rows, columns } = rowsOf(text);
  const faults: FileFault[] = COLUMNS.filter((c) => !columns.includes(c)).map((c) => ({
    path: `/line/1/${c}`,
    code: 'missing-column',
    message: `Line 1, ${c}: this column is missing.`,
  }));
  if (faults.length) return { faults };
  const raw = rows.map(({ line, row }) => {
    const values = Object.fromEntries(
      COLUMNS.map((c) => {
        const value = numberOf(row[c]);
        if (!Number.isFinite(value))
          faults.push({ path: `/line/${line}/${c}`, code: 'type', message: `Line ${line}, ${c}: "${row[c] ?? ''}" is not a number.` });
        return [c, value];
      }),
    ) as Record<(typeof COLUMNS)[number], number>;
    return { line, ...values };
  });
  if (!raw.length) faults.push({ path: '/line/1', code: 'empty', message: 'There is no cylinder below the head of the table.' });
  if (faults.length) return { faults: faults.slice(0, MOST_FAULTS) };
  const unit = greatestOf(raw.map((r) => r.z + Math.abs(r.az) * r.length)) < METRES_BELOW ? 1000 : 1;
  const cylinders = raw.map((r): Cylinder => {
    const start: Vec = [r.x * unit, r.y * unit, r.z * unit];
    const reach = (r.length * unit) / (Math.hypot(r.ax, r.ay, r.az) || 1);
    return {
      line: r.line,
      start,
      end: [start[0] + r.ax * reach, start[1] + r.ay * reach, start[2] + r.az * reach],
      diameter: 2 * r.radius * unit,
      children: [],
    };
  });
  const roots: number[] = [];
  raw.forEach((r, i) => {
    if (r.parent < 0) roots.push(i);
    else if (!cylinders[r.parent] || r.parent >= i)
      faults.push({ path: `/line/${r.line}/parent`, code: 'unknown-parent', message: `Line ${r.line}, parent: ${r.parent} is no cylinder above this line.` });
    else cylinders[r.parent]!.children.push(i);
  });
  if (roots.length !== 1)
    faults.push({
      path: '/line/2/parent',
      code: 'root',
      message: `${roots.length} cylinders have no parent (-1); the foot of the trunk is to be the only one.`,
    });
  return faults.length ? { faults: faults.slice(0, MOST_FAULTS) } : { cylinders, roots };
}

/** Limbs of less than this difference in thickness are alike. */
const ALIKE = 0.15;

/** Chains of cylinders: at a fork the thickest child goes on, of alike ones the one that carries most length; the others begin branches. */
function chainsOf(cylinders: readonly Cylinder[], root: number): { chain: number[]; from: { chain: number; link: number } | null }[] {
  const carried = new Float64Array(cylinders.length);
  for (let i = cylinders.length - 1; i >= 0; i--) {
    carried[i] = distance(cylinders[i]!.start, cylinders[i]!.end) + cylinders[i]!.children.reduce((sum, c) => sum + carried[c]!, 0);
  }
  const chains: { chain: number[]; from: { chain: number; link: number } | null }[] = [];
  const waiting: { first: number; from: { chain: number; link: number } | null }[] = [{ first: root, from: null }];
  for (let next = waiting.shift(); next; next = waiting.shift()) {
    const chain: number[] = [];
    const index = chains.push({ chain, from: next.from }) - 1;
    for (let at: number | undefined = next.first; at !== undefined;) {
      chain.push(at);
      const [onward, ...others] = [...cylinders[at]!.children].sort((a, b) => {
        const [thick, other] = [cylinders[a]!.diameter, cylinders[b]!.diameter];
        return Math.abs(thick - other) > ALIKE * Math.max(thick, other) ? other - thick : carried[b]! - carried[a]! || a - b;
      });
      for (const other of others) waiting.push({ first: other, from: { chain: index, link: chain.length - 1 } });
      at = onward;
    }
  }
  return chains;
}

const round = (x: number): number => Math.round(x * 10) / 10;
/** Twigs thinner or shorter than this (mm) are left to the foliage. */
const LEAST = { diameter: 0.5, length: 8 };

/** The skeleton of a scanned tree as cylinders (parent's row from 0, start, axis, length, radius): its trunk, branches and sub-branches. */
export function readCylinderCsv(text: string): MeasuredResult {
  const read = cylindersOf(text);
  if ('faults' in read) return read;
  const { cylinders, roots } = read;
  const foot = cylinders[roots[0]!]!.start;
  const chains = chainsOf(cylinders, roots[0]!);
  const along = chains.map(({ chain }) => {
    const sums: number[] = [];
    chain.reduce((sum, i) => sums[sums.push(sum + distance(cylinders[i]!.start, cylinders[i]!.end)) - 1]!, 0);
    return sums;
  });
  const trunkChain = chains[0]!.chain;
  const station = (p: Vec, d: number): Station => ({
    x: round(p[0] - foot[0]),
    y: round(p[1] - foot[1]),
    z: round(p[2] - foot[2]),
    d: round(Math.max(0.5, d)),
  });
  const trunk = [station(foot, cylinders[trunkChain[0]!]!.diameter), ...trunkChain.map((i) => station(cylinders[i]!.end, cylinders[i]!.diameter))];

  const idOf = new Map<number, string>([[0, 'trunk']]);
  const branches: Branch[] = [];
  chains.slice(1).forEach(({ chain, from }, k) => {
    const index = k + 1;
    const parent = idOf.get(from!.chain);
    const length = along[index]![chain.length - 1]!;
    const d = cylinders[chain[0]!]!.diameter;
    if (!parent || length < LEAST.length || d < LEAST.diameter) return;
    const start = cylinders[chain[0]!]!.start;
    const path = [[0, 0, 0] as Vec, ...chain.map((i) => sub(cylinders[i]!.end, start).map(round) as unknown as Vec)];
    const chord = bearingAndElevation(path[path.length - 1]!);
    const id = `b${branches.length + 1}`;
    idOf.set(index, id);
    branches.push({
      id,
      parent,
      at: round(along[from!.chain]![from!.link]!),
      bearing: round(wrapDeg(chord.bearing)),
      elevation: round(chord.elevation),
      length: round(length),
      d: round(d),
      tipD: round(Math.min(d, Math.max(0.1, cylinders[chain[chain.length - 1]!]!.diameter))),
      path,
      bareTo: 0.35,
      green: 0,
      state: 'normal',
      stage: 'wood',
      backBuds: true,
    });
  });
  const total = branches.reduce((sum, b) => sum + b.length, 0) || 1;
  for (const b of branches) b.green = Math.floor((900 * b.length) / total) / 1000;
  return { measured: { trunk, branches } };
}
