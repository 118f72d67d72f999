import { useRef, useState, type KeyboardEvent } from 'react';
import { bearingOfClock, BRANCH_STATES, clockOf, measureFaults, mirroredBranch, reshaped, wrapDeg, type Branch, type Tree } from '@ustle/core';
import { NumberCell } from './NumberCell';

type Column = 'at' | 'bearing' | 'elevation' | 'length' | 'd' | 'tipD' | 'bareTo' | 'green';

const HEADS: [Column, string, string][] = [
  ['at', 'at', 'mm'],
  ['bearing', 'to', '°'],
  ['elevation', 'slope', '°'],
  ['length', 'length', 'mm'],
  ['d', 'base', 'mm'],
  ['tipD', 'tip', 'mm'],
  ['bareTo', 'bare', '%'],
  ['green', 'green', '%'],
];

/** Lines shown at once: a scan may bring thousands. */
const PAGE = 60;

const FIRST: Branch = {
  id: 'b1',
  parent: 'trunk',
  at: 120,
  bearing: 90,
  elevation: 15,
  length: 180,
  d: 9,
  tipD: 3,
  bareTo: 0.35,
  green: 0.05,
  state: 'normal',
  stage: 'wood',
  backBuds: true,
};

/** How deep a branch sits on others; the list shows it by indent. */
function depthOf(byId: ReadonlyMap<string, Branch>, b: Branch): number {
  let depth = 0;
  for (let at = byId.get(b.parent); at && depth < 9; at = byId.get(at.parent)) depth++;
  return depth;
}

interface Props {
  tree: Tree;
  clock: boolean;
  seenFrom: number;
  selected: string | null;
  onSelect: (branch: string) => void;
  onEdit: (branches: Branch[]) => void;
  onLeave: () => void;
}

