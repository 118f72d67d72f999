import { STAGE_KEYS, stemOf } from '../src/stages/stem';

test.each([1, 2, 9, 10, 11])('%i stages have a key each, and stand apart on their stem in the room of the head', (count) => {
  expect(new Set(STAGE_KEYS.slice(0, count)).size).toBe(count);
  const { width, step, nodes } = stemOf(count);
  expect(nodes).toHaveLength(count);
  for (const [i, { x, y }] of nodes.entries()) {
    if (i) expect(x - nodes[i - 1]!.x).toBe(step);
    // The longest name in bold, half of it beside half of a short one.
    expect(step).toBeGreaterThanOrEqual(57);
    expect([x >= 30, x <= width - 30, y > 8, y < 40]).toEqual([true, true, true, true]);
  }
  // Beside a name and three buttons on a screen of 1280.
  expect(width).toBeLessThanOrEqual(640);
});
