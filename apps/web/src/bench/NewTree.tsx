import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useNotice } from '../app/notice';
import { beginTree, makeUpTree, useSpecies } from '../shared/api';

/** Begins a tree to be measured; or has one made up, to try things on before one's own is measured. */
export function NewTree() {
  const { data: species } = useSpecies();
  const [name, setName] = useState('');
  const [kind, setKind] = useState('larch');
  const navigate = useNavigate();
  const { attempt } = useNotice();
  const word = species?.find((s) => s.key === kind)?.name ?? kind;
  const measure = (): Promise<boolean> =>
    attempt(async () => {
      const view = await beginTree(name.trim() || `New ${word.toLowerCase()}`, kind);
      void navigate(`/tree/${view.id}/measure`);
    });
  const makeUp = (): Promise<boolean> =>
    attempt(async () => {
      const view = await makeUpTree({ name: name.trim() || `Practice ${word.toLowerCase()}`, species: kind, seed: Math.floor(Math.random() * 2147483647) });
      void navigate(`/tree/${view.id}/front`);
    });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void measure();
      }}
    >
      <label className="block">
        <span className="mb-1 block text-[14px] text-quiet">Name</span>
        <input className="input w-48 bg-sheet" maxLength={120} value={name} onChange={(event) => setName(event.target.value)} />
      </label>
      <label className="block">
        <span className="mb-1 block text-[14px] text-quiet">Kind of tree</span>
        <select className="select w-52 bg-sheet" value={kind} onChange={(event) => setKind(event.target.value)}>
          {(species ?? []).map((s) => (
            <option key={s.key} value={s.key}>
              {s.name}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn btn-primary">
        Measure it
      </button>
      <button type="button" className="btn btn-outline btn-primary" onClick={() => void makeUp()}>
        Make one up
      </button>
    </form>
  );
}
