const KEYS: [string, string][] = [
  ['← →', 'turn the tree by 3°, with Shift by 15°'],
  ['+ −', 'nearer, farther'],
  ['1 to 6', 'go to a stage of the tree'],
  ['Enter', 'Front: choose the front you look at'],
  ['J, L', 'Remove: next branch, branch before'],
  ['K, X, U', 'Remove: keep, take off, open again'],
  ['S, T', 'Remove: shorten, leave a stub'],
  ['R, F', 'Remove: hold in reserve, let it run free'],
  ['Ctrl Z, Ctrl Shift Z', 'take a change of the plan back, make it again'],
  ['?', 'this sheet'],
];

export function KeysSheet({ onClose }: { onClose: () => void }) {
  return (
    <div className="fixed inset-0 z-40 flex items-center justify-center bg-ink/30" onClick={onClose}>
      <div role="dialog" aria-label="Keys" className="w-[460px] max-w-[94vw] border border-rule bg-sheet p-6" onClick={(event) => event.stopPropagation()}>
        <h2 className="text-xl">Keys</h2>
        <dl className="mt-4 grid grid-cols-[150px_1fr] gap-y-2">
          {KEYS.map(([key, what]) => (
            <div key={key} className="contents">
              <dt className="font-bold">{key}</dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
        <button type="button" autoFocus className="btn btn-outline btn-primary mt-5" onClick={onClose}>
          Close
        </button>
      </div>
    </div>
  );
}
