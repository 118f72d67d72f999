import { lazy, Suspense, useEffect, type ComponentType } from 'react';
import { normaliseGreen } from '@ustle/core';
import { PanelHead, Quiet, Skeleton, Tabs } from '../../shared/parts';
import { count, percent } from '../../shared/say';
import { useWide } from '../../shared/use-wide';
import { oneOf, useAddress } from '../address';
import { useDesk } from '../desk';
import { useMeasure } from './kit';
import { BranchCard } from './BranchCard';
import { BranchEditor } from './BranchEditor';
import { BranchTable } from './BranchTable';
import { BringIn } from './BringIn';
import { ByClock, useByClock } from './ByClock';
import { Caliper } from './Caliper';
import { HEADS } from './columns';
import { FeaturesSheet, PotSheet, RootsSheet, TrunkSheet } from './sheets';
import { keepTyped } from './typed';
import { SHEETS, type Sheet } from './sheet-names';
import { WorthKnowing } from './WorthKnowing';

/** Green of all branches as typed, and a way to bring it down to the whole where it is more. */
function Green() {
  const { stored } = useDesk();
  const { tree } = stored;
  const { kept, measure } = useMeasure();
  // What was typed and not taken counts as it was typed.
  const typed = new Map(
    Object.entries(kept.typed)
      .filter(([field]) => field.endsWith('/green'))
      .map(([field, { text }]) => [field.slice(0, -'/green'.length), Number(text.replace(',', '.')) / 100] as const)
      .filter(([, green]) => green >= 0),
  );
  const branches = tree.branches.map((b) => ({ ...b, green: typed.get(b.id) ?? b.green }));
  const { sum, branches: scaled } = normaliseGreen({ ...tree, branches });
  if (sum <= 1.0005) return <span className="text-quiet">{percent(1 - sum)} of the green is left for the crown.</span>;
  const scale = async (): Promise<void> => {
    if (await measure({ branches: scaled })) for (const id of typed.keys()) keepTyped(stored.id, `${id}/green`, null);
  };
  return (
    <span className="text-ochre">
      Green adds up to {percent(sum)}. <Quiet onClick={() => void scale()}>scale all to the whole</Quiet>
    </span>
  );
}

function Branches() {
  const { stored, branch } = useDesk();
  const { tree } = stored;
  const wide = useWide();
  const [clock, setClock] = useByClock();
  const chosen = tree.branches.find((b) => b.id === branch);
  return (
    <>
      <div className="mb-2 flex flex-wrap items-center gap-3">
        <Caliper />
        <ByClock clock={clock} onClock={setClock} />
        <Green />
      </div>
      <WorthKnowing />
      {wide ? <BranchTable clock={clock} /> : <BranchCard clock={clock} />}
      {wide && chosen && <BranchEditor branch={chosen} />}
      {wide && (
        <details className="mt-4 text-quiet">
          <summary className="cursor-pointer">What the columns mean, and the keys</summary>
          <dl className="mt-2 grid grid-cols-[90px_1fr] gap-x-3">
            {HEADS.map(({ column, head, what }) => (
              <div key={column} className="contents">
                <dt>{head}</dt>
                <dd>{what}</dd>
              </div>
            ))}
          </dl>
          <p className="mt-2">
            Enter: down, and a new line at the end. With Alt and Shift: D as above, C another like it, M another on the other side, → onto the branch above, ←
            back, X take the line out. F9: the caliper. What is slanted and pale was not measured yet.
          </p>
        </details>
      )}
    </>
  );
}

// Only where there are photos.
const PhotographsSheet = lazy(() => import('./photographs/PhotographsSheet').then((m) => ({ default: m.PhotographsSheet })));

const BODIES: Record<Sheet, ComponentType> = {
  branches: Branches,
  trunk: TrunkSheet,
  roots: RootsSheet,
  features: FeaturesSheet,
  pot: PotSheet,
  photographs: PhotographsSheet,
  'bring in': BringIn,
};

export function MeasurePanel() {
  const { tree } = useDesk().stored;
  const { kept } = useMeasure();
  const { get, set } = useAddress();
  const sheet = oneOf(get('measures'), SHEETS, 'branches');
  const unsaved = Object.keys(kept.typed).length;
  useEffect(() => {
    if (!unsaved) return undefined;
    const hold = (event: BeforeUnloadEvent): void => event.preventDefault();
    window.addEventListener('beforeunload', hold);
    return () => window.removeEventListener('beforeunload', hold);
  }, [unsaved]);
  const Body = BODIES[sheet];
  return (
    <>
      <PanelHead title="Measure" aside={<span className="text-quiet">{count(tree.branches.length, 'branch', 'branches')}</span>} />
      {/* At the right edge they stay where they are when the panel makes room for photos. */}
      <div className="lg:ml-auto lg:max-w-[360px]">
        <Tabs
          label="Measure"
          sheets={SHEETS.map((key) => ({ key, name: key[0]!.toUpperCase() + key.slice(1) }))}
          open={sheet}
          onOpen={(to) => set({ measures: to === 'branches' ? null : to })}
        />
      </div>
      <Suspense fallback={<Skeleton lines={6} />}>
        <Body />
      </Suspense>
    </>
  );
}
