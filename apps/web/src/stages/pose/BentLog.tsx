import { useState } from 'react';
import { LINE_FIELDS, ownWay, type Crack, type PlanPose, type Sound } from '@ustle/core';
import { NumberField } from '../../shared/NumberField';
import { Choice } from '../../shared/parts';
import type { NumberRule } from '../../shared/numbers';
import { sayDate } from '../../shared/say';
import { useDesk } from '../desk';
import { CRACKS, deg, SOUNDS } from './words';

const { bentDeg: ANGLE, stage: STAGE } = LINE_FIELDS.bent;

/** Bending at the tree: how far it came, what was heard and seen, and what that means at once. */
export function BentLog({ id, pose }: { id: string; pose: PlanPose }) {
  const { tree, act } = useDesk();
  const main = pose.bends[0];
  const [stage, setStage] = useState((pose.bending?.done ?? 0) + 1);
  const [angle, setAngle] = useState<number | null>(null);
  const [sound, setSound] = useState<Sound>('none');
  const [crack, setCrack] = useState<Crack>('none');
  if (!main) return null;
  const whole = main.handDeg ?? main.made + main.angle;
  const wanted = Math.round(whole * Math.min(1, stage / (main.stages ?? 1)));
  const means = crack !== 'none' ? CRACKS.find((c) => c.value === crack)!.means : SOUNDS.find((s) => s.value === sound)!.means;
  const save = async (): Promise<void> => {
    const stored = await act({
      kind: 'bent',
      branch: id,
      at: main.at,
      toward: ownWay(tree, main.toward),
      stage,
      bentDeg: angle ?? wanted,
      targetDeg: Math.round((main.made + main.angle) * 10) / 10,
      over: main.length,
      sound,
      crack,
    });
    if (!stored) return;
    setStage(stage + 1);
    setAngle(null);
    setSound('none');
    setCrack('none');
  };
  return (
    <details open={pose.bending !== null} className="border-t border-rule pt-2">
      <summary className="cursor-pointer">
        {pose.bending
          ? `Bent: ${pose.bending.done} of ${main.stages ?? '?'} stages${pose.bending.next ? `, next from ${sayDate(pose.bending.next)}` : ', no further'}`
          : 'Note what was bent'}
      </summary>
      {pose.bending?.told.map((t) => (
        <p key={t} className="mt-1 border-l-4 border-madder bg-sheet px-3 py-1">
          {t}
        </p>
      ))}
      <div className="mt-2 space-y-2">
        <div className="flex flex-wrap gap-x-4 gap-y-2">
          <NumberField
            label="Stage"
            rule={STAGE as unknown as NumberRule}
            unit={`of ${main.stages ?? '?'}`}
            value={stage}
            onValue={(v) => v !== null && setStage(v)}
          />
          <NumberField label="Bent to" rule={ANGLE as unknown as NumberRule} unit={`° of ${deg(whole)}`} value={angle ?? wanted} onValue={setAngle} />
        </div>
        <Choice label="Heard" value={sound} options={SOUNDS} onChange={setSound} />
        <Choice label="A crack" value={crack} options={CRACKS} onChange={setCrack} />
        <p aria-live="polite" className={sound === 'fibre' || crack !== 'none' ? 'font-bold text-madder' : 'text-quiet'}>
          {means}
        </p>
        <button type="button" className="btn btn-primary btn-sm" onClick={() => void save()}>
          Note it
        </button>
      </div>
    </details>
  );
}
