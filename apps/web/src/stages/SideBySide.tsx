import { useState } from 'react';
import { wrapDeg, type Tree, type View } from '@ustle/core';
import { Turntable, type Company, type TurntableProps } from '../turntable/Turntable';

/** One of some pictures beside each other: a view of the tree, and the tree as it would be then. */
export interface Picture {
  name: string;
  note: string;
  view: View;
  after: Tree | null;
  /** Its lines, where they are bent. */
  bent?: TurntableProps['bent'];
  /** Words beside branches. */
  labels?: TurntableProps['labels'];
  onPick: () => void;
}

const NONE: readonly never[] = [];

interface Props {
  pictures: readonly Picture[];
  scene: Pick<TurntableProps, 'tree' | 'coils' | 'ties' | 'selected' | 'onSelect'>;
}

/** Two to four pictures beside each other, each with its own planting angle, turning together or apart. */
export function SideBySide({ pictures, scene }: Props) {
  const [together, setTogether] = useState(true);
  const [company] = useState<Company>(() => new Set());
  const [turned, setTurned] = useState<number[]>([]);
  const turnOf = (i: number): number => turned[together ? 0 : i] ?? 0;
  const onBearing = (i: number, from: number, to: number): void =>
    setTurned((before) => {
      const next = together ? [to - from] : pictures.map((_, k) => before[k] ?? 0);
      if (!together) next[i] = to - from;
      return next;
    });
  return (
    <div className="flex h-full flex-col">
      <label className="flex items-center gap-2 border-b border-rule px-4 py-1.5">
        <input type="checkbox" className="checkbox checkbox-sm" checked={together} onChange={(event) => setTogether(event.target.checked)} />
        turn them together
      </label>
      <div className={`grid min-h-0 flex-1 ${pictures.length > 2 ? 'grid-cols-2 grid-rows-2' : 'grid-cols-2'}`}>
        {pictures.map(({ name, note, view, after, bent = null, labels = NONE, onPick }, i) => (
          <figure key={`${name}${view.bearing}`} className="relative min-h-0 min-w-0 border-b border-r border-rule">
            <Turntable
              {...scene}
              small
              after={after}
              bent={bent}
              labels={labels}
              {...(together ? { company } : {})}
              bearing={wrapDeg(Math.round(view.bearing + turnOf(i)))}
              onBearing={(to) => onBearing(i, view.bearing, to)}
              view={view}
            />
            <figcaption className="absolute left-3 right-3 top-2 flex flex-wrap items-center gap-x-2">
              <button type="button" className="btn btn-outline btn-primary btn-sm bg-base-100" onClick={onPick}>
                {name}
              </button>
              <span className="bg-base-100/85 px-1 text-[0.94rem] text-quiet">{note}</span>
            </figcaption>
          </figure>
        ))}
      </div>
    </div>
  );
}
