import { TRUNK_WAYS, type TrunkOption, type TrunkWay } from '@ustle/core';
import { BeadGlyph } from '../../shared/BeadGlyph';
import { Caution, Skeleton } from '../../shared/parts';
import { percent, sayDate } from '../../shared/say';
import { AgreeTo } from '../AgreeTo';
import { useDesk } from '../desk';
import { usePose } from './kit';
import { choosing, sayYears } from './trunk-pictures';

function Option({
  option: o,
  chosen,
  onChoose,
}: {
  option: TrunkOption;
  chosen: boolean;
  onChoose: (way: TrunkWay | null, device: TrunkOption['device']) => void;
}) {
  const bend = o.kind === 'bend';
  return (
    <li className={`border-t border-rule px-2 py-2 ${chosen ? 'bg-base-100' : ''}`}>
      <div className="flex items-center gap-2">
        {o.band ? <BeadGlyph band={o.band} /> : <span aria-hidden="true" className="mx-[6px] h-[3px] w-[14px] bg-madder" />}
        <strong className="flex-1">{o.name}</strong>
        {bend && o.stages !== null && (
          <button
            type="button"
            aria-pressed={chosen}
            className={`btn btn-sm ${chosen ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
            onClick={() => (chosen ? onChoose(null, null) : onChoose(o.key as TrunkWay, o.device))}
          >
            {chosen ? 'Chosen' : 'Choose'}
          </button>
        )}
      </div>
      <dl className="grid grid-cols-4 gap-x-2 text-[0.94rem]">
        {(
          [
            ['height left', `${o.height.toFixed(0)} mm`, percent(o.heightShare)],
            ['holds in', o.band === 'no' ? '–' : sayYears(o.years), bend ? 'estimate' : 'taper, wound'],
            ['wound', o.wound ? `${o.wound.toFixed(0)} mm` : 'none', ''],
            [
              'risk',
              bend ? (o.band === 'no' ? 'too much' : o.band!) : 'of rot',
              bend && o.stages !== null ? (o.stages === 1 ? 'in one stage' : `${o.stages} stages`) : '',
            ],
          ] as const
        ).map(([name, value, note]) => (
          <div key={name}>
            <dt className="text-[0.94rem] text-quiet">{name}</dt>
            <dd>{value}</dd>
            <dd className="text-[0.94rem] text-quiet">{note}</dd>
          </div>
        ))}
      </dl>
      {o.because.map((b) => (
        <p key={b} className="mt-1 text-quiet">
          {b}
        </p>
      ))}
      {chosen && o.dates.length > 0 && <p className="mt-1">Sessions: {o.dates.map(sayDate).join(', ')}.</p>}
    </li>
  );
}

/** A tall trunk: bent, in the direction it leans, or cut back to a new leader. */
export function TrunkSheet() {
  const { tree, act } = useDesk();
  const { options, comparing, setComparing } = usePose();
  if (!options) return <Skeleton lines={8} />;
  if (!options.length) return <p className="text-quiet">This trunk falls already: its growing end is led like a branch, with guys.</p>;
  const way = TRUNK_WAYS.find((w) => w === tree.plan.trunkWay) ?? null;
  return (
    <>
      <p className="mb-2 text-quiet">Too tall? Bend it and use all of it, or cut it back and grow a new leader. Years and wounds are estimates.</p>
      {options.filter((o) => o.then).length > 1 && (
        <button type="button" aria-pressed={comparing} className="btn btn-outline btn-sm mb-2 font-normal" onClick={() => setComparing(!comparing)}>
          {comparing ? 'One picture again' : 'Look at them beside each other'}
        </button>
      )}
      <ul className="mb-3 border-b border-rule">
        {options.map((o) => (
          <Option key={o.key} option={o} chosen={o.key === way} onChoose={(chosen, device) => void act(choosing(chosen, device))} />
        ))}
      </ul>
      <AgreeTo deeds={['trunk']} />
      <Caution>
        Jacks, clamps and frames on a trunk hold much energy: stay out of their line, release them slowly. The tree must be fast in its pot before any heavy
        pull. Wedge cuts and splitting are for somebody who knows them.
      </Caution>
    </>
  );
}
