import { bearingOfClock, BRANCH, clockOf, wrapDeg, type Branch } from '@ustle/core';
import type { NumberRule } from '../../shared/numbers';

export type Column = 'at' | 'bearing' | 'elevation' | 'length' | 'd' | 'tipD' | 'bareTo' | 'green';

/** A column of the list: its head, its unit, and what is measured there. */
export interface Head {
  column: Column;
  head: string;
  unit: string;
  what: string;
}

export const HEADS: readonly Head[] = [
  { column: 'at', head: 'from base', unit: 'mm', what: 'how far along the trunk, or along the branch it grows on, it leaves' },
  { column: 'bearing', head: 'towards', unit: '°', what: 'where it points, seen from above: 0° is the mark on the pot, clockwise' },
  { column: 'elevation', head: 'slope', unit: '°', what: 'above the horizontal; one that falls has a minus' },
  { column: 'length', head: 'length', unit: 'mm', what: 'shoulder to tip' },
  { column: 'd', head: 'base', unit: 'mm', what: 'thickness behind the shoulder' },
  { column: 'tipD', head: 'tip', unit: 'mm', what: 'thickness at the tip' },
  { column: 'bareTo', head: 'bare', unit: '%', what: 'of its length, from the shoulder, without foliage' },
  { column: 'green', head: 'green', unit: '%', what: "of the tree's foliage on it, its own sub-branches not counted" },
];

const isShare = (column: Column): boolean => column === 'bareTo' || column === 'green';
const PERCENT = { type: 'number', minimum: 0, maximum: 100, unit: '%', step: 1 } as unknown as NumberRule;
export const CLOCK = { type: 'number', minimum: 0, maximum: 12, unit: "o'clock", step: 0.1 } as unknown as NumberRule;

/** The bounds of a column as it is typed: shares in percent, bearings perhaps by the clock. */
export const ruleOf = (column: Column, clock: boolean): NumberRule =>
  isShare(column) ? PERCENT : column === 'bearing' && clock ? CLOCK : BRANCH.properties[column];

export const shownIn = (b: Branch, column: Column, clock: boolean): number =>
  isShare(column) ? Math.round(b[column] * 1000) / 10 : column === 'bearing' && clock ? clockOf(b.bearing) : b[column];

/** A direction as it is shown and as it is kept: in degrees, or by the clock. */
export const BY_CLOCK = { shown: clockOf, kept: bearingOfClock } as const;

export const storedFrom = (column: Column, value: number, clock: boolean): number =>
  isShare(column) ? value / 100 : column === 'bearing' ? (clock ? bearingOfClock(value) : wrapDeg(value)) : value;
