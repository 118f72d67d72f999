import { useId } from 'react';
import { usePeople } from '../../shared/queries';

/** Who works, by the names that the yard gives; another name may be typed. */
export function By({ value, onValue }: { value: string; onValue: (by: string) => void }) {
  const { data: people = [] } = usePeople();
  const list = useId();
  return (
    <label className="block">
      <span className="mb-1 block text-quiet">Who works</span>
      <input className="input w-48 bg-base-100" list={list} maxLength={80} value={value} onChange={(event) => onValue(event.target.value)} />
      <datalist id={list}>
        {people.map((p) => (
          <option key={p} value={p} />
        ))}
      </datalist>
    </label>
  );
}
