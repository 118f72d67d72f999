import { useState } from 'react';
import { useNavigate } from 'react-router';
import type { Problem } from '@ustle/contract';
import { LARGEST_FILE_BYTES } from '@ustle/core';
import { Dialog } from '../shared/Dialog';
import { FileButton } from '../shared/FileButton';
import { ApiError } from '../shared/http';
import { importTree } from '../shared/queries';

const LARGEST_MB = LARGEST_FILE_BYTES / 1048576;

/** Takes in a tree file; what is wrong with it is listed with its place, and nothing is stored. */
export function ImportTree() {
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const navigate = useNavigate();

  const take = async (file: File): Promise<void> => {
    setProblem(null);
    if (file.size > LARGEST_MB * 1048576) {
      setProblem({
        code: 'too-large',
        field: '/',
        message: `${file.name} has ${Math.round(file.size / 1048576)} MB; a tree file has at most ${LARGEST_MB} MB.`,
      });
      return;
    }
    setBusy(true);
    try {
      const view = await importTree(await file.text());
      void navigate(`/tree/${view.id}/front`);
    } catch (error) {
      setProblem(error instanceof ApiError ? error.problem : { code: 'refused', message: `${file.name} cannot be read.` });
    } finally {
      setBusy(false);
    }
  };

  return (
    <>
      <FileButton label="Bring in a tree" what="Tree file" accept=".json,application/json" disabled={busy} onFiles={([file]) => void take(file!)} />
      {problem && (
        <Dialog label="This file was not taken in" alarm onClose={() => setProblem(null)}>
          <h2 className="text-xl">This file was not taken in</h2>
          <p className="mt-1 text-quiet">Nothing was stored. {problem.faults ? 'What is wrong, and where:' : ''}</p>
          <ul className="mt-3 space-y-2">
            {(problem.faults ?? [{ path: problem.field ?? '/', code: problem.code, message: problem.message }]).map((f, i) => (
              <li key={i} className="border-t border-rule pt-2">
                <code className="text-madder">{f.path}</code> {f.message}
              </li>
            ))}
          </ul>
          <button type="button" data-first className="btn btn-outline btn-primary mt-5" onClick={() => setProblem(null)}>
            Close
          </button>
        </Dialog>
      )}
    </>
  );
}
