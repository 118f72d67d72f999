import { useEffect, useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { fileName, paths } from '@ustle/contract';
import { DEEDS_TO_AGREE, likeThis, nameInText, placeTree, planSvg, speciesOf } from '@ustle/core';
import { useNotice } from '../app/notice';
import { forgetTree, putAside } from '../shared/desk-store';
import { Dialog } from '../shared/Dialog';
import { KindField } from '../shared/KindField';
import { kindFault, kindMeant } from '../shared/kinds';
import { importTree, useSpecies, useTrees } from '../shared/queries';
import { sayDate } from '../shared/say';
import { saveFile } from '../shared/save-file';
import { AgreeTo } from './AgreeTo';
import { useDesk } from './desk';
import { useCoils } from './drawn-coils';

const counted = (n: number, one: string, many = `${one}s`): string => `${n} ${n === 1 ? one : many}`;

/** The tree's name, typed anew; stored on leaving the field or with Enter. */
function NameField() {
  const { tree, act } = useDesk();
  const [typed, setTyped] = useState(tree.name);
  const empty = typed.trim() === '';
  const store = (): void => {
    if (!empty && typed.trim() !== tree.name) void act({ kind: 'measure', measured: { name: typed.trim() } });
  };
  // Closing the sheet is leaving the field too.
  const latest = useRef(store);
  useEffect(() => void (latest.current = store));
  useEffect(() => () => latest.current(), []);
  return (
    <label className="mt-4 block">
      <span className="mb-1 block text-quiet">Name</span>
      <input
        data-first
        className="input w-full bg-sheet"
        maxLength={120}
        value={typed}
        aria-invalid={empty}
        aria-describedby="name-fault"
        onChange={(event) => setTyped(event.target.value)}
        onBlur={store}
        onKeyDown={(event) => {
          if (event.key === 'Enter') store();
        }}
      />
      <span id="name-fault" className="text-madder" role="status">
        {empty && `A tree needs a name; it stays ${tree.name} until it has one.`}
      </span>
    </label>
  );
}

/** The kind of tree, changed: what is planned is worked out anew, what was done stays. */
function KindOfTree() {
  const { tree, act } = useDesk();
  const { data: kinds = [] } = useSpecies();
  const own = speciesOf(tree.species).name;
  const [text, setText] = useState(own);
  const [fault, setFault] = useState<string | null>(null);
  const kind = kindMeant(text, kinds);
  const change = (): void => {
    if (!kind) return setFault(kindFault(text, kinds));
    void act({ kind: 'measure', measured: { species: kind.key } });
  };
  return (
    <div className="mt-3">
      <KindField label="Kind of tree" kinds={kinds} text={text} onText={(t) => (setFault(null), setText(t))} fault={fault} />
      {text.trim() !== own && (
        <p className="mt-2">
          <button type="button" className="btn btn-outline btn-primary btn-sm" onClick={change}>
            {kind ? `It is ${nameInText(speciesOf(kind.key))}` : 'Change the kind'}
          </button>{' '}
          <span className="text-quiet">Figures of its wood, growth and months are then of that kind; what was done stays.</span>
        </p>
      )}
    </div>
  );
}

/** Deleting asks: what goes is said, and a file of it can be saved first. */
function Delete({ coils }: { coils: number }) {
  const { stored, tree } = useDesk();
  const [asked, setAsked] = useState(false);
  const { attempt } = useNotice();
  const navigate = useNavigate();
  const forget = async (): Promise<void> => {
    if (await attempt(() => forgetTree(stored.id))) void navigate('/bench', { replace: true });
  };
  if (!asked)
    return (
      <button type="button" className="btn btn-outline mt-2 border-madder text-madder" onClick={() => setAsked(true)}>
        Delete it…
      </button>
    );
  return (
    <div className="mt-2 border-l-4 border-madder pl-3" role="alert">
      <p>
        {tree.name} goes for good: {counted(tree.branches.length, 'measured branch', 'measured branches')}, the plan, and{' '}
        {counted(tree.record.length, 'line', 'lines')} of record. Nothing here brings it back.
        {coils > 0 && ` ${counted(coils, 'coil')} ${coils === 1 ? 'is' : 'are'} on it by the record: nobody will remind you of them.`}
      </p>
      <p className="mt-1">
        <a className="underline" href={paths.treeFile(stored.id)} download>
          Save its tree file first
        </a>
        : that can be brought in again, with all of this.
      </p>
      <div className="mt-3 flex flex-wrap gap-2">
        <button type="button" className="btn btn-primary" onClick={() => setAsked(false)} autoFocus>
          Keep it
        </button>
        <button type="button" className="btn btn-outline border-madder text-madder" onClick={() => void forget()}>
          Delete {tree.name} for good
        </button>
      </div>
    </div>
  );
}

/** Files that are made on the page: what the turntable shows, the plan drawn, the tree in three dimensions. */
function MadeHere() {
  const desk = useDesk();
  const { tree, plan } = desk;
  const coils = useCoils(desk);
  const name = fileName(tree.name);
  const picture = (): void => {
    const canvas = document.querySelector<HTMLCanvasElement>('main canvas');
    canvas?.toBlob((png) => png && saveFile(png, `${name}.png`));
  };
  const model = async (): Promise<void> => {
    const { asGltf, treeScene } = await import('../turntable/as-gltf');
    saveFile(new Blob([await asGltf(treeScene(placeTree(tree), coils))], { type: 'model/gltf-binary' }), `${name}.glb`);
  };
  const made = 'min-h-11 underline disabled:opacity-40';
  return (
    <p className="flex flex-wrap gap-x-5 gap-y-2">
      <button type="button" className={made} onClick={picture}>
        What the table shows (PNG)
      </button>
      <button
        type="button"
        className={made}
        disabled={!plan}
        onClick={() => saveFile(new Blob([planSvg(tree, plan!)], { type: 'image/svg+xml' }), `${name}-plan.svg`)}
      >
        The plan drawn (SVG)
      </button>
      <button type="button" className={made} onClick={() => void model()}>
        The tree with its wire in 3D (glTF)
      </button>
    </p>
  );
}

/** What is done with a tree as a whole: its name, its files, putting it aside, deleting it. */
export function TreeSheet({ onClose, coils }: { onClose: () => void; coils: number }) {
  const { stored, tree } = useDesk();
  const { attempt } = useNotice();
  const { asideOn } = stored;
  const { data: trees } = useTrees();
  const navigate = useNavigate();
  const another = (): Promise<unknown> =>
    attempt(async () => {
      const { id } = await importTree(JSON.stringify(likeThis(tree, new Set(trees!.map((t) => t.name)))));
      onClose();
      void navigate(`/tree/${id}/measure`);
    });
  return (
    <Dialog label={`About ${tree.name}`} onClose={onClose}>
      <h2 className="text-2xl">About {tree.name}</h2>
      <NameField />
      <KindOfTree key={tree.species} />
      <AgreeTo deeds={DEEDS_TO_AGREE} />
      <h3 className="mt-5 text-lg">Files</h3>
      <p className="mt-1 flex flex-wrap gap-x-5 gap-y-2">
        <a className="inline-flex min-h-11 items-center underline" href={paths.treeFile(stored.id)} download>
          Tree file
        </a>
        <a className="inline-flex min-h-11 items-center underline" href={paths.branchCsv(stored.id)} download={`${tree.name} branches.csv`}>
          Branches as a table (CSV)
        </a>
        <a className="inline-flex min-h-11 items-center underline" href={paths.recordCsv(stored.id)} download={`${tree.name} record.csv`}>
          Record as a table (CSV)
        </a>
      </p>
      <MadeHere />
      <h3 className="mt-4 text-lg">Another like it</h3>
      <p className="text-quiet">A new tree of its kind and shape, drawn after this one: nothing planned, nothing done.</p>
      <button type="button" className="btn btn-outline btn-primary mt-2" disabled={!trees} onClick={() => void another()}>
        Another like this one
      </button>
      <h3 className="mt-5 text-lg">Put aside</h3>
      <p className="text-quiet">
        {asideOn
          ? `Since ${sayDate(asideOn)} it is not on the bench; wire that is on it stays in Season.`
          : 'Off the bench and kept whole, with its record; found again at the foot of the bench. Wire that is on it stays in Season.'}
      </p>
      <button type="button" className="btn btn-outline btn-primary mt-2" onClick={() => void attempt(() => putAside(stored.id, !asideOn))}>
        {asideOn ? 'Back on the bench' : 'Put it aside'}
      </button>
      <h3 className="mt-5 text-lg">Delete for good</h3>
      <Delete coils={coils} />
    </Dialog>
  );
}
