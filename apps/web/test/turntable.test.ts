import fc from 'fast-check';
import { frameRings } from '../src/turntable/framing';
import { LABEL_HEIGHT, placeLabels, type Label } from '../src/turntable/labels';

const label: fc.Arbitrary<Label> = fc.record({
  id: fc.uuid(),
  text: fc.string({ minLength: 1, maxLength: 18 }),
  x: fc.double({ min: -50, max: 850, noNaN: true }),
  y: fc.double({ min: -50, max: 700, noNaN: true }),
  weight: fc.nat(50),
});

test('labels never lie on each other nor outside the picture, and the first always finds room', () => {
  fc.assert(
    fc.property(fc.array(label, { maxLength: 30 }), (labels) => {
      const placed = placeLabels(labels, 800, 640);
      for (const a of placed) {
        expect(a.left).toBeGreaterThanOrEqual(0);
        expect(a.left + a.width).toBeLessThanOrEqual(800);
        expect(a.top).toBeGreaterThanOrEqual(0);
        expect(a.top + LABEL_HEIGHT).toBeLessThanOrEqual(640);
        for (const b of placed) {
          if (a === b) continue;
          const apart = a.left + a.width <= b.left || b.left + b.width <= a.left || Math.abs(a.top - b.top) >= LABEL_HEIGHT;
          expect(apart).toBe(true);
        }
      }
    }),
  );
  expect(placeLabels([{ id: 'a', text: 'b1', x: 400, y: 300, weight: 1 }], 800, 640)).toHaveLength(1);
});

test('the camera stands where the whole tree and table are in the picture, and no farther', () => {
  fc.assert(
    fc.property(
      fc.double({ min: 100, max: 900, noNaN: true }),
      fc.double({ min: 100, max: 1200, noNaN: true }),
      fc.double({ min: 0.4, max: 2.5, noNaN: true }),
      (radius, height, aspect) => {
        const rings = [
          { radius, z: -60 },
          { radius: height * 0.1, z: height },
        ];
        const { distance, aim } = frameRings(rings, 24, aspect, 9);
        const half = Math.tan((12 * Math.PI) / 180);
        const down = (9 * Math.PI) / 180;
        let most = 0;
        for (const ring of rings) {
          for (let i = 0; i < 90; i++) {
            const a = (i / 90) * 2 * Math.PI;
            const [side, near, up] = [Math.sin(a) * ring.radius, Math.cos(a) * ring.radius, ring.z - aim];
            const depth = distance - near * Math.cos(down) - up * Math.sin(down);
            most = Math.max(most, Math.abs((up * Math.cos(down) - near * Math.sin(down)) / (depth * half)), Math.abs(side / (depth * half * aspect)));
          }
        }
        expect(most).toBeLessThan(1);
        expect(most).toBeGreaterThan(0.93);
      },
    ),
    { numRuns: 40 },
  );
});
