import { useState } from 'react';
import { paths, type Problem } from '@ustle/contract';
import { count } from '../../shared/say';
import { useDesk } from '../desk';
import { useMeasure } from './kit';

const KINDS = { branches: 'branches', cylinders: 'cylinders of a scan' } as const;
type Kind = keyof typeof KINDS;

/** Reads the text of a table; what reads it comes when it is first needed. */
async function read(kind: Kind, text: string) {
  const { readBranchCsv, readCylinderCsv } = await import('@ustle/files');
  return kind === 'branches' ? readBranchCsv(text) : readCylinderCsv(text);
}

/** A table pasted from a spreadsheet, or a scan's cylinders; what is wrong is listed by line, and nothing is changed. */
export function BringIn() {
  const { stored } = useDesk();
  const { tree } = stored;
  const { measure } = useMeasure();
  const [text, setText] = useState('');
  const [kind, setKind] = useState<Kind>('branches');
  const [faults, setFaults] = useState<Problem['faults'] | null>(null);
  const [done, setDone] = useState(false);
  const bring = async (): Promise<void> => {
    setFaults(null);
    setDone(false);
    const found = await read(kind, text);
    if ('faults' in found) setFaults(found.faults);
    else setDone(await measure(found.measured));
  };
  return (
    <div className="space-y-3">
      <p className="text-quiet">
        A table with these heads: <strong>id</strong>, <strong>parent</strong> (the id of the branch it grows on, or trunk), <strong>at</strong> (mm from the
        parent's base), <strong>bearing</strong> and <strong>elevation</strong> (degrees), <strong>length</strong> and <strong>d</strong> (thickness at the
        base), in mm. As you have them also: name, tipD (thickness at the tip), bareTo and green (shares from 0 to 1), state, stage, backBuds. "Branches as a
        table" shows how it looks. Or the cylinders of a scan. It takes the place of the branches here; Undo brings them back.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        {(Object.keys(KINDS) as Kind[]).map((k) => (
          <label key={k} className="flex min-h-9 items-center pointer-coarse:min-h-11 gap-2">
            <input type="radio" className="radio radio-sm" checked={kind === k} onChange={() => setKind(k)} /> {KINDS[k]}
          </label>
        ))}
        <label className="btn btn-outline btn-sm border-rule font-normal">
          From a file
          <input type="file" accept=".csv,.tsv,.txt,text/csv" className="sr-only" onChange={(event) => void event.target.files?.[0]?.text().then(setText)} />
        </label>
        <a className="btn btn-ghost btn-sm" href={paths.branchCsv(stored.id)} download={`${tree.name}-branches.csv`}>
          Branches as a table
        </a>
      </div>
      <textarea
        className="textarea h-52 w-full bg-base-100 font-mono"
        aria-label="Table as text"
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder={'id,parent,at,bearing,elevation,length,d\nb1,trunk,118,262,8,240,11'}
      />
      <button type="button" className="btn btn-primary" aria-disabled={!text.trim()} onClick={() => text.trim() && void bring()}>
        Bring it in
      </button>
      {done && <p className="text-moss">Brought in: {count(tree.branches.length, 'branch', 'branches')}.</p>}
      {faults && (
        <div role="alert" className="border-l-4 border-madder bg-base-100 px-3 py-2">
          <strong>Not brought in; nothing was changed.</strong>
          <ul className="mt-1 space-y-0.5">
            {faults.slice(0, 20).map((f, i) => (
              <li key={i}>{f.message}</li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
