import { useId, type Ref } from 'react';
import { kindsLike, type Kind } from './kinds';

/** A kind of tree, typed or chosen from those that what is typed may mean. */
export function KindField({
  label,
  kinds,
  text,
  onText,
  fault,
  inputRef,
}: {
  label: string;
  kinds: readonly Kind[];
  text: string;
  onText: (text: string) => void;
  fault: string | null;
  inputRef?: Ref<HTMLInputElement>;
}) {
  const id = useId();
  return (
    <div>
      <label htmlFor={id} className="mb-1 block text-quiet">
        {label}
      </label>
      <input
        ref={inputRef}
        id={id}
        className="input w-60 bg-sheet"
        list={`${id}-kinds`}
        autoComplete="off"
        maxLength={60}
        placeholder="such as pine"
        value={text}
        aria-invalid={fault !== null}
        data-fault={fault === null ? undefined : '1'}
        aria-describedby={fault ? `${id}-fault` : undefined}
        onChange={(event) => onText(event.target.value)}
      />
      <datalist id={`${id}-kinds`}>
        {kindsLike(text, kinds).map((k) => (
          <option key={k.key} value={k.name} />
        ))}
      </datalist>
      {fault && (
        <p id={`${id}-fault`} role="alert" className="mt-1 max-w-80 text-madder">
          {fault}
        </p>
      )}
    </div>
  );
}
