import {
  DEVICE,
  DEVICE_WORDS,
  forceAt,
  movedBy,
  nextStage,
  type AnchorRef,
  type Device,
  type FaultyDevice,
  type LineOf,
  type PlanDevice,
  sayForce,
} from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { Caution, Facts, Pick, Quiet } from '../../shared/parts';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { useKit } from './kit';
import { Checks } from './Checks';
import { DrawIt } from './DrawIt';
import { OnTree } from './OnTree';
import { BANDS, sayAnchor, sayMarks, sayStrain } from './words';

const RULES = DEVICE.properties;
const RIM_STEP = 30;

/** One device, opened: where it acts and by how much, what that asks of the wood, and what is done with it. */
export function OpenDevice({ of }: { of: PlanDevice | FaultyDevice }) {
  const { act } = useDesk();
  const { device } = of;
  const { id, kind, ...rest } = device;
  const change = (over: Partial<Omit<Device, 'id' | 'kind'>>): void => void act({ ...rest, ...over, kind: 'device', device: id, what: kind });
  const found = 'fault' in of ? null : of;
  return (
    <div className="space-y-4 px-2 pb-3">
      <p>{DEVICE_WORDS[kind].does}</p>
      {'fault' in of && <p className="text-madder">{of.fault}</p>}
      {!found?.on && <Where device={device} onChange={change} />}
      {found && <Worked found={found} />}
      {!found?.on && <Quiet onClick={() => void act({ kind: 'drop-device', device: id })}>leave it out</Quiet>}
    </div>
  );
}

/** Where a device acts, and by how much. */
function Where({ device, onChange }: { device: Device; onChange: (over: Partial<Omit<Device, 'id' | 'kind'>>) => void }) {
  const { tree, names } = useDesk();
  const { branch, at, other, anchor, bearing, span, by, pitch } = device;
  const woods = ['trunk', ...tree.branches.map((b) => b.id)].filter((id) => id !== branch);
  const anchors: AnchorRef[] = [
    ...(tree.pot.holes ?? []).map((_, index) => ({ kind: 'pot-hole', index })),
    ...tree.roots.map((_, index) => ({ kind: 'root', index })),
    ...Array.from({ length: 360 / RIM_STEP }, (_, i) => ({ kind: 'pot-rim', bearing: i * RIM_STEP })),
  ];
  const own = anchor && !anchors.some((a) => JSON.stringify(a) === JSON.stringify(anchor)) ? [anchor, ...anchors] : anchors;
  return (
    <div className="space-y-3">
      <NumberField label={`On ${names(branch)}, at`} rule={RULES.at} value={at} onValue={(mm) => mm !== null && onChange({ at: mm })} unit="mm" inline />
      {other && (
        <>
          <Pick
            label="Its other end"
            value={other.branch}
            options={woods.map((id) => ({ value: id, name: names(id) }))}
            onChange={(id) => onChange({ other: { branch: id, at: other.at } })}
          />
          <NumberField
            label="Its other end, at"
            rule={RULES.at}
            value={other.at}
            onValue={(mm) => mm !== null && onChange({ other: { branch: other.branch, at: mm } })}
            unit="mm"
            inline
          />
        </>
      )}
      {anchor && (
        <Pick
          label={device.kind === 'prop' ? 'It stands on' : 'It goes to'}
          value={JSON.stringify(anchor)}
          options={own.map((a) => ({ value: JSON.stringify(a), name: sayAnchor(a, names) }))}
          onChange={(a) => onChange({ anchor: JSON.parse(a) as AnchorRef })}
        />
      )}
      {bearing !== undefined && (
        <NumberField
          label={device.kind === 'clamp' ? 'Its screw presses towards' : 'It draws towards'}
          rule={RULES.bearing}
          value={bearing}
          onValue={(deg) => deg !== null && onChange({ bearing: deg })}
          unit="°"
          inline
        />
      )}
      {span !== undefined && (
        <NumberField label="From hook to hook" rule={RULES.span} value={span} onValue={(mm) => mm !== null && onChange({ span: mm })} unit="mm" inline />
      )}
      <NumberField label="It moves the wood by" rule={RULES.by} value={by} onValue={(mm) => mm !== null && onChange({ by: mm })} unit="mm" inline />
      {pitch !== undefined && (
        <NumberField label="Travel for each turn" rule={RULES.pitch} value={pitch} onValue={(mm) => mm !== null && onChange({ pitch: mm })} unit="mm" inline />
      )}
    </div>
  );
}

