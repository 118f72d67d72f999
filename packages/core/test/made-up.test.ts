import { generateTree, largeTree, type Growing, type Tree } from '../src/index.js';

/** A made-up tree in few words: its trunk, and a line for each branch. */
function told({ trunk, roots, pot, branches }: Tree): string[] {
  return [
    `pot ${pot.shape} ${pot.width} × ${pot.depth} × ${pot.height}`,
    `trunk ${trunk.map((s) => `${s.x} ${s.y} ${s.z} (${s.d})`).join(', ')}`,
    `roots ${roots.map((r) => `${r.bearing}° ${r.length} (${r.d})`).join(', ')}`,
    ...branches.map(
      (b) =>
        `${b.id} on ${b.parent} at ${b.at}: ${b.bearing}° ${b.elevation}°, ${b.length} (${b.d} to ${b.tipD}), bare ${b.bareTo}, green ${b.green}${b.state === 'normal' ? '' : `, ${b.state}`}, ${b.path!.length} points to ${b.path![b.path!.length - 1]!.join(' ')}`,
    ),
  ];
}

const growing = (own: Partial<Growing>): Growing => ({
  seed: 7,
  name: 'Seeded',
  species: 'larch',
  height: 420,
  base: 36,
  primaries: 3,
  secondaries: 1,
  ...own,
});

