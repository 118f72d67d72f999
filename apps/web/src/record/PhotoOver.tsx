import { useState } from 'react';
import { paths } from '@ustle/contract';
import { useAddress } from '../stages/address';

const START = { clear: 50, size: 100, right: 0, up: 0 };
const SLIDERS: { key: keyof typeof START; name: string; min: number; max: number }[] = [
  { key: 'clear', name: 'How much of the photo', min: 0, max: 100 },
  { key: 'size', name: 'Size', min: 30, max: 220 },
  { key: 'right', name: 'To the right', min: -60, max: 60 },
  { key: 'up', name: 'Up', min: -60, max: 60 },
];

/** A photo laid over the turntable at its bearing, to compare: its strength, size and place are set by hand. */
export function PhotoOver() {
  const { get, set } = useAddress();
  const photo = get('photo');
  const [at, setAt] = useState(START);
  if (!photo) return null;
  return (
    <>
      <img
        src={paths.photo(photo)}
        alt="The chosen photo, over the tree"
        className="pointer-events-none absolute inset-0 h-full w-full object-contain"
        style={{ opacity: at.clear / 100, transform: `translate(${at.right}%, ${-at.up}%) scale(${at.size / 100})` }}
      />
      <div className="absolute bottom-2 left-2 right-2 flex flex-wrap items-center gap-x-5 gap-y-1 border border-rule bg-sheet/95 px-3 py-2">
        {SLIDERS.map(({ key, name, min, max }) => (
          <label key={key} className="flex items-center gap-2">
            <span className="text-quiet">{name}</span>
            <input
              type="range"
              className="range range-xs w-28"
              min={min}
              max={max}
              value={at[key]}
              onChange={(event) => setAt({ ...at, [key]: Number(event.target.value) })}
            />
          </label>
        ))}
        <button type="button" className="btn btn-ghost btn-sm" onClick={() => set({ photo: null })}>
          Take it off
        </button>
      </div>
    </>
  );
}
