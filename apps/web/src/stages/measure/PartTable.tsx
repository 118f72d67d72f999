import { useRef, type KeyboardEvent, type ReactNode } from 'react';
import { Quiet } from '../../shared/parts';
import { readNumber, type NumberRule } from '../../shared/numbers';
import { useMeasure } from './kit';
import { ByClock, useByClock } from './ByClock';
import { BY_CLOCK, CLOCK } from './columns';
import { NumberCell } from './NumberCell';

interface Props<T> {
  rows: readonly T[];
  /** Number fields with their heads and bounds. */
  fields: readonly { key: keyof T & string; head: string; rule: NumberRule }[];
  fresh?: (last: T | undefined) => T;
  least?: number;
  name: string;
  extra?: (row: T, put: (changes: Partial<T>) => void) => ReactNode;
  onLive?: (rows: T[] | null) => void;
  onRows: (rows: T[]) => void;
}

/** A short list of measures, such as the trunk's stations or the roots: Enter goes down, and adds a line at the end. */
export function PartTable<T extends object>({ rows, fields, fresh, least = 0, name, extra, onLive, onRows }: Props<T>) {
  const { kept, typedIn } = useMeasure();
  const [clock, setClock] = useByClock();
  const isHour = (column: string): boolean => clock && column === 'bearing';
  const keptAs = (column: string, value: number): number => (isHour(column) ? BY_CLOCK.kept(value) : value);
  const unitOf = (f: { key: string; rule: NumberRule }): string => (isHour(f.key) ? 'o’clock' : f.rule.unit === 'degrees' ? '°' : String(f.rule.unit ?? ''));
  const table = useRef<HTMLTableElement>(null);
  const changed = (row: number, changes: Partial<T>): T[] => rows.map((r, i) => (i === row ? { ...r, ...changes } : r));
  const focus = (row: number, column: string): void =>
    void requestAnimationFrame(() => table.current?.querySelector<HTMLElement>(`[data-row="${row}"][data-column="${column}"]`)?.focus());
  const add = (): void => {
    onRows([...rows, fresh!(rows[rows.length - 1])]);
    focus(rows.length, fields[0]!.key);
  };
  const onKeyDown = (event: KeyboardEvent<HTMLInputElement>, row: number, column: string): void => {
    const to = { Enter: row + 1, ArrowDown: row + 1, ArrowUp: row - 1 }[event.key];
    if (to === undefined || event.ctrlKey || event.altKey || event.metaKey) return;
    event.preventDefault();
    if (event.key === 'Enter' && to >= rows.length && fresh) {
      event.currentTarget.blur();
      // The value that was just left is stored first.
      const own = changed(row, { [column]: keptAs(column, readNumber(event.currentTarget.value)) } as Partial<T>);
      const typed = Number.isNaN(readNumber(event.currentTarget.value)) ? [...rows] : own;
      onRows([...typed, fresh(typed[typed.length - 1])]);
      focus(to, column);
    } else focus(Math.min(rows.length - 1, Math.max(0, to)), column);
  };
  return (
    <>
      {fields.some((f) => f.key === 'bearing') && <ByClock clock={clock} onClock={setClock} />}
      <table ref={table} className="w-full table-fixed border-collapse">
        <thead>
          <tr className="text-right text-quiet">
            {extra && <th className="w-44 text-left font-normal">what</th>}
            {fields.map((f) => (
              <th key={f.key} className="px-1 pb-1 font-normal leading-5" title={String(f.rule.description ?? '')}>
                {f.head}
                <br />
                {unitOf(f)}
              </th>
            ))}
            {fresh && <th className="w-20 font-normal" aria-label="take out" />}
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i} className="border-t border-rule">
              {extra && <td>{extra(row, (changes) => onRows(changed(i, changes)))}</td>}
              {fields.map((f) => (
                <td key={f.key} className="p-0">
                  <NumberCell
                    value={isHour(f.key) ? BY_CLOCK.shown(row[f.key] as number) : (row[f.key] as number)}
                    rule={isHour(f.key) ? CLOCK : f.rule}
                    label={`${name} ${i + 1}, ${f.head}`}
                    row={i}
                    column={f.key}
                    typed={kept.typed[`${name} ${i}/${f.key}`]}
                    onLive={(value) => onLive?.(value === null ? null : changed(i, { [f.key]: keptAs(f.key, value) } as Partial<T>))}
                    onValue={(value) => onRows(changed(i, { [f.key]: keptAs(f.key, value) } as Partial<T>))}
                    onTyped={(typed) => typedIn(`${name} ${i}/${f.key}`, typed)}
                    onKeyDown={(event) => onKeyDown(event, i, f.key)}
                  />
                </td>
              ))}
              {fresh && (
                <td className="text-right">
                  <Quiet label={`take ${name} ${i + 1} out`} disabled={rows.length <= least} onClick={() => onRows(rows.filter((_, k) => k !== i))}>
                    take out
                  </Quiet>
                </td>
              )}
            </tr>
          ))}
        </tbody>
      </table>
      {fresh && (
        <button type="button" className="btn btn-outline btn-primary btn-sm mt-3" onClick={add}>
          Add a {name}
        </button>
      )}
    </>
  );
}
