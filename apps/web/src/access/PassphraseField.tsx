import { useId } from 'react';

/** Where a passphrase is typed; what is wrong with it is said beside it. */
export function PassphraseField({
  label,
  value,
  onValue,
  fault,
  fresh = false,
}: {
  label: string;
  value: string;
  onValue: (value: string) => void;
  fault: string | null;
  fresh?: boolean;
}) {
  const id = useId();
  return (
    <>
      <label className="block">
        <span className="mb-1 block">{label}</span>
        <input
          type="password"
          autoComplete={fresh ? 'new-password' : 'current-password'}
          className="input w-full bg-sheet text-lg"
          maxLength={200}
          value={value}
          aria-invalid={fault !== null}
          aria-describedby={fault ? id : undefined}
          onChange={(event) => onValue(event.target.value)}
        />
      </label>
      {fault && (
        <p id={id} role="alert" className="text-madder">
          {fault}
        </p>
      )}
    </>
  );
}
