import { whileSeen } from '../src/shared/while-seen';

test('a line is held only while its page is in sight, one at a time, and none is left behind', () => {
  const page = Object.assign(new EventTarget(), { visibilityState: 'visible' as DocumentVisibilityState });
  const heard: string[] = [];
  const turn = (state: DocumentVisibilityState): void => {
    page.visibilityState = state;
    page.dispatchEvent(new Event('visibilitychange'));
  };
  const stop = whileSeen(() => (heard.push('open'), () => void heard.push('close')), page);
  turn('visible');
  expect(heard).toEqual(['open']);
  turn('hidden');
  turn('hidden');
  turn('visible');
  expect(heard).toEqual(['open', 'close', 'open']);
  stop();
  turn('hidden');
  turn('visible');
  expect(heard).toEqual(['open', 'close', 'open', 'close']);
});
