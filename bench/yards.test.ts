import { gardens, WAYS } from './yards.mjs';

test('a made-up yard that lives by the schedule: few marks, most wire off in its window and set, with fewer looks and about half of the walks of a fixed round', () => {
  const [schedule, fixed] = ['by the schedule', 'a fixed round'].map((way) => gardens(10, WAYS[way]));
  expect(schedule.wires).toBeGreaterThan(60);
  expect(schedule.deep / schedule.wires).toBeLessThan(0.03);
  expect(schedule.tenderMarked / schedule.tender).toBeLessThan(0.12);
  expect(schedule.windows / schedule.wires).toBeGreaterThan(0.4);
  expect(schedule.inWindow / schedule.windows).toBeGreaterThan(0.75);
  expect(schedule.beforeSet / schedule.windows).toBeLessThan(0.15);
  expect(schedule.looks / fixed.looks).toBeLessThan(0.6);
  expect(schedule.walks / fixed.walks).toBeLessThan(0.6);
  expect(fixed.tenderMarked / fixed.tender).toBeGreaterThan(0.5);
});
