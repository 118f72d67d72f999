import fc from 'fast-check';
import { RULES, sayMetal } from '@ustle/core';
import { numberFault, readNumber, sayNumber, type NumberRule } from '../src/shared/numbers';
import { readDate } from '../src/shared/read-date';
import { addDays, daysBetween, percent, sayDate, sayLong, sayShort, saySpan } from '../src/shared/say';
import { FATE_WORDS, sayRule, sayRuleFirst, wordOf } from '../src/stages/remove/fates';

const isoDay = fc.date({ min: new Date('1990-01-01'), max: new Date('2080-01-01'), noInvalidDate: true }).map((d) => d.toISOString().slice(0, 10));

test('days are counted and said, over months and leap years', () => {
  fc.assert(
    fc.property(isoDay, fc.integer({ min: -900, max: 900 }), (day, by) => {
      expect(daysBetween(day, addDays(day, by))).toBe(by);
      expect(addDays(addDays(day, by), -by)).toBe(day);
      expect(sayDate(day)).toContain(day.slice(0, 4));
    }),
  );
  expect([sayShort('2026-11-28'), sayLong('2026-11-24'), sayDate('2026-11-28')]).toEqual(['Sat 28 Nov', 'Tuesday 24 November', '28 November 2026']);
  expect(saySpan('2026-08-29', '2026-09-02')).toBe('29 August to 2 September 2026');
  expect(saySpan('2026-12-29', '2027-01-02')).toBe('29 December 2026 to 2 January 2027');
  expect([0, 0.0001, 0.0032, 0.012, 1].map(percent)).toEqual(['0%', '0%', '0.3%', '1%', '100%']);
  expect([percent(0.456), sayMetal('copper', 2.59), sayMetal('aluminium', 3.5)]).toEqual(['46%', '2.6 mm copper (gauge 10)', '3.5 mm aluminium']);
});

test('every fate has a key of its own, and every rule its words', () => {
  expect(new Set(FATE_WORDS.map((a) => a.key)).size).toBe(FATE_WORDS.length);
  // J and L walk the list, digits go to stages.
  expect(FATE_WORDS.some((a) => 'jl0123456789'.includes(a.key))).toBe(false);
  expect(wordOf('sacrifice').name).toBe('Let it run');
  for (const rule of RULES) expect([sayRule(rule), sayRuleFirst(rule)]).toEqual([expect.not.stringMatching(/[A-Z_-]{2}/), expect.stringMatching(/^[A-Z]/)]);
});

test('a day is read as people write it, whatever form; what is none is none', () => {
  const today = '2026-11-26';
  fc.assert(
    fc.property(isoDay, (day) =>
      expect([readDate(sayDate(day), today), readDate(day, today)]).toEqual([
        { day, rough: false },
        { day, rough: false },
      ]),
    ),
  );
  expect(['3 May', '3 May 2027', '3.5.2027', '3/5/2027', ' 2027-05-03 '].map((t) => readDate(t, today)?.day)).toEqual([
    '2026-05-03',
    ...Array(4).fill('2027-05-03'),
  ]);
  expect(['', 'soon', '31 February 2026', '2026-13-01', '3 May 0026', '12', 'Aprill 2024', 'spring 24', '0 moons ago'].map((t) => readDate(t, today))).toEqual(
    Array(9).fill(null),
  );
  // A month, a season, a year: its middle, or today where that is still to come; without a year the last one.
  const roughly: [typed: string, north: string, south?: string][] = [
    ['April 2024', '2024-04-15'],
    ['apr 2024', '2024-04-15'],
    ['2024-04', '2024-04-15'],
    ['autumn 2025', '2025-10-15', '2025-04-15'],
    ['Winter 2024', '2025-01-15', '2024-07-15'],
    ['last spring', '2026-04-15', '2025-10-15'],
    ['summer', '2025-07-15', '2026-01-15'],
    ['May', '2026-05-15'],
    ['November', '2025-11-15'],
    ['2024', '2024-07-01'],
    ['two years ago', '2024-05-20'],
    ['3 months ago', '2026-02-20'],
  ];
  for (const [typed, north, south = north] of roughly) {
    expect([typed, readDate(typed, '2026-05-20')]).toEqual([typed, { day: north, rough: true }]);
    expect([typed, readDate(typed, '2026-05-20', 'south')]).toEqual([typed, { day: south, rough: true }]);
  }
});

test('a number is read with comma or point and said as the hand measures; "5o" and what is out of bounds are named', () => {
  const thickness = { type: 'number', minimum: 0.3, maximum: 400, unit: 'mm', step: 0.1 } as unknown as NumberRule;
  expect(['9,5', ' 12 ', '-4', '.5', '+3'].map(readNumber)).toEqual([9.5, 12, -4, 0.5, 3]);
  expect(['5o', '', '1,2,3', '1e3', 'NaN'].map(readNumber)).toEqual(Array(5).fill(NaN));
  expect(numberFault('5o', thickness, 'base')).toBe('base: "5o" is not a number.');
  expect(numberFault('0,1', thickness, 'base')).toBe('base: between 0.3 and 400 mm; not 0,1.');
  expect(numberFault('9,5', thickness, 'base')).toBeNull();
  const length = { ...thickness, step: 1 } as unknown as NumberRule;
  expect([sayNumber(9.5, thickness), sayNumber(9, thickness), sayNumber(9.53, thickness), sayNumber(174, length), sayNumber(174.2, length)]).toEqual([
    '9.5',
    '9.0',
    '9.53',
    '174',
    '174.2',
  ]);
});
