import { useLayoutEffect, useMemo, useRef, useState, type KeyboardEvent } from 'react';
import { measureFaults, type Branch } from '@ustle/core';
import { useDesk } from '../desk';
import { useMeasure } from './kit';
import { BranchLine, type LineActs } from './BranchLine';
import { HEADS, type Column } from './columns';
import { unsureOf } from './how-known';

/** Lines shown at once: a scan may bring thousands. */
const PAGE = 60;

/** How deep each branch sits on others; the list shows it by indent. */
function depthsOf(branches: readonly Branch[]): Map<string, number> {
  const byId = new Map(branches.map((b) => [b.id, b]));
  const depthOf = (b: Branch): number => {
    let depth = 0;
    for (let at = byId.get(b.parent); at && depth < 9; at = byId.get(at.parent)) depth++;
    return depth;
  };
  return new Map(branches.map((b) => [b.id, depthOf(b)]));
}

/** Everything that was typed and not taken, and what is doubted, in words under the list. */
function Faults() {
  const { stored, names } = useDesk();
  const { tree } = stored;
  const { kept } = useMeasure();
  const doubts = useMemo(() => measureFaults(tree), [tree]);
  const typed = Object.entries(kept.typed);
  if (!typed.length && !doubts.length) return null;
  return (
    <ul className="mt-3 space-y-0.5" aria-live="polite">
      {typed.map(([field, { fault }]) => (
        <li key={field} className="text-madder">
          {fault} Not stored; the rest is.
        </li>
      ))}
      {doubts.slice(0, 8).map((f) => (
        <li key={f.branch + f.field + f.message}>
          <strong className="text-ochre">
            {names(f.branch)}, {HEADS.find((h) => h.column === f.field)?.head ?? f.field}:
          </strong>{' '}
          {f.message}. Possible? Then leave it.
        </li>
      ))}
      {doubts.length > 8 && <li className="text-quiet">and {doubts.length - 8} more</li>}
    </ul>
  );
}

