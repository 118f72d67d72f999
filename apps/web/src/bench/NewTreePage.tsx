import { useState } from 'react';
import { Link, useNavigate, useSearchParams } from 'react-router';
import { paths } from '@ustle/contract';
import { treeFromWire, type Form } from '@ustle/core';
import { useNotice } from '../app/notice';
import { KindField } from '../shared/KindField';
import { kindFault, kindMeant, type Kind } from '../shared/kinds';
import { NumberField } from '../shared/NumberField';
import type { NumberRule } from '../shared/numbers';
import { beginTree, importTree, makeUpTree, useSpecies, useYard } from '../shared/queries';
import { useTitle } from '../shared/use-title';
import { DoorPicture, type Door } from './DoorPicture';
import { ImportTree } from './ImportTree';
import { rowAfter, useDraft, wholeRow } from './new-draft';
import { OnlyWire } from './OnlyWire';
import { forgetPhotoBeside, photoBeside, PhotoBeside } from './PhotoBeside';
import { addPhoto } from '../photos/photo-queue';

const AGE = { type: 'number', minimum: 3, maximum: 300, unit: 'years', step: 1 } as unknown as NumberRule;
const FORMS: Record<Form, string> = { upright: 'one trunk', cascade: 'cascade', twin: 'twin trunks', clump: 'clump' };

const DOORS: { door: Door; name: string; takes: string; what: string }[] = [
  {
    door: 'wire',
    name: 'It has wire on already',
    takes: 'a minute',
    what: 'Say where, how thick and since when: it is watched from then on. The tree itself can be measured any day.',
  },
  {
    door: 'draw',
    name: 'Draw it',
    takes: 'five minutes',
    what: 'Branches are pulled out of a trunk on the turntable, by eye: roughly right, enough for a first plan.',
  },
  {
    door: 'photos',
    name: 'Photographs',
    takes: 'ten minutes',
    what: 'Cards are laid round its pot, a phone takes a dozen photos, and lines are drawn over them: within a degree or two, a few mm.',
  },
  {
    door: 'ruler',
    name: 'Ruler, spreadsheet, scan',
    takes: 'half an hour',
    what: 'A line for each branch, as exact as the tool; or a file that was measured elsewhere.',
  },
  { door: 'try', name: 'Have one made up', takes: 'at once', what: 'To try things before your own is measured. Nothing can break.' },
];

