import { memo, type KeyboardEvent } from 'react';
import { BRANCH_STATES, type Branch, type BranchState, type MeasureFault } from '@ustle/core';
import { HEADS, ruleOf, shownIn, storedFrom, type Column } from './columns';
import { NumberCell } from './NumberCell';
import type { Typed } from './typed';

export interface LineActs {
  onLive: (branch: string, column: Column, value: number | null) => void;
  onValue: (branch: string, column: Column, value: number, text: string) => void;
  onTyped: (branch: string, column: Column, typed: Typed | null) => void;
  onState: (branch: string, state: BranchState) => void;
  onKeyDown: (event: KeyboardEvent<HTMLElement>, row: number, column: Column | 'state') => void;
  onSelect: (branch: string) => void;
}

interface Props {
  branch: Branch;
  row: number;
  depth: number;
  name: string;
  short: string;
  clock: boolean;
  selected: boolean;
  typed: Readonly<Record<string, Typed>>;
  unmeasured: string;
  doubts: readonly MeasureFault[];
  /** How well its figures are known, by column. */
  unsure: Partial<Record<Column, string>>;
  acts: LineActs;
}

/** One branch of the list. Only the line that says something else is laid out anew. */
export const BranchLine = memo(function BranchLine({ branch: b, row, depth, name, short, clock, selected, typed, unmeasured, doubts, unsure, acts }: Props) {
  return (
    <tr className={`border-t border-rule ${selected ? 'bg-base-100' : ''}`} onFocus={() => acts.onSelect(b.id)}>
      <th scope="row" className="truncate text-left font-semibold" style={{ paddingLeft: depth * 12 }} title={`${name} (${b.id})`}>
        {short}
        {b.path && <span className="font-normal text-quiet"> ~</span>}
      </th>
      {HEADS.map(({ column, head }) => (
        <td key={column} className="p-0">
          <NumberCell
            value={shownIn(b, column, clock)}
            rule={ruleOf(column, clock)}
            label={`${name}, ${head}`}
            row={row}
            column={column}
            typed={typed[`${b.id}/${column}`]}
            doubt={doubts.find((f) => f.field === column)?.message}
            unmeasured={unmeasured.includes(`${column} `)}
            unsure={unsure[column]}
            onLive={(value) => acts.onLive(b.id, column, value === null ? null : storedFrom(column, value, clock))}
            onValue={(value) => acts.onValue(b.id, column, storedFrom(column, value, clock), String(value))}
            onTyped={(t) => acts.onTyped(b.id, column, t)}
            onKeyDown={(event) => acts.onKeyDown(event, row, column)}
          />
        </td>
      ))}
      <td className="p-0 pl-1">
        <select
          className="h-9 w-full bg-transparent focus:bg-base-100 pointer-coarse:h-11"
          aria-label={`${name}, state`}
          data-row={row}
          data-column="state"
          value={b.state}
          onChange={(event) => acts.onState(b.id, event.target.value as BranchState)}
          onKeyDown={(event) => acts.onKeyDown(event, row, 'state')}
        >
          {BRANCH_STATES.map((s) => (
            <option key={s}>{s}</option>
          ))}
        </select>
      </td>
    </tr>
  );
});
