import { useState } from 'react';
import { useNavigate } from 'react-router';
import { FORMS, nameInText, type Form } from '@ustle/core';
import { useNotice } from '../app/notice';
import { beginTree, makeUpTree, useSpecies } from '../shared/api';

/** Begins a tree to be measured; or has one made up, to try things on before one's own is measured. */
export function NewTree() {
  const { data: species } = useSpecies();
  const [name, setName] = useState('');
  const [kind, setKind] = useState('larch');
  const [age, setAge] = useState('30');
  const [form, setForm] = useState<Form>('upright');
  const navigate = useNavigate();
  const { attempt } = useNotice();
  const found = species?.find((s) => s.key === kind);
  const sayKind = found ? nameInText(found) : kind;
  const measure = (): Promise<boolean> =>
    attempt(async () => {
      const view = await beginTree(name.trim() || `New ${sayKind}`, kind);
      void navigate(`/tree/${view.id}/measure`);
    });
  const makeUp = (): Promise<boolean> =>
    attempt(async () => {
      const view = await makeUpTree({
        name: name.trim() || `Practice ${sayKind}`,
        species: kind,
        form,
        age: Math.min(300, Math.max(3, Number(age) || 30)),
        seed: Math.floor(Math.random() * 2147483647),
      });
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
      <span className="flex items-end gap-2">
        <label className="block">
          <span className="mb-1 block text-[14px] text-quiet">Age, years</span>
          <input type="number" className="input w-20 bg-sheet" min={3} max={300} value={age} onChange={(event) => setAge(event.target.value)} />
        </label>
        <label className="block">
          <span className="mb-1 block text-[14px] text-quiet">Form</span>
          <select className="select w-32 bg-sheet" value={form} onChange={(event) => setForm(event.target.value as Form)}>
            {FORMS.map((f) => (
              <option key={f}>{f}</option>
            ))}
          </select>
        </label>
        <button type="button" className="btn btn-outline btn-primary" onClick={() => void makeUp()}>
          Make one up
        </button>
      </span>
    </form>
  );
}
