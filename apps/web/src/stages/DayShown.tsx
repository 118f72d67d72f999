import { sayDate } from '../shared/say';
import { useDesk } from './desk';

/** Over the picture: that it shows another day than today, and the way back. */
export function DayShown() {
  const { day, today, setDay } = useDesk();
  if (day === today) return null;
  return (
    <p className="absolute right-5 top-4 text-right leading-snug">
      <span className="block">{day < today ? 'as it was on' : 'as it may be on'}</span>
      <strong className="block">{sayDate(day)}</strong>
      <button type="button" className="text-copper underline-offset-2 hover:underline" onClick={() => setDay(today)}>
        back to today
      </button>
    </p>
  );
}