/** One line a branch, by keyboard alone: Enter goes down and adds; with Alt and Shift a line is copied, mirrored, put onto another, taken out. */
export function BranchTable({ clock }: { clock: boolean }) {
  const { stored, branch: selected, setBranch, names, short } = useDesk();
  const { tree } = stored;
  const kit = useMeasure();
  const { branches } = tree;
  const table = useRef<HTMLTableElement>(null);
  const doubts = useMemo(() => measureFaults(tree), [tree]);
  const depths = useMemo(() => depthsOf(branches), [branches]);
  const [asked, setPage] = useState(0);
  const pages = Math.max(1, Math.ceil(branches.length / PAGE));
  const page = Math.min(asked, pages - 1);

  const focus = (row: number, column: string): void => {
    setPage(Math.floor(row / PAGE));
    requestAnimationFrame(() => table.current?.querySelector<HTMLElement>(`[data-row="${row}"][data-column="${column}"]`)?.focus());
  };
  const onKeyDown: LineActs['onKeyDown'] = (event, row, column) => {
    const b = branches[row]!;
    const rest = (): void => (document.activeElement as HTMLElement).blur();
    /** What was typed is stored, and the field keeps the focus. */
    const settle = (): void => {
      const field = event.currentTarget;
      rest();
      field.focus();
    };
    const withBoth: Record<string, () => void> = {
      KeyD: () => {
        const above = branches[row - 1];
        if (above) void kit.change(b.id, { [column]: above[column] });
      },
      KeyM: () => (rest(), kit.mirror(b), focus(row + 1, 'at')),
      KeyC: () => (rest(), kit.copy(b), focus(row + 1, 'at')),
      ArrowRight: () => (settle(), kit.indent(b, true)),
      ArrowLeft: () => (settle(), kit.indent(b, false)),
      KeyX: () => (kit.takeOut(b), focus(Math.max(0, row - 1), column)),
    };
    const plain: Record<string, () => void> = {
      Enter: () => (row + 1 < branches.length ? focus(row + 1, column) : (rest(), kit.addAfter(b), focus(row + 1, 'at'))),
      ArrowDown: () => focus(row + 1, column),
      ArrowUp: () => focus(row - 1, column),
    };
    const both = event.altKey && event.shiftKey;
    const found = both ? withBoth[event.code] : event.ctrlKey || event.metaKey || event.altKey ? undefined : plain[event.key];
    if (!found || (column === 'state' && !both && event.key !== 'Enter')) return;
    event.preventDefault();
    found();
  };
  // The lines keep their functions while they say the same; what those do is always the newest.
  const latest = useRef({ kit, onKeyDown });
  useLayoutEffect(() => {
    latest.current = { kit, onKeyDown };
  });
  const acts = useMemo<LineActs>(
    () => ({
      onLive: (branch, column, value) => latest.current.kit.setLive(value === null ? null : { branch, changes: { [column]: value } }),
      onValue: (branch, column, value, text) => void latest.current.kit.put(branch, column, value, text),
      onTyped: (branch, column, typed) => latest.current.kit.typedIn(`${branch}/${column}`, typed),
      onState: (branch, state) => void latest.current.kit.change(branch, { state }),
      onKeyDown: (event: KeyboardEvent<HTMLElement>, row: number, column: Column | 'state') => latest.current.onKeyDown(event, row, column),
      onSelect: setBranch,
    }),
    [setBranch],
  );
  const unmeasured = useMemo(() => {
    const of = new Map<string, string>();
    for (const field of kit.kept.unmeasured) {
      const [branch, column] = field.split('/') as [string, string];
      of.set(branch, `${of.get(branch) ?? ''}${column} `);
    }
    return of;
  }, [kit.kept.unmeasured]);
  const doubtsOf = useMemo(() => new Map(branches.map((b) => [b.id, doubts.filter((f) => f.branch === b.id)])), [branches, doubts]);
  return (
    <>
      <table ref={table} className="w-full table-fixed border-collapse">
        <thead>
          <tr className="text-left text-quiet">
            <th className="w-[86px] font-normal">branch</th>
            {HEADS.map(({ column, head, unit, what }) => (
              <th key={column} className="px-1 pb-1 text-right font-normal leading-5" title={what}>
                {head}
                <br />
                {column === 'bearing' && clock ? 'o’clock' : unit}
              </th>
            ))}
            <th className="w-[84px] pl-2 font-normal">state</th>
          </tr>
        </thead>
        <tbody>
          {branches.slice(page * PAGE, (page + 1) * PAGE).map((b, i) => (
            <BranchLine
              key={b.id}
              branch={b}
              row={page * PAGE + i}
              depth={depths.get(b.id)!}
              name={names(b.id)}
              short={short(b.id)}
              clock={clock}
              selected={b.id === selected}
              typed={kit.kept.typed}
              unmeasured={unmeasured.get(b.id) ?? ''}
              unsure={unsureOf(tree, b.id)}
              doubts={doubtsOf.get(b.id)!}
              acts={acts}
            />
          ))}
        </tbody>
      </table>
      {pages > 1 && (
        <p className="mt-2 flex items-center gap-2">
          <button type="button" className="btn btn-ghost btn-sm" aria-disabled={page === 0} onClick={() => setPage(Math.max(0, page - 1))}>
            Lines before
          </button>
          <span className="text-quiet">
            {page * PAGE + 1} to {Math.min(branches.length, (page + 1) * PAGE)} of {branches.length}
          </span>
          <button type="button" className="btn btn-ghost btn-sm" aria-disabled={page === pages - 1} onClick={() => setPage(Math.min(pages - 1, page + 1))}>
            Lines after
          </button>
        </p>
      )}
      <button
        type="button"
        className="btn btn-outline btn-primary btn-sm mt-3"
        onClick={() => {
          kit.addAfter(branches[branches.length - 1]);
          focus(branches.length, 'at');
        }}
      >
        Add a branch
      </button>
      <Faults />
    </>
  );
}
