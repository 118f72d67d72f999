import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useNotice } from '../app/notice';
import { makeUpTree, useSpecies } from '../shared/api';

/** A tree made up by the program: to try things on before one's own is measured. */
export function MakeUpTree() {
  const { data: species } = useSpecies();
  const [key, setKey] = useState('larch');
  const navigate = useNavigate();
  const { attempt } = useNotice();
  const start = (): Promise<boolean> =>
    attempt(async () => {
      const name = `Practice ${species?.find((s) => s.key === key)?.name.toLowerCase() ?? key}`;
      const view = await makeUpTree({ name, species: key, seed: Math.floor(Math.random() * 2147483647) });
      void navigate(`/tree/${view.id}/front`);
    });
  return (
    <form
      className="flex flex-wrap items-end gap-3"
      onSubmit={(event) => {
        event.preventDefault();
        void start();
      }}
    >
      <label className="block">
        <span className="mb-1 block text-[14px] text-quiet">Kind of tree</span>
        <select className="select w-60 bg-sheet" value={key} onChange={(event) => setKey(event.target.value)}>
          {(species ?? []).map((s) => (
            <option key={s.key} value={s.key}>
              {s.name}
            </option>
          ))}
        </select>
      </label>
      <button type="submit" className="btn btn-primary">
        Make one up
      </button>
    </form>
  );
}