/** One line a branch, by keyboard alone: Enter goes down and adds, Ctrl D takes the value above, Ctrl M mirrors, Ctrl ] and [ indent. */
export function BranchTable({ tree, clock, seenFrom, selected, onSelect, onEdit, onLeave }: Props) {
  const table = useRef<HTMLTableElement>(null);
  const { branches } = tree;
  const byId = new Map(branches.map((b) => [b.id, b]));
  const faults = measureFaults(tree);

  const [asked, setPage] = useState(0);
  const pages = Math.max(1, Math.ceil(branches.length / PAGE));
  const page = Math.min(asked, pages - 1);
  const focus = (row: number, column: string): void => {
    setPage(Math.floor(row / PAGE));
    requestAnimationFrame(() => table.current?.querySelector<HTMLElement>(`[data-row="${row}"][data-column="${column}"]`)?.focus());
  };
  const freeId = (): string => {
    let n = branches.length + 1;
    while (byId.has(`b${n}`)) n++;
    return `b${n}`;
  };
  const put = (row: number, changes: Partial<Branch>): void => onEdit(branches.map((b, i) => (i === row ? reshaped(b, changes) : b)));
  const insert = (row: number, branch: Branch, column: string): void => {
    onEdit([...branches.slice(0, row + 1), branch, ...branches.slice(row + 1)]);
    focus(row + 1, column);
  };
  const next = (above: Branch | undefined): Branch => {
    if (!above) return { ...FIRST, id: freeId() };
    const { path: _path, name: _name, ...plain } = above;
    return { ...plain, id: freeId(), at: Math.round(above.at + 25), bearing: Math.round(wrapDeg(above.bearing + 135)), state: 'normal' };
  };

  const indent = (row: number, deeper: boolean): void => {
    const b = branches[row]!;
    const above = branches[row - 1];
    const parent = deeper ? above?.id : byId.get(b.parent)?.parent;
    if (!parent || parent === b.id) return;
    // Along its new parent a branch sits by default two thirds out.
    const at = deeper ? Math.round(above!.length * 0.66) : b.at;
    put(row, { parent, at });
  };

  const remove = (row: number): void => {
    const gone = new Set([branches[row]!.id]);
    // What grows on it goes along.
    for (let grew = true; grew;) {
      const size = gone.size;
      for (const b of branches) if (gone.has(b.parent)) gone.add(b.id);
      grew = gone.size > size;
    }
    onEdit(branches.filter((b) => !gone.has(b.id)));
    focus(Math.max(0, row - 1), 'at');
  };

  const onKey = (event: KeyboardEvent<HTMLElement>, row: number, column: Column | 'state'): void => {
    const ctrl = event.ctrlKey || event.metaKey;
    const b = branches[row]!;
    const acts: Record<string, () => void> = ctrl
      ? {
          d: () => {
            const above = branches[row - 1];
            if (above) put(row, { [column]: above[column] });
          },
          m: () => insert(row, mirroredBranch(b, freeId(), seenFrom), 'at'),
          Enter: () => insert(row, { ...next(b), bearing: b.bearing, at: b.at }, 'at'),
          ']': () => indent(row, true),
          '[': () => indent(row, false),
          Backspace: () => remove(row),
        }
      : {
          Enter: () => (row + 1 < branches.length ? focus(row + 1, column) : insert(row, next(b), 'at')),
          ArrowDown: () => focus(row + 1, column),
          ArrowUp: () => focus(row - 1, column),
        };
    const act = acts[event.key];
    if (!act || (column === 'state' && !ctrl && event.key !== 'Enter')) return;
    event.preventDefault();
    act();
  };

  const shownValue = (b: Branch, column: Column): number =>
    column === 'bearing' && clock ? clockOf(b.bearing) : column === 'bareTo' || column === 'green' ? b[column] * 100 : b[column];
  const stored = (column: Column, value: number): number =>
    column === 'bearing' ? (clock ? bearingOfClock(value) : wrapDeg(value)) : column === 'bareTo' || column === 'green' ? value / 100 : value;

  return (
    <>
      <table ref={table} className="w-full table-fixed border-collapse text-[14.5px]">
        <thead>
          <tr className="text-left text-[13.5px] text-quiet">
            <th className="w-[74px] font-normal">branch</th>
            {HEADS.map(([column, head, unit]) => (
              <th key={column} className="px-1 pb-1 text-right font-normal leading-4">
                {head}
                <br />
                {column === 'bearing' && clock ? 'o’clock' : unit}
              </th>
            ))}
            <th className="w-[84px] pl-2 font-normal">state</th>
          </tr>
        </thead>
        <tbody>
          {branches
            .slice(page * PAGE, (page + 1) * PAGE)
            .map((b, i) => [b, page * PAGE + i] as const)
            .map(([b, row]) => (
              <tr key={b.id} className={`border-t border-rule ${b.id === selected ? 'bg-base-100' : ''}`} onFocus={() => onSelect(b.id)}>
                <th
                  scope="row"
                  className="truncate text-left font-semibold"
                  style={{ paddingLeft: depthOf(byId, b) * 12 }}
                  title={b.parent === 'trunk' ? 'on the trunk' : `on ${b.parent}`}
                >
                  {b.id}
                  {b.path && (
                    <span className="font-normal text-quiet" title="crooked: it has a path of points">
                      {' '}
                      ~
                    </span>
                  )}
                </th>
                {HEADS.map(([column, head]) => (
                  <td key={column} className="p-0">
                    <NumberCell
                      value={shownValue(b, column)}
                      label={`${b.id} ${head}`}
                      row={row}
                      column={column}
                      fault={faults.find((f) => f.branch === b.id && f.field === column)}
                      onValue={(value) => put(row, { [column]: stored(column, value) })}
                      onLeave={onLeave}
                      onKeyDown={(event) => onKey(event, row, column)}
                    />
                  </td>
                ))}
                <td className="p-0 pl-1">
                  <select
                    className="h-9 w-full bg-transparent focus:bg-base-100"
                    aria-label={`${b.id} state`}
                    data-row={row}
                    data-column="state"
                    value={b.state}
                    onChange={(event) => put(row, { state: event.target.value as Branch['state'] })}
                    onBlur={onLeave}
                    onKeyDown={(event) => onKey(event, row, 'state')}
                  >
                    {BRANCH_STATES.map((s) => (
                      <option key={s}>{s}</option>
                    ))}
                  </select>
                </td>
              </tr>
            ))}
        </tbody>
      </table>
      {pages > 1 && (
        <p className="mt-2 flex items-center gap-2">
          <button type="button" className="btn btn-ghost btn-sm" disabled={page === 0} onClick={() => setPage(page - 1)}>
            Lines before
          </button>
          <span className="text-quiet">
            {page * PAGE + 1} to {Math.min(branches.length, (page + 1) * PAGE)} of {branches.length}
          </span>
          <button type="button" className="btn btn-ghost btn-sm" disabled={page === pages - 1} onClick={() => setPage(page + 1)}>
            Lines after
          </button>
        </p>
      )}
      <button
        type="button"
        className="btn btn-outline btn-primary btn-sm mt-3"
        onClick={() => insert(branches.length - 1, next(branches[branches.length - 1]), 'at')}
      >
        Add a branch
      </button>
      {faults.length > 0 && (
        <ul className="mt-3 space-y-0.5 text-[14.5px]">
          {faults.slice(0, 8).map((f) => (
            <li key={f.branch + f.field + f.message}>
              <strong className={f.wrong ? 'text-madder' : 'text-ochre'}>
                {f.branch}, {HEADS.find(([c]) => c === f.field)?.[1] ?? f.field}:
              </strong>{' '}
              {f.message}
              {f.wrong ? '. Not stored until it is.' : '. Possible? Then leave it.'}
            </li>
          ))}
          {faults.length > 8 && <li className="text-quiet">and {faults.length - 8} more</li>}
        </ul>
      )}
    </>
  );
}
