import fc from 'fast-check';
import {
  dayOf,
  MARK_LIMIT,
  NOTHING_KNOWN,
  USUAL_COURSE,
  recoverable,
  speciesOf,
  woodOf,
  type CoilState,
  type HeldBend,
  type LineOf,
  type Species,
} from '../src/index.js';

export const between = (min: number, max: number) => fc.double({ min, max, noNaN: true });

/** A bend of so many times the yield curvature, left a tenth past its target by a wire that holds well. */
export function held(species: Species, diameter: number, turn: number): HeldBend {
  const target = (turn * 2 * species.elasticStrain.value) / diameter;
  const wired = target * 1.1;
  return { wired, stored: 0.4 * recoverable({ diameter, curvature: wired, wood: woodOf(species) }), target, storedSd: 0, assumedLength: null };
}

/** A coil all of whose turns are alike, on a tree of which nothing is told. */
export const PLAIN: Pick<CoilState, 'straight' | 'course' | 'cut'> = { straight: null, course: USUAL_COURSE, cut: null };

export const coilState: fc.Arbitrary<CoilState> = fc
  .record({
    species: fc.constantFrom('larch', 'maple-trident', 'juniper-scale', 'pine-two-needle', 'spruce'),
    hemisphere: fc.constantFrom('north' as const, 'south' as const),
    since: fc.integer({ min: dayOf('2024-01-01'), max: dayOf('2026-12-31') }),
    diameter: between(3, 18),
    wireDiameter: between(1, 5),
    factor: between(0.3, 2.5),
    allowance: fc.constantFrom(0, 0.3, 0.8),
    turn: between(0.3, 4),
  })
  .map(({ species, turn, ...rest }) => {
    const s = speciesOf(species);
    return { ...rest, species: s, markLimit: MARK_LIMIT[s.bark], bend: held(s, rest.diameter, turn), unknown: NOTHING_KNOWN, seen: [], ...PLAIN };
  });

/** A line of the record: a coil put on a branch. */
export const wired = (id: string, on = '2026-03-01'): LineOf<'wired'> => ({
  on,
  kind: 'wired',
  run: `w-${id}`,
  branch: id,
  metal: 'copper',
  size: 2.05,
  strands: 1,
  angle: 45,
  hand: 'cw',
  start: 'over',
  gap: 0,
  wrap: 'none',
  bentDeg: 40,
  targetDeg: 30,
  over: 60,
});
