import { lazy, Suspense, useEffect, useMemo, useRef, useState } from 'react';
import { NavLink, Outlet } from 'react-router';
import { useKeys } from '../shared/keys';
import { treesWithKeptActs } from '../shared/waiting';
import { NoticeBoard } from './notice';
import { EnterPage } from '../access/EnterPage';
import { useAccess } from '../shared/queries';
import { FocusKeeper } from './FocusKeeper';
import { KeepPlace } from './KeepPlace';
import { StayPut } from './StayPut';
import { useTheme } from './theme';
import { WordTip } from '../words/WordTip';
import { Writing } from './Writing';
import { useListening } from './listen';
import { useWho } from '../shared/who';

const KeysSheet = lazy(() => import('./KeysSheet').then((m) => ({ default: m.KeysSheet })));

const WhoSheet = lazy(() => import('./WhoSheet').then((m) => ({ default: m.WhoSheet })));

const PLACES = [
  { to: '/bench', name: 'Bench' },
  { to: '/season', name: 'Season' },
  { to: '/walk', name: 'Walk' },
  { to: '/rack', name: 'Rack' },
];

export function Shell() {
  const [theme, setTheme] = useTheme();
  const box = useRef<HTMLDivElement>(null);
  const [keys, setKeys] = useState(false);
  const [asking, setAsking] = useState(false);
  const { name } = useWho();

  useKeys(
    'Everywhere',
    useMemo(() => [{ keys: '?', what: 'this sheet', run: () => setKeys((open) => !open) }], []),
  );
  useEffect(() => {
    const kept = treesWithKeptActs();
    if (kept.length) void import('../shared/desk-store').then((m) => m.resume(kept));
  }, []);
  const { data: access } = useAccess();
  useListening(access?.inside ?? false);
  if (access && !access.inside) return <EnterPage access={access} />;
  return (
    <NoticeBoard>
      <div className="flex h-full flex-col-reverse sm:flex-row">
        <nav className="print:hidden flex shrink-0 items-center border-t border-rule sm:w-[72px] sm:flex-col sm:border-r sm:border-t-0" aria-label="Places">
          <div className="hidden pb-4 pt-4 font-serif text-2xl font-semibold sm:block">ust</div>
          {PLACES.map((place) => (
            <NavLink
              key={place.to}
              to={place.to}
              className={({ isActive }) =>
                `flex h-12 w-full items-center justify-center border-t-4 text-[min(0.94rem,4.4vw)] sm:h-11 sm:text-[0.94rem] sm:border-l-4 sm:border-t-0 sm:pr-1 ${isActive ? 'border-copper font-bold' : 'border-transparent text-quiet hover:text-ink'}`
              }
            >
              {place.name}
            </NavLink>
          ))}
          <span className="sm:flex-1" />
          <button
            type="button"
            className="h-12 w-full border-t-4 border-transparent text-[min(0.94rem,4.4vw)] sm:text-[0.94rem] text-quiet hover:text-ink sm:h-10 sm:border-t-0"
            onClick={() => setTheme(theme === 'paper' ? 'lamp' : 'paper')}
            title={theme === 'paper' ? 'Work by lamplight' : 'Work by daylight'}
          >
            {theme === 'paper' ? 'Lamp' : 'Day'}
          </button>
          <button
            type="button"
            className="hidden min-h-10 w-full truncate px-1 text-[0.94rem] text-quiet hover:text-ink sm:block"
            onClick={() => setAsking(true)}
            title={name ? `${name} works here` : 'Say who works here'}
          >
            {name ?? 'Who?'}
          </button>
          <NavLink to="/phone" className="hidden h-10 w-full content-center text-center text-[0.94rem] text-quiet hover:text-ink sm:block">
            Phone
          </NavLink>
          <button type="button" className="hidden h-10 w-full text-[0.94rem] text-quiet hover:text-ink sm:block" onClick={() => setKeys(true)}>
            Keys
          </button>
        </nav>
        <div ref={box} className="min-h-0 min-w-0 flex-1 overflow-auto print:overflow-visible">
          <Outlet />
        </div>
      </div>
      <Writing />
      <FocusKeeper />
      <WordTip />
      <StayPut />
      <KeepPlace box={box} />
      <Suspense fallback={null}>
        {keys && <KeysSheet onClose={() => setKeys(false)} />}
        {asking && <WhoSheet onClose={() => setAsking(false)} />}
      </Suspense>
    </NoticeBoard>
  );
}
