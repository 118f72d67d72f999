import { useState } from 'react';
import { DEVICE_WORDS, freeDeviceId, type deviceFor, type DeviceKind, sayForce } from '@ustle/core';
import { useAnswer, worker } from '../../jobs/use-planner';
import { Pick } from '../../shared/parts';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { useAddress } from '../address';
import { usePlacedAfter } from '../posed-lines';
import { OpenDevice } from './OpenDevice';

const upper = (word: string): string => word[0]!.toUpperCase() + word.slice(1);

/** Spreaders, props, jacks, clamps and frames: those of the plan, and a further one on the branch that is chosen, or the trunk. */
export function Devices() {
  const { tree, plan, branch, names, act } = useDesk();
  const placed = usePlacedAfter(tree);
  const [asked, setKind] = useState<DeviceKind>('spreader');
  const [none, setNone] = useState<{ of: string; why: string } | null>(null);
  const { get, set } = useAddress();
  const open = get('device');
  const devices = plan?.devices ?? [];
  const on = branch && placed.byId.has(branch) ? branch : 'trunk';
  const poses = plan?.poses;
  const kinds = useAnswer(async () => (poses ? (worker('weighing').deviceKinds(tree, poses, on) as Promise<DeviceKind[]>) : null), [tree, poses, on]);
  const kind = kinds && !kinds.includes(asked) ? kinds[0]! : asked;
  const here = `${kind} ${on}`;
  const planIt = async (): Promise<void> => {
    const found = (await worker('weighing').deviceFor(tree, poses!, kind, on)) as ReturnType<typeof deviceFor>;
    setNone('why' in found ? { of: here, why: found.why } : null);
    if ('why' in found) return;
    const { kind: what, ...usual } = found;
    const device = freeDeviceId(tree.plan.devices ?? []);
    set({ device });
    await act({ kind: 'device', device, what, ...usual });
  };
  return (
    <section className="mt-6 space-y-3">
      <h3 className="text-lg">Devices</h3>
      {devices.length > 0 && (
        <ol className="border-b border-rule">
          {devices.map((d) => {
            const isOpen = open === d.id;
            return (
              <li key={d.id} className={`border-t border-rule ${isOpen ? 'bg-sheet' : ''}`}>
                <button
                  type="button"
                  aria-expanded={isOpen}
                  data-device={d.id}
                  className="w-full px-2 py-2 text-left"
                  onClick={() => set({ device: isOpen ? null : d.id })}
                >
                  <strong className="block">{upper(DEVICE_WORDS[d.device.kind].name)}</strong>
                  {names(d.device.branch)}
                  {d.device.other ? ` and ${names(d.device.other.branch)}` : ''}
                  {'fault' in d ? '' : `, ${sayForce(d.on?.force ?? d.force)}${d.on ? `, on since ${sayDate(d.on.since)}` : ''}`}
                  {'fault' in d && <span className="block text-madder">{d.fault}</span>}
                </button>
                {isOpen && <OpenDevice of={d} />}
              </li>
            );
          })}
        </ol>
      )}
      <p className="text-quiet">
        What no coil and no tie would do. {upper(DEVICE_WORDS[kind].name)}: {DEVICE_WORDS[kind].does}
      </p>
      <Pick label="A device" value={kind} options={(kinds ?? [kind]).map((value) => ({ value, name: DEVICE_WORDS[value].name }))} onChange={setKind} />
      <button type="button" className="btn btn-outline border-rule font-normal" disabled={!kinds} onClick={() => void planIt()}>
        Plan it on {names(on)}
      </button>
      <p role="status" className="text-madder">
        {none?.of === here && `No ${DEVICE_WORDS[kind].name} there bears all its checks. ${none.why}`}
      </p>
    </section>
  );
}
