import { useState } from 'react';
import { paths } from '@ustle/contract';
import { LINE_COMMON } from '@ustle/core';
import { mutate } from 'swr';
import { Dialog } from '../shared/Dialog';
import { send } from '../shared/http';
import { usePeople } from '../shared/queries';
import { sayWho, useWho } from '../shared/who';

/** A name to the yard's list of people, where it is not on it. */
export async function addPerson(name: string, people: readonly string[]): Promise<void> {
  if (!name || people.includes(name)) return;
  await send(paths.people, { people: [...people, name] }, 'PUT').catch(() => undefined);
  await mutate(paths.people);
}

/** Says who works on this device: one press for a name that is known, or a new one typed. */
export function WhoSheet({ onClose }: { onClose: () => void }) {
  const who = useWho();
  const { data: people = [] } = usePeople();
  const [name, setName] = useState('');
  const choose = (chosen: string): void => {
    sayWho(chosen);
    void addPerson(chosen.trim(), people);
    onClose();
  };
  return (
    <Dialog label="Who works here" onClose={onClose}>
      <h2 className="text-xl">Who works on this device?</h2>
      <p className="mt-1 text-quiet">Goes with every line of the record that is written here. Kept on this device.</p>
      <div className="mt-4 flex flex-wrap gap-2">
        {people.map((p, i) => (
          <button
            key={p}
            type="button"
            data-first={i === 0 ? '' : undefined}
            aria-pressed={p === who.name}
            className={`btn min-h-11 border-rule font-normal ${p === who.name ? 'btn-primary' : 'btn-outline'}`}
            onClick={() => choose(p)}
          >
            {p}
          </button>
        ))}
        <button type="button" className="btn btn-ghost min-h-11 font-normal" onClick={() => choose('')}>
          nobody in particular
        </button>
      </div>
      <form
        className="mt-4 flex items-end gap-2"
        onSubmit={(event) => {
          event.preventDefault();
          if (name.trim()) choose(name.trim());
        }}
      >
        <label className="block flex-1">
          <span className="mb-1 block text-quiet">Another name</span>
          <input className="input w-full bg-base-100" maxLength={LINE_COMMON.who.maxLength} value={name} onChange={(event) => setName(event.target.value)} />
        </label>
        <button type="submit" className="btn btn-outline btn-primary">
          That is me
        </button>
      </form>
    </Dialog>
  );
}
