import { useState } from 'react';
import type { WalkStop } from '@ustle/contract';
import { LINE_FIELDS, type MarkStage } from '@ustle/core';
import { NumberField } from '../shared/NumberField';
import { Caution, Quiet } from '../shared/parts';
import { Press, useOncePer } from './press';

interface Props {
  stop: WalkStop;
  seen: MarkStage | null;
  give: (said: string, act: Record<string, unknown>) => void;
  onNext: () => void;
  onBack: (() => void) | null;
}

/** A tie or a device: let out a little, or taken off, and how far the wood went back. */
export function TieActs({ stop, seen, give, onNext, onBack }: Props) {
  const [twists, setTwists] = useState<number | null>(null);
  const [back, setBack] = useState<number | null>(null);
  const once = useOncePer(seen);
  const about = { kind: 'guyed', branch: stop.branch, guy: stop.of };
  return (
    <div className="space-y-3 border-t border-rule pt-3" role="group" aria-label={`The ${stop.what}`}>
      {seen && <p className="text-lg">Noted: {seen}. It presses too hard where it is.</p>}
      <NumberField label="Let out by" rule={LINE_FIELDS.guyed.twists} unit="twists" value={twists} onValue={setTwists} open />
      <Press
        once={once}
        className="btn btn-primary min-h-14 w-full text-lg"
        onPress={() => {
          give('let out a little', { ...about, done: 'loosened', ...(twists ? { twists } : {}) });
          onNext();
        }}
      >
        Let out a little
      </Press>
      <div className="space-y-3 border-t border-rule pt-4">
        <NumberField label="It went back by" rule={LINE_FIELDS.guyed.backMm} value={back} onValue={setBack} open />
        <Press
          once={once}
          className="btn btn-outline btn-primary min-h-14 w-full text-lg"
          onPress={() => {
            give('taken off', { ...about, done: 'removed', ...(back === null ? {} : { backMm: back }) });
            onNext();
          }}
        >
          It is off
        </Press>
        <Caution>It is under tension: stay out of its line, and let it out slowly.</Caution>
      </div>
      {seen && (
        <Press once={once} className="btn btn-ghost min-h-12 w-full" onPress={onNext}>
          Later: it stays as it is
        </Press>
      )}
      {onBack && <Quiet onClick={onBack}>back to the look</Quiet>}
    </div>
  );
}
