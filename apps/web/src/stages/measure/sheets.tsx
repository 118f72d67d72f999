import { useState } from 'react';
import { FEATURE, offsetOf, POT, POT_SHAPES, ROOT, STATION, stationOf, VIGOURS, type Feature, type Measured, type OffsetStation, type Root } from '@ustle/core';
import type { NumberRule } from '../../shared/numbers';
import { Choice, Quiet } from '../../shared/parts';
import { useDesk } from '../desk';
import { useMeasure } from './kit';
import { PartTable } from './PartTable';

const OFFSET = { ...STATION.properties.x, minimum: 0, description: 'how far it stands aside of the foot' } as NumberRule;
const ASIDE = { ...ROOT.properties.bearing, description: 'towards where it stands aside' } as NumberRule;
const HEIGHT = { ...STATION.properties.z, minimum: -3000, maximum: 5000 } as NumberRule;

/** Shows a part while one types, and stores it when its field is left. */
function usePart<K extends 'trunk' | 'roots' | 'features' | 'pot', T>(key: K, from: (rows: T[]) => Measured[K]) {
  const { measure, setPart } = useMeasure();
  const put = (rows: T[] | null): Partial<Measured> | null => rows && ({ [key]: from(rows) } as Partial<Measured>);
  return {
    onLive: (rows: T[] | null) => setPart(put(rows)),
    onRows: (rows: T[]) => {
      setPart(null);
      void measure(put(rows)!);
    },
  };
}

export function TrunkSheet() {
  const { tree } = useDesk().stored;
  return (
    <PartTable<OffsetStation>
      name="station"
      rows={tree.trunk.map(offsetOf)}
      least={2}
      {...usePart('trunk', (rows: OffsetStation[]) => rows.map(stationOf))}
      fields={[
        { key: 'z', head: 'height', rule: HEIGHT },
        { key: 'offset', head: 'aside', rule: OFFSET },
        { key: 'bearing', head: 'towards', rule: ASIDE },
        { key: 'd', head: 'thickness', rule: STATION.properties.d },
      ]}
      fresh={(last) => ({
        offset: Math.round(last?.offset ?? 0),
        bearing: Math.round(last?.bearing ?? 0),
        z: (last?.z ?? 0) + 60,
        d: Math.max(3, Math.round((last?.d ?? 40) * 8) / 10),
      })}
    />
  );
}

export function RootsSheet() {
  const { tree } = useDesk().stored;
  return (
    <PartTable<Root>
      name="root"
      rows={tree.roots}
      {...usePart('roots', (rows: Root[]) => rows)}
      fields={[
        { key: 'bearing', head: 'towards', rule: ROOT.properties.bearing },
        { key: 'length', head: 'length', rule: ROOT.properties.length },
        { key: 'd', head: 'thickness', rule: ROOT.properties.d },
      ]}
      fresh={(last) => ({ bearing: ((last?.bearing ?? -60) + 60) % 360, length: last?.length ?? 50, d: last?.d ?? 14 })}
    />
  );
}

/** What a feature is: its name is stored when the field is left. */
function FeatureKind({ feature, onKind }: { feature: Feature; onKind: (kind: string) => void }) {
  const [kind, setKind] = useState(feature.kind);
  return (
    <input
      className="h-9 w-28 bg-transparent focus:bg-base-100 pointer-coarse:h-11"
      aria-label="kind of feature"
      maxLength={60}
      value={kind}
      onChange={(event) => setKind(event.target.value)}
      onBlur={() => (kind.trim() ? kind.trim() !== feature.kind && onKind(kind.trim()) : setKind(feature.kind))}
    />
  );
}

type FlatFeature = Feature & { from: number; to: number };

export function FeaturesSheet() {
  const { stored, bearing } = useDesk();
  const { tree } = stored;
  return (
    <PartTable<FlatFeature>
      name="feature"
      rows={tree.features.map((f) => ({ ...f, from: f.z[0], to: f.z[1] }))}
      {...usePart('features', (rows: FlatFeature[]) => rows.map(({ from, to, ...f }) => ({ ...f, z: [from, to] as [number, number] })))}
      fields={[
        { key: 'bearing', head: 'faces', rule: FEATURE.properties.bearing },
        { key: 'from', head: 'from', rule: HEIGHT },
        { key: 'to', head: 'to', rule: HEIGHT },
        { key: 'weight', head: 'counts', rule: FEATURE.properties.weight },
      ]}
      fresh={() => ({ kind: 'shari', bearing: Math.round(bearing), z: [20, 120], from: 20, to: 120, good: true, weight: 1 })}
      extra={(row, put) => (
        <span className="flex items-center gap-2">
          <FeatureKind key={row.kind} feature={row} onKind={(kind) => put({ kind })} />
          <Quiet onClick={() => put({ good: !row.good })}>{row.good ? 'to show' : 'to hide'}</Quiet>
        </span>
      )}
    />
  );
}

export function PotSheet() {
  const { tree } = useDesk().stored;
  const { measure } = useMeasure();
  const { pot, site, vigour } = tree;
  return (
    <div className="space-y-4">
      <Choice
        label="Shape"
        value={pot.shape}
        options={POT_SHAPES.map((s) => ({ value: s, name: s }))}
        onChange={(shape) => void measure({ pot: { ...pot, shape } })}
      />
      <PartTable
        name="pot"
        rows={[pot]}
        {...usePart('pot', ([only]: (typeof pot)[]) => only!)}
        fields={[
          { key: 'width', head: 'width', rule: POT.properties.width },
          { key: 'depth', head: 'depth', rule: POT.properties.depth },
          { key: 'height', head: 'height', rule: POT.properties.height },
        ]}
      />
      <Choice label="Vigour" value={vigour} options={VIGOURS.map((v) => ({ value: v, name: v }))} onChange={(to) => void measure({ vigour: to })} />
      <Choice
        label="It stands in the"
        value={site.hemisphere}
        options={[
          { value: 'north', name: 'north' },
          { value: 'south', name: 'south' },
        ]}
        onChange={(hemisphere) => void measure({ site: { ...site, hemisphere } })}
      />
    </div>
  );
}
