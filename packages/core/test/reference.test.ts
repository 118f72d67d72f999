import reference from './reference-values.json';
import * as core from '../src/index.js';

/** Values computed independently of this code: the same formulas evaluated elsewhere; those of `push` integrated to eight spreads, since four cut off what contradicts its kind. */
type Case = Record<string, any>;
const cases = reference as unknown as Record<string, Case[]>;

const relative = (tolerance: number) => (got: number, expected: number) => Math.abs(got - expected) <= tolerance * Math.max(1e-12, Math.abs(expected));
const absolute = (tolerance: number) => (got: number, expected: number) => Math.abs(got - expected) <= tolerance;

const CHECKS: [string, (of: never) => unknown, (got: number, expected: number) => boolean][] = [
  ['direction', core.direction, absolute(1e-9)],
  ['tilt', core.tilt, absolute(1e-6)],
  ['awgToMm', core.awgToMm, relative(1e-9)],
  ['sectionMoment', core.sectionMoment, relative(1e-6)],
  ['recoverable', core.recoverable, relative(1e-6)],
  ['coilHold', core.coilHold, relative(1e-6)],
  ['springBack', core.springBack, absolute(1e-6)],
  ['overbend', core.overbend, relative(1e-5)],
  ['heldShare', core.heldShare, absolute(1e-6)],
  ['pushChance', core.pushChance, absolute(1e-4)],
  ['bendRisk', core.bendRisk, relative(1e-6)],
  ['coil', core.coil, relative(1e-4)],
  ['marked', core.marked, absolute(1e-4)],
  ['push', core.push, relative(2e-3)],
  ['routeLength', core.routeLength, relative(1e-6)],
  ['windlass', core.windlass, relative(1e-6)],
  ['relaxation', core.relaxation, relative(1e-6)],
  ['growthByThickness', core.growthByThickness, relative(1e-6)],
  ['markLimitFor', core.markLimitFor, relative(1e-6)],
  ['compaction', core.compaction, relative(1e-5)],
];

const numbers = (value: unknown): number[] => (typeof value === 'number' ? [value] : Object.values(value as object).flatMap(numbers));

describe.each(CHECKS)('%s', (name, compute, close) => {
  test.each(cases[name]!.map((c) => [c] as const))('agrees with the published value for %j', (given) => {
    const isExpected = ([key]: [string, unknown]): boolean => key.startsWith('expect');
    const [, expected] = Object.entries(given).find(isExpected)!;
    const got = numbers(compute(Object.fromEntries(Object.entries(given).filter((e) => !isExpected(e))) as never));
    const wanted = numbers(expected);
    expect(got).toHaveLength(wanted.length);
    got.forEach((value, i) => expect([value, wanted[i], close(value, wanted[i]!)]).toEqual([value, wanted[i], true]));
  });
});
