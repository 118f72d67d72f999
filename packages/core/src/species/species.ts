import { clamp } from '../units/index.js';
import { relaxation } from '../wood/index.js';
import { SPECIES_TABLE } from './table.js';
import type { Figure, Species } from './types.js';

/** Plausible bounds of each figure; a table row outside them is a slip of the pen. */
const BOUNDS: Record<string, [number, number]> = {
  strength: [8, 60],
  elasticStrain: [0.005, 0.05],
  bendRatio: [2, 20],
  yearlyGrowth: [0.1, 5],
  relaxedShare: [0.1, 0.9],
  relaxationDays: [30, 600],
  greenCap: [0.1, 0.8],
  recovery: [0.05, 0.8],
};

/** Every fault of a species table, as sentences; empty when it is sound. */
export function speciesFaults(table: readonly Species[]): string[] {
  const faults: string[] = [];
  const seen = new Set<string>();
  for (const s of table) {
    if (!/^[a-z]+(-[a-z]+)*$/.test(s.key)) faults.push(`${s.key}: the key is not lower case with hyphens`);
    if (seen.has(s.key)) faults.push(`${s.key}: listed twice`);
    seen.add(s.key);
    for (const [field, [low, high]] of Object.entries(BOUNDS)) {
      const { value, confidence } = s[field as keyof Species] as Figure;
      if (!(value >= low && value <= high)) faults.push(`${s.key}: ${field} ${value} is outside ${low}–${high}`);
      if (!['fair', 'low', 'guess'].includes(confidence)) faults.push(`${s.key}: ${field} has no confidence`);
    }
    const shares = s.flushes.reduce((sum, f) => sum + f.share, 0);
    if (Math.abs(shares - 1) > 1e-9) faults.push(`${s.key}: flush shares add up to ${shares}, not 1`);
    if (s.flushes.some((f) => f.from >= f.to)) faults.push(`${s.key}: a flush ends before it begins`);
    for (const [task, { good, bad }] of Object.entries(s.months)) {
      const wrong = [...good, ...bad].filter((m) => m < 1 || m > 12);
      if (wrong.length || good.some((m) => bad.includes(m))) faults.push(`${s.key}: months for ${task} contradict each other`);
    }
  }
  return faults;
}

const faults = speciesFaults(SPECIES_TABLE);
if (faults.length) throw new Error(`The species table is faulty:\n${faults.join('\n')}`);

const byKey = new Map(SPECIES_TABLE.map((s) => [s.key, s]));

/** All species, sorted by name. */
export const allSpecies = (): readonly Species[] => [...SPECIES_TABLE].sort((a, b) => (a.name < b.name ? -1 : 1));

/** A species' name within a sentence: in small letters but for countries. */
export function nameInText({ name }: Species): string {
  const [kind, which] = name.split(', ');
  const said = which ? `${which} ${kind}` : name;
  return /^(Japanese|Korean)/.test(said) ? said : said.toLowerCase();
}

export const findSpecies = (key: string): Species | undefined => byKey.get(key);

/** A species' green wood as the mechanics take it. */
export const woodOf = (s: Species): { elasticStrain: number; strength: number; recovery: number } => ({
  elasticStrain: s.elasticStrain.value,
  strength: s.strength.value,
  recovery: s.recovery.value,
});

/** How much more than usual wood so thick (mm) lays on in a year: it carries more green. docs: Season and growth. */
export const growthByThickness = ({ diameter }: { diameter: number }): number => clamp((diameter / 8) ** 0.3, 0.6, 1.4);

/** The radius (mm) that wood so thick lays on in a usual year. */
export const yearlyGrowthOf = ({ yearlyGrowth }: Species, diameter: number): number => yearlyGrowth.value * growthByThickness({ diameter });

/** How a bend in wood so thick sets: ρ∞, and τ in growing days. */
export const settingOf = (s: Species, diameter: number): { relaxedShare: number; relaxationDays: number } => ({
  relaxedShare: s.relaxedShare.value,
  relaxationDays: relaxation({ relaxationDays: s.relaxationDays.value, diameter }),
});

/** The species of a key; throws for an unknown one (tree files are checked before). */
export function speciesOf(key: string): Species {
  const found = byKey.get(key);
  if (!found) throw new Error(`No species is called "${key}".`);
  return found;
}
