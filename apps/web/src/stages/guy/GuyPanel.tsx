import { sayForce } from '@ustle/core';
import { inNameOrder } from '@ustle/contract';
import { PanelHead, Pick, Skeleton } from '../../shared/parts';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { AfterGuys } from './AfterGuys';
import { Anchors } from './Anchors';
import { useKit } from './kit';
import { Devices } from './Devices';
import { OpenTie } from './OpenTie';
import { sayAnchor } from './words';

export function GuyPanel() {
  const { plan, branch, setBranch, names } = useDesk();
  const { own } = useKit();
  if (!plan) return <Skeleton lines={9} />;
  const { guys } = plan;
  const on = guys.filter((g) => g.on).length;
  const without = plan.unwired.filter((u) => u.guy && !guys.some((g) => g.branch === u.branch));
  const choosable = [...plan.poses, ...plan.asGrown].map((p) => p.branch).sort((a, b) => inNameOrder(names(a), names(b)));
  const known = branch !== null && choosable.includes(branch);
  return (
    <>
      <PanelHead title="Guy">
        {guys.length
          ? `${guys.length === 1 ? `One tie${on ? ', and it is on' : ''}` : `${guys.length} ties${on ? `, ${on} of them on` : ''}`}. Coils first, ties after: behind a tie nothing can be wound.`
          : 'No branch needs a tie: wire holds them all. Any branch can be tied all the same.'}
      </PanelHead>
      {plan.lostTies.map((said) => (
        <p key={said} className="mb-2 border-l-4 border-madder bg-base-100 px-3 py-2">
          {said}
        </p>
      ))}
      {without.map((u) => (
        <p key={u.branch} className="mb-2 text-quiet">
          {names(u.branch)}: {u.because.join(' ')}{' '}
          {u.branch === 'trunk'
            ? 'A trunk is moved by a device, below: a jack on a stay, a clamp, a frame on the pot, by someone who knows them.'
            : 'Left for the next session.'}
        </p>
      ))}
      <ol className={guys.length ? 'border-b border-rule' : ''}>
        {guys.map((g) => {
          const open = branch === g.branch;
          return (
            <li key={g.id} className={`border-t border-rule ${open ? 'bg-sheet' : ''}`}>
              <button
                type="button"
                aria-expanded={open}
                data-guy={g.id}
                className="w-full px-2 py-2 text-left"
                onClick={() => setBranch(open ? null : g.branch)}
              >
                <strong className="block">{names(g.branch)}</strong>
                to {sayAnchor(g.anchor, names)}, {sayForce(g.tension)}
                {g.on ? `, on since ${sayDate(g.on.since)}` : g.fixed ? ', settled' : ''}
                {!open && g.checks.some((c) => !c.ok) && (
                  <span className="block text-madder">
                    {g.checks
                      .filter((c) => !c.ok)
                      .map((c) => c.said)
                      .join(' ')}
                  </span>
                )}
              </button>
              {open && <OpenTie guy={g} />}
            </li>
          );
        })}
      </ol>
      {known && <Anchors key={branch} branch={branch} />}
      {!own.length && (
        <Pick
          label="Tie a branch"
          value={known ? branch : ''}
          options={[{ value: '', name: 'choose it here, or on the tree' }, ...choosable.map((id) => ({ value: id, name: names(id) }))]}
          onChange={(id) => setBranch(id || null)}
        />
      )}
      <AfterGuys />
      <Devices />
    </>
  );
}