/** A new tree: its name and kind, and the way it comes in. What was typed stays until it is on the bench. The way stands in the address. */
export function NewTreePage() {
  useTitle('New tree');
  const { data: species } = useSpecies();
  const { data: yard } = useYard();
  const navigate = useNavigate();
  const { attempt } = useNotice();
  const [address, setAddress] = useSearchParams();
  const [draft, change, forget] = useDraft();
  const [fault, setFault] = useState<string | null>(null);
  const [missing, setMissing] = useState<ReadonlySet<string>>(new Set());
  const [age, setAge] = useState<number | null>(30);
  const [form, setForm] = useState<Form>('upright');
  const door = DOORS.find((d) => d.door === address.get('by'))?.door ?? null;
  const kinds = species ?? [];
  const meant = (): Kind | null => {
    const kind = kindMeant(draft.kind, kinds);
    setFault(kind ? null : (kindFault(draft.kind, kinds) ?? null));
    if (!kind) document.querySelector<HTMLInputElement>('#new-tree-kind input[list]')?.focus();
    return kind;
  };
  const go = (make: (kind: Kind, name: string) => Promise<{ id: string }>, stage: string, called: string): void => {
    const kind = meant();
    if (!kind) return;
    void attempt(async () => {
      const { id } = await make(kind, draft.name.trim() || `${called} ${kind.name.toLowerCase()}`);
      forget();
      void navigate(`/tree/${id}/${stage}`);
    });
  };
  const watchIt = (): void => {
    const open = draft.rows.flatMap((r) => [...(r.d === null ? [`${r.key} d`] : []), ...(r.since === null ? [`${r.key} since`] : [])]);
    setMissing(new Set(open));
    const whole = draft.rows.flatMap((r) => wholeRow(r) ?? []);
    if (open.length) return document.querySelector<HTMLInputElement>('main ol input')?.focus();
    if (!whole.length) return;
    const withPhoto = async (kind: Kind, name: string): Promise<{ id: string }> => {
      const made = await importTree(JSON.stringify(treeFromWire(name, kind.key, whole)));
      const beside = await photoBeside();
      if (beside) await addPhoto(made.id, yard!.today, {}, beside.picture, beside.name);
      await forgetPhotoBeside();
      return made;
    };
    go(withPhoto, 'watch', 'Wired');
  };
  const enter = (to: Door): void => {
    setAddress({ by: to }, { replace: door !== null });
    if (to === 'wire' && !draft.rows.length) change({ rows: [rowAfter(undefined)] });
  };
  return (
    <main className="min-h-full px-4 pb-10 sm:px-6">
      <header className="flex min-h-16 flex-wrap items-center justify-between gap-3 border-b border-rule py-2">
        <h1 className="text-2xl">New tree</h1>
        <Link className="inline-flex min-h-11 items-center text-quiet underline" to="/bench">
          Back to the bench
        </Link>
      </header>
      <div className="flex flex-wrap items-start gap-4 py-4" id="new-tree-kind">
        <label className="block">
          <span className="mb-1 block text-quiet">Name</span>
          <input
            autoFocus
            name="name"
            className="input w-60 bg-sheet"
            maxLength={120}
            value={draft.name}
            onChange={(event) => change({ name: event.target.value })}
          />
        </label>
        <KindField
          label="Kind of tree"
          kinds={kinds}
          text={draft.kind}
          onText={(kind) => {
            setFault(null);
            change({ kind });
          }}
          fault={fault}
        />
      </div>
      <h2 className="mb-2 text-xl">How does it come in?</h2>
      <ul className="grid gap-3 md:grid-cols-2 xl:grid-cols-5">
        {DOORS.map(({ door: own, name, takes, what }) => (
          <li key={own}>
            <button
              type="button"
              aria-pressed={own === door}
              className={`flex h-full w-full items-start gap-4 border p-3 text-left xl:flex-col xl:gap-1 hover:bg-sheet ${own === door ? 'border-copper bg-sheet' : 'border-rule'}`}
              onClick={() => enter(own)}
            >
              <span className="shrink-0">
                <DoorPicture door={own} />
              </span>
              <span>
                <span className="block font-serif text-lg">{name}</span>
                <span className="block text-quiet">{takes}</span>
                <span className="mt-1 block">{what}</span>
              </span>
            </button>
          </li>
        ))}
      </ul>
      {door === 'wire' && yard && (
        <section className="mt-6" aria-label="It has wire on already">
          <p className="mb-2">Stand before the tree, where it is looked at from. A row for each branch with wire on; thickness by eye does.</p>
          <div className="items-start gap-6 lg:flex lg:flex-row-reverse lg:justify-end">
            <PhotoBeside />
            <div className="min-w-0">
              <OnlyWire rows={draft.rows} onRows={(rows) => change({ rows })} today={yard.today} missing={missing}>
                <button type="button" className="btn btn-primary" disabled={!draft.rows.length} onClick={watchIt}>
                  Watch it
                </button>
              </OnlyWire>
            </div>
          </div>
        </section>
      )}
      {door === 'draw' && (
        <section className="mt-6" aria-label="Draw it">
          <button type="button" className="btn btn-primary" onClick={() => go((kind, name) => beginTree(name, kind.key), 'measure?draw=1', 'New')}>
            Draw it
          </button>
        </section>
      )}
      {door === 'photos' && (
        <section className="mt-6 flex flex-wrap items-center gap-4" aria-label="Photographs">
          <button
            type="button"
            className="btn btn-primary"
            onClick={() => go((kind, name) => beginTree(name, kind.key), 'measure?measures=photographs', 'New')}
          >
            Bring photos in
          </button>
          <a className="inline-flex min-h-11 items-center underline" href={paths.cards()} target="_blank" rel="noreferrer">
            The cards, to print
          </a>
        </section>
      )}
      {door === 'ruler' && (
        <section className="mt-6 flex flex-wrap items-end gap-4" aria-label="Ruler, spreadsheet, scan">
          <button type="button" className="btn btn-primary" onClick={() => go((kind, name) => beginTree(name, kind.key), 'measure', 'New')}>
            Measure it
          </button>
          <ImportTree />
          <p className="w-full text-quiet">Tables and scans are brought in under Measure, once it is begun.</p>
        </section>
      )}
      {door === 'try' && (
        <section className="mt-6 flex flex-wrap items-end gap-3" aria-label="Have one made up">
          <NumberField label="Age" rule={AGE} value={age} onValue={setAge} />
          <label className="block">
            <span className="mb-1 block text-quiet">Form</span>
            <select className="select w-40 bg-sheet" value={form} onChange={(event) => setForm(event.target.value as Form)}>
              {Object.entries(FORMS).map(([key, said]) => (
                <option key={key} value={key}>
                  {said}
                </option>
              ))}
            </select>
          </label>
          <button
            type="button"
            className="btn btn-primary"
            onClick={() =>
              go(
                (kind, name) => makeUpTree({ name, species: kind.key, form, age: age ?? 30, seed: Math.floor(Math.random() * 2147483647) }),
                'front',
                'Practice',
              )
            }
          >
            Make one up
          </button>
        </section>
      )}
    </main>
  );
}
