import type { WalkStop, WalkView } from '@ustle/contract';
import { noticeOf } from '../src/mail/notice';

const stop = (treeName: string, name: string, walk: string): WalkStop =>
  ({ tree: treeName, treeName, name, what: '2.0 mm copper', because: ['Look at it.'], walk }) as unknown as WalkStop;
const view = (...stops: WalkStop[]): WalkView => ({ on: '2026-05-20', benches: [], stops });

test('a notice tells of the walk of today or tomorrow, tree by tree; none is sent sooner, and one for the same walk has the same id', () => {
  expect(noticeOf(view())).toBeNull();
  expect(noticeOf(view(stop('Lantern', 'first left', '2026-05-22')))).toBeNull();
  const tomorrow = noticeOf(view(stop('Lantern', 'first left', '2026-05-21'), stop('Squall', 'front', '2026-05-29')))!;
  expect(tomorrow).toMatchObject({ id: 'walk-2026-05-21', subject: 'Tomorrow: a walk past 1 tree, 1 look' });
  expect(tomorrow.text).toBe('For 21 May 2026:\nLantern\n  first left, 2.0 mm copper: Look at it.');
  const today = noticeOf({
    ...view(stop('Lantern', 'first left', '2026-05-21'), stop('Lantern', 'back', '2026-05-21'), stop('Squall', 'front', '2026-05-21')),
    on: '2026-05-21',
  })!;
  expect(today).toMatchObject({ id: tomorrow.id, subject: 'Today: a walk past 2 trees, 3 looks' });
  expect(today.text.split('\n')).toHaveLength(6);
});
