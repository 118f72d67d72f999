import { DayPicker } from 'react-day-picker';
import 'react-day-picker/style.css';

interface Props {
  day: Date;
  min: Date | undefined;
  max: Date | undefined;
  onDay: (day: Date) => void;
  onLeave: () => void;
}

/** A month to pick a day from. */
export default function Calendar({ day, min, max, onDay, onLeave }: Props) {
  const beyond = [...(min ? [{ before: min }] : []), ...(max ? [{ after: max }] : [])];
  return (
    <div onKeyDown={(event) => event.key === 'Escape' && onLeave()}>
      <DayPicker mode="single" autoFocus weekStartsOn={1} required selected={day} defaultMonth={day} disabled={beyond} onSelect={(picked) => onDay(picked)} />
    </div>
  );
}
