import { useState } from 'react';
import { PROMISES, PROMISE_WORDS, vowsOf, type PromiseKind, type Vow } from '@ustle/core';
import { DateField } from '../../shared/DateField';
import { Pick, Quiet } from '../../shared/parts';
import { addDays, sayDate } from '../../shared/say';
import { useDesk } from '../desk';

function Owed({ vow }: { vow: Vow }) {
  const { act, names, today } = useDesk();
  const [letting, setLetting] = useState(false);
  const [why, setWhy] = useState('');
  const [fault, setFault] = useState(false);
  const { line } = vow;
  const end = (how: 'done' | 'let-go'): void => {
    if (how === 'let-go' && !why.trim()) return setFault(true);
    void act({ kind: 'fulfilled', promise: line.id!, how, ...(why.trim() ? { text: why.trim() } : {}) });
  };
  const from = line.from ?? line.on;
  return (
    <li className="border-t border-rule py-1.5">
      <div>
        {line.branch && `${names(line.branch)}: `}
        <strong>{PROMISE_WORDS[line.what]}</strong> {from <= today ? <span className="text-copper">now</span> : `from ${sayDate(from)}`}
        {line.until && `, by ${sayDate(line.until)}`}
        {line.text && <span className="text-quiet"> {line.text}</span>}
      </div>
      <div className="flex gap-5">
        <Quiet onClick={() => end('done')} label={`Done: ${PROMISE_WORDS[line.what]}`}>
          done
        </Quiet>
        <Quiet onClick={() => setLetting(!letting)} label={`Let go of: ${PROMISE_WORDS[line.what]}`}>
          let it go
        </Quiet>
      </div>
      {letting && (
        <form
          className="flex flex-wrap items-end gap-2 py-1"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            end('let-go');
          }}
        >
          <label>
            <span className="mb-1 block text-quiet">Why</span>
            <input
              className="input w-64 bg-base-100"
              maxLength={400}
              value={why}
              autoFocus
              aria-invalid={fault}
              onChange={(event) => setWhy(event.target.value)}
            />
          </label>
          <button type="submit" className="btn btn-outline btn-primary">
            Let it go
          </button>
          {fault && !why.trim() && (
            <p role="alert" className="w-full text-madder">
              Say why it is let go of.
            </p>
          )}
        </form>
      )}
    </li>
  );
}

/** What was promised to the tree and is owed still; and a new promise. */
export function Promises() {
  const { tree, today, act } = useDesk();
  const owed = vowsOf(tree).filter((v) => !v.ended);
  const [what, setWhat] = useState<PromiseKind>('repot');
  const [from, setFrom] = useState(addDays(today, 60));
  const [text, setText] = useState('');
  const [open, setOpen] = useState(false);
  const add = async (): Promise<void> => {
    if (await act({ kind: 'promised', what, from, ...(text.trim() ? { text: text.trim() } : {}) })) {
      setText('');
      setOpen(false);
    }
  };
  return (
    <section aria-label="Promises" className="mt-6">
      <h3 className="text-lg">Promised</h3>
      {owed.length ? (
        <ul className="border-b border-rule">
          {owed.map((v) => (
            <Owed key={v.line.id} vow={v} />
          ))}
        </ul>
      ) : (
        <p className="text-quiet">Nothing is owed to this tree. What is promised here comes back in Season.</p>
      )}
      {open ? (
        <form
          className="mt-2 flex flex-wrap items-end gap-3"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void add();
          }}
        >
          <Pick label="What" value={what} options={PROMISES.map((p) => ({ value: p, name: PROMISE_WORDS[p] }))} onChange={setWhat} />
          <DateField className="w-56" label="From" value={from} today={today} min={today} onValue={(iso) => setFrom(iso!)} />
          <label>
            <span className="mb-1 block text-quiet">Remark</span>
            <input className="input w-64 bg-base-100" maxLength={1000} value={text} onChange={(event) => setText(event.target.value)} />
          </label>
          <button type="submit" className="btn btn-primary">
            Promise it
          </button>
        </form>
      ) : (
        <p className="mt-1">
          <Quiet onClick={() => setOpen(true)}>promise something</Quiet>
        </p>
      )}
    </section>
  );
}
