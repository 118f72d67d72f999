import { useState } from 'react';
import { paths, type Problem } from '@ustle/contract';
import { ApiError, putCsv } from '../../shared/api';
import { useDesk } from '../tree-context';

/** A table pasted from a spreadsheet, or a scan's cylinders; what is wrong is listed by line, and nothing is changed. */
export function BringIn() {
  const { view } = useDesk();
  const [text, setText] = useState('');
  const [kind, setKind] = useState<'branches' | 'cylinders'>('branches');
  const [problem, setProblem] = useState<Problem | null>(null);
  const [done, setDone] = useState(false);
  const bring = async (): Promise<void> => {
    setProblem(null);
    setDone(false);
    try {
      await putCsv(view, kind, text);
      setDone(true);
    } catch (error) {
      setProblem(error instanceof ApiError ? error.problem : { code: 'refused', message: 'The text cannot be read.' });
    }
  };
  return (
    <div className="space-y-3">
      <p className="text-quiet">
        A table with a head: id, parent, at, bearing, elevation, length, d, and perhaps name, tipD, bareTo, green, state, stage, backBuds. Or the cylinders of a
        scan: parent, x, y, z, ax, ay, az, length, radius. It takes the place of the branches here; Undo brings them back.
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <label className="flex items-center gap-2">
          <input type="radio" className="radio radio-sm" checked={kind === 'branches'} onChange={() => setKind('branches')} /> branches
        </label>
        <label className="flex items-center gap-2">
          <input type="radio" className="radio radio-sm" checked={kind === 'cylinders'} onChange={() => setKind('cylinders')} /> cylinders
        </label>
        <label className="btn btn-outline btn-sm border-rule font-normal">
          From a file
          <input type="file" accept=".csv,.tsv,.txt,text/csv" className="hidden" onChange={(event) => void event.target.files?.[0]?.text().then(setText)} />
        </label>
        <a className="btn btn-ghost btn-sm" href={paths.branchCsv(view.id)} download={`${view.tree.name}-branches.csv`}>
          Branches as CSV
        </a>
      </div>
      <textarea
        className="textarea h-52 w-full bg-base-100 font-mono text-[13px]"
        aria-label="Table as text"
        value={text}
        onChange={(event) => setText(event.target.value)}
        placeholder={'id,parent,at,bearing,elevation,length,d\nb1,trunk,118,262,8,240,11'}
      />
      <button type="button" className="btn btn-primary" disabled={!text.trim()} onClick={() => void bring()}>
        Bring it in
      </button>
      {done && <p className="text-moss">Brought in: {view.tree.branches.length} branches.</p>}
      {problem && (
        <div role="alert" className="border-l-4 border-madder bg-base-100 px-3 py-2">
          <strong>Not brought in; nothing was changed.</strong>
          <ul className="mt-1 space-y-0.5">
            {(problem.faults ?? [{ path: '', code: '', message: problem.message }]).slice(0, 20).map((f, i) => (
              <li key={i}>{f.message}</li>
            ))}
          </ul>
        </div>
      )}
    </div>
  );
}
