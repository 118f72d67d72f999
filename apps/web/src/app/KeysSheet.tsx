import { WORDS } from '../words/glossary';
import { WordDrawing } from '../words/drawings';
import { Dialog } from '../shared/Dialog';
import { setSingleKeys, useKeySheets, useSingleKeys } from '../shared/keys';

const NAMES: Record<string, string> = {
  arrowleft: '←',
  arrowright: '→',
  arrowup: '↑',
  arrowdown: '↓',
  mod: 'Ctrl',
  shift: 'Shift',
  enter: 'Enter',
  backspace: 'Backspace',
};
const sayKeys = (keys: string): string =>
  keys
    .split(',')
    .map((combination) =>
      combination
        .split('+')
        .map((k) => NAMES[k] ?? (k.length === 1 ? k.toUpperCase() : k))
        .join(' '),
    )
    .join(', ');

/** Every key that does something where one is now. */
export function KeysSheet({ onClose }: { onClose: () => void }) {
  const sheets = useKeySheets();
  const single = useSingleKeys();
  return (
    <Dialog label="Keys" onClose={onClose}>
      <h2 className="text-xl">Keys</h2>
      {sheets.map((sheet) => (
        <section key={sheet.title} className="mt-4">
          <h3 className="text-quiet">{sheet.title}</h3>
          <dl className="grid grid-cols-[150px_1fr] gap-y-1.5">
            {sheet.keys.map(({ keys, what }) => (
              <div key={keys} className="contents">
                <dt className="font-bold">{sayKeys(keys)}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
        </section>
      ))}
      <p className="mt-4 text-quiet">On the tree: ← and → turn it by 3°, with Shift by 15°; + and − bring it nearer and farther.</p>
      <label className="mt-4 flex items-center gap-3">
        <input type="checkbox" className="checkbox checkbox-sm" checked={single} onChange={(event) => setSingleKeys(event.target.checked)} />
        single letters and digits do something
      </label>
      <details className="mt-4 border-t border-rule pt-2">
        <summary className="min-h-11 cursor-pointer content-center">Words used here</summary>
        <dl className="mt-1 space-y-2">
          {WORDS.map(({ word, says, drawing }) => (
            <div key={word}>
              <dt className="font-bold">{word}</dt>
              <dd>
                {says}
                {drawing && <WordDrawing of={drawing} />}
              </dd>
            </div>
          ))}
        </dl>
      </details>
    </Dialog>
  );
}
