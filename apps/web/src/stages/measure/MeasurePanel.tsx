import { useState } from 'react';
import { crooked, normaliseGreen, VIGOURS, offsetOf, stationOf, type Feature, type OffsetStation, type Root } from '@ustle/core';
import { Choice, PanelHead, Tabs } from '../../shared/parts';
import { percent } from '../../shared/say';
import { useDesk } from '../tree-context';
import { BranchTable } from './BranchTable';
import { BringIn } from './BringIn';
import { Caliper } from './Caliper';
import { PartTable } from './PartTable';

const SHEETS = ['Branches', 'Trunk', 'Roots', 'Features', 'Pot', 'Bring in'] as const;
type Sheet = (typeof SHEETS)[number];

const CLOCK_KEY = 'ustle-clock';

export function MeasurePanel() {
  const { branch, setBranch, bearing, drafting } = useDesk();
  const { tree, edit, commit } = drafting;
  const [sheet, setSheet] = useState<Sheet>('Branches');
  const [clock, setClock] = useState(() => localStorage.getItem(CLOCK_KEY) === '1');
  const green = normaliseGreen(tree).sum;
  const chosen = tree.branches.find((b) => b.id === branch);
  const changeClock = (on: boolean): void => {
    localStorage.setItem(CLOCK_KEY, on ? '1' : '0');
    setClock(on);
  };
  return (
    <>
      <PanelHead title="Measure" aside={<span className="text-quiet">{tree.branches.length} branches</span>} />
      <Tabs sheets={SHEETS.map((key) => ({ key, name: key }))} open={sheet} onOpen={setSheet} />
      {sheet === 'Branches' && (
        <>
          <div className="mb-2 flex flex-wrap items-center gap-3">
            <Caliper />
            <label className="flex items-center gap-2">
              <input type="checkbox" className="checkbox checkbox-sm" checked={clock} onChange={(event) => changeClock(event.target.checked)} />
              bearings by the clock
            </label>
            <span className={green > 1.0005 ? 'text-ochre' : 'text-quiet'}>
              {green > 1.0005
                ? `Green adds up to ${percent(green)}: the shares are scaled to the whole when stored.`
                : `${percent(1 - green)} of the green is left for the apex.`}
            </span>
          </div>
          <BranchTable
            tree={tree}
            clock={clock}
            seenFrom={bearing}
            selected={branch}
            onSelect={setBranch}
            onEdit={(branches) => edit({ branches })}
            onLeave={commit}
          />
          {chosen && (
            <p className="mt-3">
              {chosen.path ? (
                `${chosen.id} is crooked: drag its points on the tree.`
              ) : (
                <button
                  type="button"
                  className="btn btn-outline btn-sm border-rule font-normal"
                  onClick={() => {
                    edit({ branches: tree.branches.map((b) => (b.id === chosen.id ? crooked(b) : b)) });
                    commit();
                  }}
                >
                  {chosen.id} is crooked
                </button>
              )}
            </p>
          )}
          <p className="mt-3 text-[14px] text-quiet">
            Enter: down, and a new line at the end. Ctrl D: as above. Ctrl Enter: copy the line. Ctrl M: mirror it. Ctrl ] and Ctrl [: onto the branch above,
            and back. Ctrl Backspace: take the line out.
          </p>
        </>
      )}
      {sheet === 'Trunk' && (
        <PartTable<OffsetStation>
          name="station"
          rows={tree.trunk.map(offsetOf)}
          least={2}
          onEdit={(rows) => edit({ trunk: rows.map(stationOf) })}
          onLeave={commit}
          fields={[
            { key: 'z', head: 'height', unit: 'mm' },
            { key: 'offset', head: 'aside', unit: 'mm' },
            { key: 'bearing', head: 'towards', unit: '°' },
            { key: 'd', head: 'thickness', unit: 'mm' },
          ]}
          fresh={(last) => ({
            offset: last?.offset ?? 0,
            bearing: last?.bearing ?? 0,
            z: (last?.z ?? 0) + 60,
            d: Math.max(3, Math.round((last?.d ?? 40) * 8) / 10),
          })}
        />
      )}
      {sheet === 'Roots' && (
        <PartTable<Root>
          name="root"
          rows={tree.roots}
          onEdit={(roots) => edit({ roots })}
          onLeave={commit}
          fields={[
            { key: 'bearing', head: 'to', unit: '°' },
            { key: 'length', head: 'length', unit: 'mm' },
            { key: 'd', head: 'thickness', unit: 'mm' },
          ]}
          fresh={(last) => ({ bearing: ((last?.bearing ?? -60) + 60) % 360, length: last?.length ?? 50, d: last?.d ?? 14 })}
        />
      )}
      {sheet === 'Features' && (
        <PartTable<Feature & { from: number; to: number }>
          name="feature"
          rows={tree.features.map((f) => ({ ...f, from: f.z[0], to: f.z[1] }))}
          onLeave={commit}
          onEdit={(rows) => edit({ features: rows.map(({ from, to, ...f }) => ({ ...f, z: [from, to] })) })}
          fields={[
            { key: 'bearing', head: 'faces', unit: '°' },
            { key: 'from', head: 'from', unit: 'mm' },
            { key: 'to', head: 'to', unit: 'mm' },
            { key: 'weight', head: 'weight', unit: '0–10' },
          ]}
          fresh={() => ({ kind: 'shari', bearing: Math.round(bearing), z: [20, 120], from: 20, to: 120, good: true, weight: 1 })}
          extra={(row, put) => (
            <span className="flex items-center gap-1">
              <input
                className="h-9 w-24 bg-transparent focus:bg-base-100"
                aria-label="kind of feature"
                value={row.kind}
                onChange={(event) => put({ kind: event.target.value })}
                onBlur={commit}
              />
              <button
                type="button"
                className={`text-[14px] ${row.good ? 'text-moss' : 'text-madder'}`}
                onClick={() => {
                  put({ good: !row.good });
                  commit();
                }}
              >
                {row.good ? 'good' : 'fault'}
              </button>
            </span>
          )}
        />
      )}
      {sheet === 'Pot' && (
        <div className="space-y-4">
          <PartTable
            name="pot"
            rows={[tree.pot]}
            least={1}
            onEdit={([pot]) => edit({ pot: pot! })}
            onLeave={commit}
            fresh={() => tree.pot}
            fields={[
              { key: 'width', head: 'width', unit: 'mm' },
              { key: 'depth', head: 'depth', unit: 'mm' },
              { key: 'height', head: 'height', unit: 'mm' },
            ]}
          />
          <label className="block">
            <span className="mb-1 block text-[14px] text-quiet">Vigour</span>
            <select
              className="select w-44 bg-base-100"
              value={tree.vigour}
              onChange={(event) => edit({ vigour: event.target.value as typeof tree.vigour })}
              onBlur={commit}
            >
              {VIGOURS.map((v) => (
                <option key={v}>{v}</option>
              ))}
            </select>
          </label>
          <Choice
            label="It stands in the"
            value={tree.site.hemisphere}
            options={[
              { value: 'north', name: 'north' },
              { value: 'south', name: 'south' },
            ]}
            onChange={(hemisphere) => {
              edit({ site: { ...tree.site, hemisphere } });
              commit();
            }}
          />
        </div>
      )}
      {sheet === 'Bring in' && <BringIn />}
    </>
  );
}
