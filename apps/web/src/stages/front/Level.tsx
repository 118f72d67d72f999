import { useDrag } from '@use-gesture/react';
import { useEffect, useRef, type KeyboardEvent } from 'react';
import { clamp } from '@ustle/core';

const MOST_DEG = 20;
const RADIUS = 44;

const say = (pitch: number, roll: number): string => {
  const parts = [pitch ? `${Math.abs(pitch)}° ${pitch > 0 ? 'to you' : 'away'}` : '', roll ? `${Math.abs(roll)}° ${roll > 0 ? 'right' : 'left'}` : ''].filter(
    Boolean,
  );
  return parts.length ? parts.join(', ') : 'level';
};

interface Props {
  pitch: number;
  roll: number;
  /** Height of the wedge under the pot, mm. */
  wedge: number | null;
  onTilt: (pitch: number, roll: number) => void;
}

/** A round bubble glass: drag the bubble, or use the arrow keys, and the tree leans. Home sets it level. */
export function Level({ pitch, roll, wedge, onTilt }: Props) {
  const glass = useRef<SVGSVGElement>(null);
  // The address follows with a delay; keys held down are ahead of it.
  const now = useRef({ pitch, roll });
  const ahead = useRef(false);
  useEffect(() => {
    if (ahead.current && (pitch !== now.current.pitch || roll !== now.current.roll)) return;
    ahead.current = false;
    now.current = { pitch, roll };
  }, [pitch, roll]);
  const lean = (toPitch: number, toRoll: number): void => {
    now.current = { pitch: limit(toPitch), roll: limit(toRoll) };
    ahead.current = true;
    onTilt(now.current.pitch, now.current.roll);
  };
  const limit = (deg: number): number => clamp(Math.round(deg), -MOST_DEG, MOST_DEG) + 0;
  const drag = useDrag(
    ({ xy: [clientX, clientY], event }) => {
      event.stopPropagation();
      const { left, top, width } = glass.current!.getBoundingClientRect();
      const scale = (2 * RADIUS + 8) / width;
      const x = ((clientX - left) * scale - RADIUS - 4) / (RADIUS - 10);
      const y = ((clientY - top) * scale - RADIUS - 4) / (RADIUS - 10);
      lean(y * MOST_DEG, x * MOST_DEG);
    },
    { pointer: { capture: true, keys: false } },
  );
  const onKeyDown = (event: KeyboardEvent): void => {
    const by = { ArrowUp: [-1, 0], ArrowDown: [1, 0], ArrowLeft: [0, -1], ArrowRight: [0, 1], Home: [-now.current.pitch, -now.current.roll] }[event.key];
    if (!by) return;
    event.preventDefault();
    lean(now.current.pitch + by[0]!, now.current.roll + by[1]!);
  };
  return (
    <div className="absolute left-6 top-11 w-32">
      <svg
        ref={glass}
        viewBox={`0 0 ${2 * RADIUS + 8} ${2 * RADIUS + 8}`}
        className="h-24 w-24 cursor-move touch-none"
        role="slider"
        tabIndex={0}
        aria-label="Planting angle"
        aria-valuetext={say(pitch, roll)}
        aria-valuemin={-MOST_DEG}
        aria-valuemax={MOST_DEG}
        aria-valuenow={pitch}
        {...drag()}
        onKeyDown={onKeyDown}
      >
        <g transform={`translate(${RADIUS + 4} ${RADIUS + 4})`}>
          <circle r={RADIUS} fill="var(--color-base-200)" stroke="var(--color-rule)" strokeWidth="1.5" />
          <path d={`M${-RADIUS} 0H${RADIUS}M0 ${-RADIUS}V${RADIUS}`} stroke="var(--color-rule)" />
          <circle r="13" fill="none" stroke="var(--color-indigo)" strokeDasharray="3 3" />
          <circle cx={(roll / MOST_DEG) * (RADIUS - 10)} cy={(pitch / MOST_DEG) * (RADIUS - 10)} r="9" fill="var(--color-indigo)" opacity="0.78" />
        </g>
      </svg>
      <p className="leading-5 text-quiet">
        {say(pitch, roll)}
        {wedge !== null && wedge > 0.5 && <span className="block text-indigo">wedge {wedge.toFixed(0)} mm</span>}
      </p>
    </div>
  );
}
