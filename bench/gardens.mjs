// How wire fares in made-up yards: by the schedule, with parts of it left out, and by a fixed round.
import { GARDEN, gardens, WAYS, YEARS } from './yards.mjs';

const TREES = Number(process.argv[2] ?? 200);
const share = (part, whole) => `${((100 * part) / whole).toFixed(1)}%`.padStart(9);
console.log(`${TREES} trees in yards of ${GARDEN}, ${YEARS} years; growth, weather and eyes of the simulation's own`);
console.log(`${''.padEnd(24)}    wires     deep  tender†   window  inside‡ not set‡    looks    walks`);
for (const [name, how] of Object.entries(WAYS)) {
  const s = gardens(TREES, how);
  const counts = [
    share(s.deep, s.wires),
    share(s.tenderMarked, s.tender),
    share(s.windows, s.wires),
    share(s.inWindow, s.windows),
    share(s.beforeSet, s.windows),
  ];
  console.log(`${name.padEnd(24)} ${String(s.wires).padStart(8)}${counts.join('')}${String(s.looks).padStart(9)}${String(s.walks).padStart(9)}`);
}
console.log('† of the coils on trees that bear no mark, came off marked   ‡ of those with a window when they went on');

// The more trees of different kinds, the more days that some wire asks for: what a walk saves depends on the yard.
console.log('\nlooks and walks by the schedule, as shares of the fixed round, in yards of');
for (const size of [1, 3, 5, GARDEN]) {
  const [own, fixed] = ['by the schedule', 'a fixed round'].map((name) => gardens(Math.min(TREES, 60), WAYS[name], size));
  const ratio = (key) => (own[key] / fixed[key]).toFixed(2);
  console.log(`${String(size).padStart(2)} ${size > 1 ? 'trees' : 'tree '}   looks ${ratio('looks')}   walks ${ratio('walks')}`);
}
