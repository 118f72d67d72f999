import { useState } from 'react';
import { mutate } from 'swr';
import { paths, type AccessView } from '@ustle/contract';
import { ApiError, send } from '../shared/http';
import { PassphraseField } from './PassphraseField';

/** What a device of the network sees before it is let in. */
export function EnterPage({ access }: { access: AccessView }) {
  const [passphrase, setPassphrase] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const enter = async (): Promise<void> => {
    try {
      await send(paths.enter, { passphrase });
      await mutate(() => true);
    } catch (error) {
      setFault(error instanceof ApiError ? error.message : 'That did not work.');
    }
  };
  return (
    <main className="mx-auto max-w-md px-4 py-10">
      <h1 className="text-3xl">Ustle</h1>
      {access.passphrase ? (
        <form
          className="mt-6 space-y-3"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void enter();
          }}
        >
          <PassphraseField label="The passphrase of the yard" value={passphrase} onValue={setPassphrase} fault={fault} />
          <button type="submit" className="btn btn-primary min-h-12 w-full">
            Let me in
          </button>
          <p className="text-quiet">This device is then let in for half a year.</p>
        </form>
      ) : (
        <p className="mt-6">No passphrase is set yet. Set one on the machine where Ustle runs, under Phone.</p>
      )}
    </main>
  );
}
