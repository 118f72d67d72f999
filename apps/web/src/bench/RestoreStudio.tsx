import { useState } from 'react';
import { paths } from '@ustle/contract';
import { FileButton } from '../shared/FileButton';
import { ApiError, ask } from '../shared/http';
import { counted, refreshLists } from '../shared/traffic';

const PATIENCE_MS = 600_000;

/** On an empty installation: takes a whole studio in from the file that another one gave. */
export function RestoreStudio() {
  const [said, setSaid] = useState<{ text: string; wrong: boolean } | null>(null);
  const take = async (file: File): Promise<void> => {
    setSaid({ text: 'It is being taken in; a large studio takes minutes.', wrong: false });
    try {
      await counted(
        ask(paths.studio, { method: 'POST', headers: { 'Content-Type': 'application/zip' }, body: file, signal: AbortSignal.timeout(PATIENCE_MS) }),
      );
      setSaid(null);
      refreshLists();
    } catch (error) {
      setSaid({ text: error instanceof ApiError ? error.message : 'It could not be sent.', wrong: true });
    }
  };
  return (
    <div className="mt-8 border-t border-rule pt-4">
      <p>Had everything elsewhere before? The file of a whole studio brings trees, records, photos and the rack back as they were.</p>
      <FileButton
        label="Take a studio in (ZIP)"
        what="The file of a studio"
        accept=".zip,application/zip"
        className="mt-3"
        onFiles={([file]) => void take(file!)}
      />
      {said && (
        <p role={said.wrong ? 'alert' : 'status'} className={`mt-2 ${said.wrong ? 'text-madder' : 'text-quiet'}`}>
          {said.text}
        </p>
      )}
    </div>
  );
}