/** What the record keeps of a stage that is made with so many turns: how far the wood was moved, what holds it, and when the next may be. */
function madeBy(found: PlanDevice, twists: number | undefined): Pick<LineOf<'guyed'>, 'tension' | 'bends' | 'other' | 'next'> {
  const stage = nextStage(found);
  if (!stage) return {};
  const share = found.turns && twists !== undefined ? Math.min(1, ((found.on?.turns ?? 0) + twists) / found.turns) : stage.share;
  return { tension: forceAt(found, share), ...movedBy(found, share), ...(stage.next ? { next: stage.next } : {}) };
}

/** What a device asks of the wood, and what is done with it. */
function Worked({ found }: { found: PlanDevice }) {
  const { act, names, today: now } = useDesk();
  const { set, turned, setTurned } = useKit();
  const { id, device, stages, turns } = found;
  const stage = nextStage(found);
  const fails = found.checks.some((c) => !c.ok);
  const facts: [string, string][] = [
    ['Holds with', `about ${sayForce(found.force)}${stage && stage.share < 1 ? `, ${sayForce(forceAt(found, stage.share))} after the next stage` : ''}`],
    [
      'Length',
      `${found.length.toFixed(0)} mm${found.stick === null ? '' : `, a hardwood stick of ${Math.max(3, Math.ceil(found.stick))} mm or a bar as stiff`}`,
    ],
    ...(turns === null ? [] : ([['Turns', `${turns.toFixed(1)} in all${stage?.next ? `, ${stage.turns} in the next stage` : ''}`]] as [string, string][])),
    ['Cushions', `${found.cushion} mm along the wood`],
    ...found.moved.map((m): [string, string] => [
      names(m.branch),
      `moves ${m.by.toFixed(1)} mm; strain ${(100 * m.strain).toFixed(1)}% at ${m.strainAt.toFixed(0)} mm, where it is ${m.diameter.toFixed(0)} mm thick. ${BANDS[m.band]}`,
    ]),
  ];
  return (
    <>
      {stages === null && <p>More than one season: as far as it goes now, the rest in another year.</p>}
      {stages !== null && stages > 1 && (
        <p>
          In {stages} stages, {found.rest} of rest between them{found.dates.length ? `: ${found.dates.map(sayDate).join(', ')}` : ''}.
        </p>
      )}
      {!found.on && (
        <DrawIt label="Set it, from nothing to full" share={turned} onShare={setTurned} said={set && `${sayForce(set.force)}, ${sayStrain(set.worst)}`} />
      )}
      <Facts rows={facts} />
      <Checks checks={found.checks} />
      <p className="text-quiet">{found.marks}</p>
      <Caution>{found.danger}</Caution>
      <OnTree
        key={`${id}${found.on?.turns ?? ''}`}
        on={
          found.on && {
            head: `On since ${sayDate(found.on.since)}`,
            told: `${found.on.turns ? `${found.on.turns.toFixed(1)} turns in it. ` : ''}Look at where it presses by ${sayDate(found.on.look)}. ${sayMarks(found.on.marks, now)}`,
          }
        }
        words={{ turns: 'Turns', shorter: 'Turned on', back: 'Let back a little', put: 'It is set up' }}
        turns={stage?.turns ?? 0}
        goesBack
        against={!found.on && fails ? 'It is not set up like this: a check speaks against it. Change its place or its travel.' : null}
        onPut={({ on, moved }) => void act({ kind: 'set-up', device: id, on, ...madeBy(found, moved.twists), ...moved })}
        onDone={(done, { on, moved, bark }) =>
          void act({
            kind: 'guyed',
            on,
            branch: device.branch,
            guy: id,
            device: device.kind,
            done,
            ...(done === 'twisted' ? madeBy(found, moved.twists) : {}),
            ...(done === 'looked' ? { bark } : moved),
          })
        }
        onOff={({ on, backMm }) => void act({ kind: 'take-down', device: id, on, ...(backMm === undefined ? {} : { backMm }) })}
      />
    </>
  );
}
