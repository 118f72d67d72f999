import { memo, useEffect, useRef, useState } from 'react';
import { NavLink, useLocation } from 'react-router';
import { STAGES } from './all';
import type { Stage } from './stage';
import { stemOf } from './stem';

const STEM = stemOf(STAGES.length);
const PATH = STEM.nodes.map(({ x, y }, i) => `${i ? 'L' : 'M'}${x} ${y}`).join('');

/** The stages in one row, where there is no room for the stem. */
export const StageRow = memo(function StageRow({ stage }: { stage: Stage }) {
  const { search } = useLocation();
  const row = useRef<HTMLElement>(null);
  const [hidden, setHidden] = useState({ before: false, after: false });
  const look = (): void => {
    const { scrollLeft, clientWidth, scrollWidth } = row.current!;
    setHidden({ before: scrollLeft > 4, after: scrollLeft + clientWidth < scrollWidth - 4 });
  };
  useEffect(() => {
    const show = (): void => {
      const here = row.current?.querySelector<HTMLElement>('[aria-current=page]');
      if (here) row.current!.scrollLeft = here.offsetLeft + here.offsetWidth / 2 - row.current!.clientWidth / 2;
      look();
    };
    show();
    // Larger letters make it longer.
    const watcher = new ResizeObserver(show);
    for (const of of row.current!.children) watcher.observe(of);
    return () => watcher.disconnect();
  }, [stage.key]);
  return (
    <nav
      ref={row}
      aria-label="Stages"
      className="relative flex w-full gap-1 overflow-x-auto pb-1 md:hidden"
      // More of them on a side is hinted at there.
      style={{
        maskImage: `linear-gradient(to right, ${hidden.before ? 'transparent, black 44px' : 'black'}, ${hidden.after ? 'black calc(100% - 44px), transparent' : 'black'})`,
      }}
      onScroll={look}
    >
      {STAGES.map((s) => (
        <NavLink
          key={s.key}
          to={{ pathname: `../${s.key}`, search }}
          relative="path"
          className={`flex h-11 shrink-0 grow basis-auto items-center justify-center border-b-4 px-1.5 ${s.key === stage.key ? 'border-copper font-bold' : 'border-transparent text-quiet'}`}
        >
          {s.name}
        </NavLink>
      ))}
    </nav>
  );
});

/** The stages as a growing stem with a node for each, filled as they are settled. */
export const StageStem = memo(function StageStem({ stage, settled }: { stage: Stage; settled: ReadonlySet<string> }) {
  const { search } = useLocation();
  return (
    <nav aria-label="Stages" className="relative hidden h-16 shrink-0 md:block" style={{ width: STEM.width }}>
      <svg className="absolute inset-0" width={STEM.width} height="64" aria-hidden="true">
        <path d={PATH} fill="none" stroke="var(--color-bark)" strokeWidth="2.5" strokeLinejoin="round" />
        {STAGES.map((s, i) => (
          <circle
            key={s.key}
            cx={STEM.nodes[i]!.x}
            cy={STEM.nodes[i]!.y}
            r={s.key === stage.key ? 7.5 : 5}
            fill={s.key === stage.key ? 'var(--color-copper)' : settled.has(s.key) ? 'var(--color-moss)' : 'var(--color-base-100)'}
            stroke={s.key === stage.key ? 'var(--color-copper)' : settled.has(s.key) ? 'var(--color-moss)' : 'var(--color-bark)'}
            strokeWidth="1.8"
          />
        ))}
      </svg>
      {STAGES.map((s, i) => (
        <NavLink
          key={s.key}
          to={{ pathname: `../${s.key}`, search }}
          relative="path"
          aria-label={`${s.name}${settled.has(s.key) ? ', settled' : ''}`}
          className={`absolute top-1 flex h-[58px] -translate-x-1/2 items-end justify-center text-[0.94rem] ${s.key === stage.key ? 'font-bold' : 'text-quiet hover:text-ink'}`}
          style={{ left: STEM.nodes[i]!.x, width: STEM.step }}
        >
          {s.name}
        </NavLink>
      ))}
    </nav>
  );
});
