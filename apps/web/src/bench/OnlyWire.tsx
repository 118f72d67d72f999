import { useRef, useState } from 'react';
import { sayThick, BRANCH, WIRED_HEIGHTS, WIRED_SIDES, type BentByEye, type MetalName, type WiredHeight, type WiredSide } from '@ustle/core';
import { DateField } from '../shared/DateField';
import { NumberField } from '../shared/NumberField';
import { Quiet } from '../shared/parts';
import { soldSizes } from '../shared/wire-words';
import { rowAfter, type DraftRow } from './new-draft';

const METALS: MetalName[] = ['aluminium', 'copper'];
const WIRES = METALS.flatMap((metal) => [...soldSizes(metal)].sort((a, b) => a - b).map((size) => ({ metal, size })));
const BENT: [BentByEye | '', string][] = [
  ['little', 'a little'],
  ['half', 'half over'],
  ['far', 'far'],
  ['', 'I do not know'],
];

interface Props {
  rows: readonly DraftRow[];
  onRows: (rows: DraftRow[]) => void;
  today: string;
  /** What of a row was missing when it was to be kept. */
  missing: ReadonlySet<string>;
  /** What stands beside the button for another row. */
  children: React.ReactNode;
}

const select = 'select w-full bg-sheet min-h-11';

function Choice<T extends string>({
  label,
  value,
  of,
  onValue,
}: {
  label: string;
  value: T;
  of: readonly (readonly [T, string])[];
  onValue: (value: T) => void;
}) {
  return (
    <label className="block">
      <span className="mb-1 block text-quiet">{label}</span>
      <select className={select} value={value} onChange={(event) => onValue(event.target.value as T)}>
        {of.map(([key, said]) => (
          <option key={key} value={key}>
            {said}
          </option>
        ))}
      </select>
    </label>
  );
}

const same = <T extends string>(of: readonly T[]): [T, string][] => of.map((key) => [key, key]);

/** The branches that have wire on, a row each: by place, with thickness, wire and since when; no ruler is needed. */
export function OnlyWire({ rows, onRows, today, missing, children }: Props) {
  const list = useRef<HTMLOListElement>(null);
  const [added, setAdded] = useState(false);
  const change = (key: string, to: Partial<DraftRow>): void => onRows(rows.map((r) => (r.key === key ? { ...r, ...to } : r)));
  const add = (): void => {
    onRows([...rows, rowAfter(rows.at(-1))]);
    setAdded(true);
  };
  // The new row has the focus once it is there.
  const last = (row: HTMLLIElement | null): void => {
    if (!row || !added) return;
    row.querySelector('select')?.focus();
    setAdded(false);
  };
  return (
    <>
      <ol ref={list} className="border-t border-rule" aria-label="Branches with wire on">
        {rows.map((row, i) => (
          <li
            key={row.key}
            ref={i === rows.length - 1 ? last : undefined}
            className="grid grid-cols-2 items-start gap-x-3 gap-y-2 border-b border-rule py-3 sm:grid-cols-3 xl:grid-cols-[94px_94px_116px_172px_158px_124px_auto]"
          >
            <Choice<WiredSide> label="Side" value={row.side} of={same(WIRED_SIDES)} onValue={(side) => change(row.key, { side })} />
            <Choice<WiredHeight> label="Height" value={row.height} of={same(WIRED_HEIGHTS)} onValue={(height) => change(row.key, { height })} />
            <div>
              <NumberField label="Thickness" rule={BRANCH.properties.d} value={row.d} onValue={(d) => change(row.key, { d })} unit="mm" open />
              {missing.has(`${row.key} d`) && row.d === null && <p className="text-madder">How thick, by eye?</p>}
            </div>
            <Choice
              label="Wire"
              value={`${row.metal} ${row.size}`}
              of={WIRES.map(({ metal, size }) => [`${metal} ${size}`, `${sayThick(size)} ${metal}`])}
              onValue={(said) => {
                const [metal, size] = said.split(' ') as [MetalName, string];
                change(row.key, { metal, size: Number(size) });
              }}
            />
            <div>
              <DateField label="On since" value={row.since} onValue={(since) => change(row.key, { since })} today={today} max={today} open />
              {missing.has(`${row.key} since`) && row.since === null && <p className="text-madder">Since when, about?</p>}
            </div>
            <Choice<BentByEye | ''> label="Bent" value={row.bent ?? ''} of={BENT} onValue={(bent) => change(row.key, { bent: bent || null })} />
            <span className="col-span-2 self-end sm:col-span-1">
              <Quiet onClick={() => onRows(rows.filter((r) => r.key !== row.key))}>leave it out</Quiet>
            </span>
          </li>
        ))}
      </ol>
      <div className="mt-4 flex flex-wrap items-center gap-4">
        <button type="button" className="btn btn-outline border-rule font-normal" onClick={add}>
          {rows.length ? 'Another branch' : 'A branch with wire on'}
        </button>
        {children}
      </div>
    </>
  );
}
