import { useState } from 'react';
import { mutate } from 'swr';
import { paths } from '@ustle/contract';
import { useNotice } from '../app/notice';
import { ask, send } from '../shared/http';
import { Quiet, Skeleton } from '../shared/parts';
import { QrCode } from '../shared/QrCode';
import { useAccess } from '../shared/queries';
import { PassphraseField } from './PassphraseField';
import { useTitle } from '../shared/use-title';

const LEAST = 8;

function Passphrase({ set }: { set: boolean }) {
  const { attempt } = useNotice();
  const [passphrase, setPassphrase] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const keep = async (): Promise<void> => {
    if (passphrase.length < LEAST) return setFault(`Passphrase: ${LEAST} letters or more; a short sentence is good.`);
    setFault(null);
    if (!(await attempt(() => send(paths.passphrase, { passphrase })))) return;
    setPassphrase('');
    await mutate(paths.access);
  };
  return (
    <form
      className="space-y-2"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        void keep();
      }}
    >
      <PassphraseField
        fresh
        label={set ? 'Another passphrase; devices that are in have to give it anew' : 'Passphrase for the yard'}
        value={passphrase}
        onValue={setPassphrase}
        fault={fault}
      />
      <button type="submit" className="btn btn-primary">
        {set ? 'Change it' : 'Set it'}
      </button>
    </form>
  );
}

/** How a phone reaches the yard: the address as a code, and the passphrase that lets it in. */
export function PhonePage() {
  useTitle('Phone');
  const { data: access } = useAccess();
  const { attempt } = useNotice();
  if (!access) return <Skeleton lines={6} />;
  return (
    <main className="mx-auto max-w-xl space-y-5 px-4 pb-24 pt-4">
      <h1 className="text-2xl">Phone</h1>
      {!access.open && (
        <>
          <p>Ustle answers this machine alone. To walk with a phone, start it for your own network:</p>
          <pre className="overflow-x-auto border border-rule bg-sheet px-3 py-2">USTLE_HOST=0.0.0.0 npm start</pre>
        </>
      )}
      <p className="text-quiet">Only in a network that is yours. What passes through the air is not encrypted: anybody in that network could read along.</p>
      {access.here && <Passphrase set={access.passphrase} />}
      {access.open && access.passphrase && access.addresses.length === 0 && <p>This machine is in no network just now.</p>}
      {access.open && access.passphrase && (
        <ul className="space-y-4">
          {access.addresses.map((address) => (
            <li key={address} className="flex flex-wrap items-center gap-5">
              <QrCode text={`${address}/walk`} size={180} />
              <span>
                Point the phone&rsquo;s camera here, or open
                <br />
                <strong>{address}</strong>
              </span>
            </li>
          ))}
        </ul>
      )}
      <p className="text-quiet">
        Open the walk on the phone while it is in the network. In the garden it works on without one, as long as its page stays open; what you answer is kept on
        the phone and sent when it is back. With an encrypted address (https) the page opens again without a network, too.
      </p>
      {!access.here && (
        <Quiet onClick={() => void attempt(() => ask(paths.leave, { method: 'POST' }).then(() => mutate(() => true)))}>
          this device is not let in any more
        </Quiet>
      )}
    </main>
  );
}
