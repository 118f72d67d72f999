import { useState } from 'react';
import { AGREED_WORDS, LINE_FIELDS, needsAgreement, type DeedToAgree } from '@ustle/core';
import { useDesk } from './desk';

/** What cannot be undone on a client's tree, and they have not agreed to yet: said, with the form that notes who did. */
export function AgreeTo({ deeds }: { deeds: readonly DeedToAgree[] }) {
  const { tree, act } = useDesk();
  const open = deeds.filter((deed) => needsAgreement(tree, deed));
  const [deed, setDeed] = useState<DeedToAgree | null>(null);
  const [by, setBy] = useState('');
  const [fault, setFault] = useState(false);
  if (!open.length) return null;
  const chosen = deed && open.includes(deed) ? deed : open[0]!;
  return (
    <form
      noValidate
      aria-label="Agreement"
      className="mt-2 border-l-4 border-indigo bg-base-100 px-3 py-2"
      onSubmit={(event) => {
        event.preventDefault();
        if (!by.trim()) return setFault(true);
        void act({ kind: 'agreed', by: by.trim(), branches: [], to: [chosen] });
        setBy('');
      }}
    >
      <p>
        {tree.client} has not agreed to {open.map((d) => AGREED_WORDS[d]).join(', ')} yet.
      </p>
      <div className="mt-2 flex flex-wrap items-end gap-2">
        {open.length > 1 && (
          <label className="block">
            <span className="mb-1 block text-quiet">They agreed to</span>
            <select className="select w-52 bg-sheet" value={chosen} onChange={(event) => setDeed(event.target.value as DeedToAgree)}>
              {open.map((d) => (
                <option key={d} value={d}>
                  {AGREED_WORDS[d]}
                </option>
              ))}
            </select>
          </label>
        )}
        <label className="block">
          <span className="mb-1 block text-quiet">Who agreed</span>
          <input
            className="input w-40 bg-sheet"
            aria-invalid={fault && !by.trim()}
            maxLength={LINE_FIELDS.agreed.by.maxLength}
            value={by}
            onChange={(event) => setBy(event.target.value)}
          />
        </label>
        <button type="submit" className="btn btn-outline btn-primary btn-sm">
          Note it
        </button>
      </div>
      {fault && !by.trim() && (
        <p role="alert" className="text-madder">
          Who agreed: a name is needed.
        </p>
      )}
    </form>
  );
}