// A seed that somebody noted makes the same tree in every version: what was practised on is found again.
test('a seed makes this tree: upright, with every fault', () => {
  expect(told(generateTree(growing({ faults: ['bar', 'whorl', 'dead', 'blind', 'hanging'], lean: 0.1, leanBearing: 40 })))).toMatchInlineSnapshot(`
   [
     "pot oval 260.4 × 193.2 × 50.4",
     "trunk 0 0 0 (48.6), 26 14.1 42 (33.6), 35.7 34.7 84 (30), 15.3 46.7 126 (26.9), -18.7 41.6 168 (23.8), -30.4 27.7 210 (20.8), -5.5 21.9 252 (17.6), 25.7 30.1 294 (14.5), 28.6 41.4 336 (11.3), 15.5 45.6 378 (8.1), 18.7 46.6 420 (4.8)",
     "roots 356° 41.4 (11.6), 54° 37.9 (11.9), 129° 49 (10.6), 193° 39.2 (10.8), 231° 42.1 (11.8), 282° 35.2 (12.1)",
     "b1 on trunk at 115.1: 97.7° 20.6°, 202.9 (10.1 to 3.2), bare 0.4, green 0.265, 7 points to 186.2 -25.3 70.6",
     "b2 on b1 at 85.2: 142.4° 31.5°, 64.6 (3.9 to 1.3), bare 0.4, green 0.085, 5 points to 32.7 -42.4 32.8",
     "b3 on trunk at 287: 248.2° 12.9°, 114 (6.2 to 2), bare 0.3, green 0.174, 7 points to -100.6 -40.2 24.9",
     "b4 on b3 at 47.9: 299.5° 32.9°, 38.8 (2.3 to 1), bare 0.4, green 0.051, 5 points to -27.6 15.6 20.5",
     "b5 on trunk at 431.5: 16.9° 55.5°, 64.8 (3.5 to 1.1), bare 0.4, green 0, dead, 5 points to 10.5 34.5 52.4",
     "b6 on b5 at 27.2: 58.4° 57.6°, 25.2 (1.5 to 1), bare 0.4, green 0, dead, 5 points to 11.4 7 21.1",
     "b7 on trunk at 290: 116° 12.9°, 91.2 (5.6 to 1.8), bare 0.4, green 0.119, 7 points to 69.3 -33.8 17.6",
     "b8 on trunk at 433.5: 143.6° 67°, 45.4 (2.8 to 1), bare 0.4, green 0.059, 5 points to 10.4 -14.1 41.2",
     "b9 on trunk at 433.5: 258.2° 58.8°, 45.4 (2.8 to 1), bare 0.3, green 0.069, 5 points to -22.9 -4.8 38.6",
     "b10 on b1 at 101.5: 96.6° -75°, 50.7 (4 to 1.3), bare 0.3, green 0.077, 5 points to 13 -1.5 -48.8",
   ]
  `);
});
test('a seed makes this cascade', () => {
  expect(told(generateTree(growing({ form: 'cascade', leanBearing: 200 })))).toMatchInlineSnapshot(`
   [
     "pot round 126 × 126 × 192.7",
     "trunk 0 0 0 (46.8), -3.7 -2.9 34.7 (33.5), -11.9 -6.2 68.6 (31.1), -34 -16.1 93.9 (28.6), -59.3 -40.1 96.7 (26.1), -67.5 -66.7 75.5 (23.6), -64.8 -80.3 43.4 (21.1), -60.2 -89.1 9.8 (18.6), -53.6 -102.4 -21.9 (16), -51 -122.4 -50.5 (13.5), -59.7 -143.9 -76.7 (10.9), -77.2 -158.4 -103.3 (8.2), -94.7 -165.7 -132.7 (5.6)",
     "roots 4° 46.9 (12.9), 50° 53.7 (11.2), 133° 44.5 (12.1), 164° 53.9 (10.5), 243° 32.9 (9.9), 287° 49.3 (12.3)",
     "b1 on trunk at 100.8: 95.3° 20.6°, 125.8 (10.1 to 3.2), bare 0.4, green 0.334, 7 points to 116 -10.7 43.8",
     "b2 on b1 at 52.8: 139.9° 31.4°, 40 (3.9 to 1.3), bare 0.4, green 0.106, 5 points to 21.4 -25.4 20.3",
     "b3 on trunk at 251.4: 225.9° 28.5°, 75 (6.4 to 2), bare 0.3, green 0.233, 5 points to -46.6 -45.2 35.2",
     "b4 on b3 at 31.5: 280° 42.9°, 25.4 (2.4 to 1), bare 0.4, green 0.067, 5 points to -18.2 3.2 17.2",
     "b5 on trunk at 378: 136.2° 58.4°, 44.4 (3.5 to 1.1), bare 0.4, green 0.118, 5 points to 15.8 -16.5 37.2",
     "b6 on b5 at 18.7: 172.1° 67.9°, 15.6 (1.5 to 1), bare 0.4, green 0.041, 5 points to 0.8 -5.8 14.4",
   ]
  `);
});
test('a seed makes these twins and this clump', () => {
  expect(told(generateTree(growing({ form: 'twin', primaries: 1 })))).toMatchInlineSnapshot(`
   [
     "pot oval 260.4 × 193.2 × 50.4",
     "trunk 0 0 0 (48.6), 23.3 10.9 42 (33.6), 30.3 28.3 84 (30), 7.2 37 126 (26.9), -29.5 28.7 168 (23.8), -43.9 11.6 210 (20.8), -21.7 2.6 252 (17.6), 6.8 7.6 294 (14.5), 7 15.7 336 (11.3), -8.8 16.7 378 (8.1), -8.3 14.4 420 (4.8)",
     "roots 347° 49.3 (12.3), 70° 45.4 (12.9), 125° 47.4 (12.7), 180° 34.6 (10.9), 253° 50.3 (8.9), 302° 40.8 (10.6)",
     "b1 on trunk at 7.7: 175.6° 65.3°, 289.7 (26.5 to 3.6), bare 0.4, green 0.287, 7 points to 9.2 -120 262.2",
     "b2 on b1 at 121.7: 251.5° 31.8°, 113.4 (9.7 to 3.1), bare 0.3, green 0.131, 7 points to -86.7 -29 56.7",
     "b3 on b1 at 186.9: 136.6° 19.3°, 101.8 (8.5 to 2.7), bare 0.3, green 0.118, 7 points to 64.6 -68.4 33",
     "b4 on b1 at 252: 267.7° 28.2°, 115.7 (6.5 to 2.1), bare 0.3, green 0.134, 7 points to -94 -3.7 50.4",
     "b5 on trunk at 114.5: 75.1° 33.7°, 163.6 (11.2 to 3.6), bare 0.4, green 0.162, 7 points to 129.6 34.6 89.3",
     "b6 on b5 at 68.7: 151.4° 54.2°, 68.7 (4.4 to 1.4), bare 0.4, green 0.068, 5 points to 18.8 -34.5 54.5",
   ]
  `);
  expect(told(generateTree(growing({ form: 'clump', primaries: 1, secondaries: 0, swing: 0.02, species: 'hornbeam-korean', slopes: [5, 20] }))))
    .toMatchInlineSnapshot(`
   [
     "pot oval 260.4 × 193.2 × 50.4",
     "trunk 0 0 0 (48.6), 3.6 1.7 42 (33.6), 4.7 4.4 84 (30), 1.1 5.7 126 (26.9), -4.5 4.4 168 (23.8), -6.8 1.8 210 (20.8), -3.3 0.4 252 (17.6), 1 1.2 294 (14.5), 1.1 2.4 336 (11.3), -1.4 2.6 378 (8.1), -1.3 2.2 420 (4.8)",
     "roots 13° 46.9 (8.2), 58° 53.5 (8.3), 102° 38.4 (11.9), 188° 35.7 (10.4), 223° 41 (10.1), 302° 33 (11.8)",
     "b1 on trunk at 7.7: 40.6° 65.4°, 289.7 (19.3 to 6.2), bare 0.4, green 0.104, 7 points to 78.3 91.3 262.2",
     "b2 on b1 at 121.7: 117° 22.4°, 113.4 (7 to 2.3), bare 0.3, green 0.047, 7 points to 87.9 -44.7 40.7",
     "b3 on b1 at 252: 1.7° 10.1°, 101.7 (4.5 to 1.4), bare 0.3, green 0.043, 7 points to 2.9 97.9 17.5",
     "b4 on trunk at 8: 165.8° 79.6°, 313.6 (23 to 7.3), bare 0.3, green 0.131, 7 points to 13.9 -54.9 307.3",
     "b5 on b4 at 131.7: 197.8° 25.3°, 125.1 (9.3 to 3), bare 0.4, green 0.045, 7 points to -34 -105.6 52.5",
     "b6 on b4 at 272.8: 114.4° 13.1°, 131.2 (5.6 to 1.8), bare 0.4, green 0.047, 7 points to 109.2 -49.6 27.9",
     "b7 on trunk at 8.5: 248.5° 72.4°, 351.4 (20.6 to 6.6), bare 0.3, green 0.147, 7 points to -98.2 -38.6 333.6",
     "b8 on b7 at 147.6: 294.5° 27°, 108 (7.8 to 2.5), bare 0.3, green 0.045, 7 points to -86.3 39.3 48.4",
     "b9 on b7 at 305.7: 199.5° 3.7°, 116 (5.3 to 1.7), bare 0.4, green 0.042, 7 points to -37.7 -106.3 7.3",
     "b10 on trunk at 5.8: 308.9° 78.3°, 303.1 (23.3 to 7.5), bare 0.3, green 0.127, 7 points to -47.9 38.6 296.4",
     "b11 on b10 at 127.3: 40.6° 31.2°, 100.3 (8.5 to 2.7), bare 0.4, green 0.036, 7 points to 51.4 60 47.8",
     "b12 on b10 at 263.7: 267.5° 20.9°, 100.8 (6 to 1.9), bare 0.4, green 0.036, 7 points to -92.5 -4.1 35.4",
     "b13 on trunk at 101.2: 138.7° 15.2°, 140.3 (9.6 to 3.1), bare 0.4, green 0.05, 7 points to 83.1 -94.6 34.3",
   ]
  `);
});
test('and this one for measuring speed', () => {
  expect(told(largeTree(7, 2)).slice(3)).toMatchInlineSnapshot(`
   [
     "b1 on trunk at 244.6: 54.3° 32.4°, 480.6 (27.1 to 8.7), bare 0.3, green 0.301, 7 points to 319.8 230.2 250.3",
     "b2 on b1 at 201.9: 114.6° 29.8°, 144.6 (12.4 to 4), bare 0.3, green 0.091, 7 points to 111.3 -50.9 70",
     "b3 on b1 at 274: 67.1° 46.4°, 174.6 (8.8 to 2.8), bare 0.4, green 0.094, 7 points to 106.1 44.9 120.8",
     "b4 on b1 at 346.1: 134° 61.5°, 175.8 (7.6 to 2.4), bare 0.3, green 0.11, 7 points to 59.3 -57.2 151.8",
     "b5 on b1 at 418.2: 7° 46.7°, 198.3 (5.9 to 1.9), bare 0.4, green 0.106, 7 points to 16.3 132.7 142",
     "b6 on trunk at 917.4: 255.7° 32.2°, 143.5 (6.4 to 2), bare 0.4, green 0.077, 7 points to -116.7 -29.7 75.9",
     "b7 on b6 at 60.3: 302.9° 37.3°, 57.6 (2.6 to 1), bare 0.4, green 0.031, 5 points to -38.2 24.7 34.7",
   ]
  `);
});
