import { useState } from 'react';
import { wrapDeg, type View } from '@ustle/core';
import { Turntable, type TurntableProps } from '../../turntable/Turntable';

interface Props {
  views: readonly { name: string; view: View }[];
  onPick: (view: View) => void;
  scene: Pick<TurntableProps, 'tree' | 'gone' | 'coils' | 'selected' | 'onSelect'>;
}

/** Two to four fronts beside each other, each with its own planting angle, turning together or apart. */
export function SideBySide({ views, onPick, scene }: Props) {
  const [together, setTogether] = useState(true);
  const [turned, setTurned] = useState<number[]>([]);
  const turnOf = (i: number): number => turned[together ? 0 : i] ?? 0;
  const onBearing = (i: number, from: number, to: number): void =>
    setTurned((before) => {
      const next = together ? [to - from] : views.map((_, k) => before[k] ?? 0);
      if (!together) next[i] = to - from;
      return next;
    });
  return (
    <div className="flex h-full flex-col">
      <label className="flex items-center gap-2 border-b border-rule px-4 py-1.5">
        <input type="checkbox" className="checkbox checkbox-sm" checked={together} onChange={(event) => setTogether(event.target.checked)} />
        turn them together
      </label>
      <div className={`grid min-h-0 flex-1 ${views.length > 2 ? 'grid-cols-2 grid-rows-2' : 'grid-cols-2'}`}>
        {views.map(({ name, view }, i) => (
          <figure key={`${name}${view.bearing}`} className="relative min-h-0 min-w-0 border-b border-r border-rule">
            <Turntable
              {...scene}
              small
              bearing={wrapDeg(Math.round(view.bearing + turnOf(i)))}
              onBearing={(to) => onBearing(i, view.bearing, to)}
              view={view}
            />
            <figcaption className="absolute left-3 top-2 flex items-center gap-2">
              <button type="button" className="btn btn-outline btn-primary btn-sm bg-base-100" onClick={() => onPick(view)}>
                {name}
              </button>
              <span className="text-[14px] text-quiet">
                {view.bearing}°{view.pitch || view.roll ? `, tilt ${view.pitch}/${view.roll}°` : ''}
              </span>
            </figcaption>
          </figure>
        ))}
      </div>
    </div>
  );
}
