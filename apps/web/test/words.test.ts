import fc from 'fast-check';
import { consequencesOf, dayOf, decide, generateTree, RULES, type Tree } from '@ustle/core';
import { addDays, daysBetween, percent, sayDate, sayLong, sayMetal, sayShort, saySpan } from '../src/shared/say';
import { ACT_WORDS, sayRule, sayRuleFirst, wordOf } from '../src/stages/remove/acts';
import { removeOverlay } from '../src/stages/remove/overlay';
import type { TreeDesk } from '../src/stages/tree-context';

const isoDay = fc.date({ min: new Date('1990-01-01'), max: new Date('2080-01-01'), noInvalidDate: true }).map((d) => d.toISOString().slice(0, 10));

test('days are counted and said, over months and leap years', () => {
  fc.assert(
    fc.property(isoDay, fc.integer({ min: -900, max: 900 }), (day, by) => {
      expect(daysBetween(day, addDays(day, by))).toBe(by);
      expect(addDays(addDays(day, by), -by)).toBe(day);
      expect(sayDate(day)).toContain(day.slice(0, 4));
    }),
  );
  expect([sayShort('2026-11-28'), sayLong('2026-11-24'), sayDate('2026-11-28')]).toEqual(['Sat 28 Nov', 'Tuesday 24 November', '28 Nov 2026']);
  expect(saySpan('2026-08-29', '2026-09-02')).toMatch(/^29 Aug to 2 Sept? 2026$/);
  expect(saySpan('2026-12-29', '2027-01-02')).toBe('29 Dec 2026 to 2 Jan 2027');
  expect([0, 0.0001, 0.0032, 0.012, 1].map(percent)).toEqual(['0%', '0%', '0.3%', '1%', '100%']);
  expect([percent(0.456), sayMetal('copper', 2.59, 10), sayMetal('aluminium', 3.5, null)]).toEqual(['46%', '2.6 mm copper (gauge 10)', '3.5 mm aluminium']);
});

test('every act has a key of its own, and every rule its words', () => {
  expect(new Set(ACT_WORDS.map((a) => a.key)).size).toBe(ACT_WORDS.length);
  // J and L walk the list, digits go to stages.
  expect(ACT_WORDS.some((a) => 'jl0123456789'.includes(a.key))).toBe(false);
  expect(wordOf('sacrifice').name).toBe('Let it run');
  for (const rule of RULES) expect([sayRule(rule), sayRuleFirst(rule)]).toEqual([expect.not.stringMatching(/[A-Z_-]{2}/), expect.stringMatching(/^[A-Z]/)]);
});

const tree: Tree = (() => {
  const grown = generateTree({
    seed: 5,
    name: 'Any',
    species: 'larch',
    height: 600,
    base: 50,
    primaries: 7,
    secondaries: 3,
    faults: ['bar', 'dead', 'hanging'],
  });
  return decide(grown.branches[0]!.id, { act: 'remove' })(grown);
})();
const weighed = consequencesOf(tree, dayOf('2026-10-10'));
const desk = (own: Partial<TreeDesk>): TreeDesk => ({ tree, weighed, branch: null, sheet: 'decide', found: null, spot: null, ...own }) as TreeDesk;

test('what is pointed at on the tree goes by the open sheet', () => {
  const found = { lines: [], words: [{ at: [0, 0, 0] as const, text: 'bar' }] };
  const spot = { lines: [], words: [{ at: [0, 0, 0] as const, text: '120 mm wide' }] };
  const all = removeOverlay(desk({}));
  expect(new Set(all.labels.map((l) => l.branch)).size).toBe(all.labels.length);
  expect(all.labels.length).toBeLessThanOrEqual(24);
  expect(weighed.findings.map((f) => f.branch)).toEqual(expect.arrayContaining(all.labels.map((l) => l.branch)));
  // The gravest are told first.
  const gravity = (branch: string): number => Math.max(...weighed.findings.filter((f) => f.branch === branch).map((f) => f.severity));
  expect(gravity(all.labels[0]!.branch)).toBe(Math.max(...weighed.findings.map((f) => f.severity)));
  expect(removeOverlay(desk({ branch: 'b1', found }))).toMatchObject({ labels: [{ branch: 'b1', text: 'b1' }], evidence: found });
  expect(removeOverlay(desk({ branch: 'b1', found, spot })).evidence).toBe(spot);
  expect(removeOverlay(desk({ sheet: 'outcome', branch: 'b1', found })).evidence).toBeUndefined();
  expect(removeOverlay(desk({ sheet: 'cut' })).labels).toEqual(weighed.cuts.map((c) => ({ branch: c.branch, text: `${c.tag}  ${c.branch}` })));
  expect(removeOverlay(desk({ weighed: null })).labels).toEqual([]);
});
