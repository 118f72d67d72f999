import { seeded, usualMean, type DayMean, type Hemisphere } from '@ustle/core';

/** A weather station as its service shows it: the usual means of its place, and what it measured. A real one would be behind the same. */
export interface Station {
  readonly name: string;
  /** The half of the earth that it stands on. */
  readonly hemisphere: Hemisphere;
  /** Usual monthly means, °C, January first. */
  readonly monthly: readonly number[];
  /** Daily means from one day number to another, both included; null where nothing came. */
  means(from: number, to: number): Promise<DayMean[]>;
}

/** A coast with mild winters and cool summers, as its months are in the north. */
const COAST = [3, 3.5, 5.5, 8, 11.5, 14.5, 16.5, 16.5, 14, 10.5, 6.5, 4];
const SPELL_DAYS = 9;
const YEAR_DAYS = 365.25;

/** Stands in for a station: years a little warmer or colder, warm and cold spells, now and then a day without a word, a leap, a hanging sensor. The same day always says the same. */
export function simulatedStation(hemisphere: Hemisphere): Station {
  const monthly = hemisphere === 'north' ? COAST : [...COAST.slice(6), ...COAST.slice(0, 6)];
  const random = (key: number): number => seeded(key + 7919)();
  const off = (key: number): number => random(key) + random(key + 1_000_003) + random(key + 2_000_003) - 1.5;
  const spell = (day: number): number => {
    const at = day / SPELL_DAYS;
    const i = Math.floor(at);
    return off(i) + (off(i + 1) - off(i)) * (at - i);
  };
  const meanOf = (day: number): number | null => {
    if (random(day * 3) < 0.02) return null;
    if (random(day * 5) < 0.004) return 85;
    const hangs = random(Math.floor(day / 6) * 11) < 0.01;
    const said = hangs ? Math.floor(day / 6) * 6 : day;
    return Math.round((usualMean(monthly, said) + 1.6 * off(Math.floor(said / YEAR_DAYS) * 13) + 3.2 * spell(said) + 1.2 * off(said * 17)) * 10) / 10;
  };
  return {
    name: 'Station on the shed roof',
    hemisphere,
    monthly,
    means: (from, to) => Promise.resolve(Array.from({ length: Math.max(0, to - from + 1) }, (_, i) => ({ day: from + i, mean: meanOf(from + i) }))),
  };
}
