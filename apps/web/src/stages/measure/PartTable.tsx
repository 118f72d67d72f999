import { NumberCell } from './NumberCell';

interface Props<T> {
  rows: readonly T[];
  /** Number fields with their heads and units. */
  fields: readonly { key: keyof T & string; head: string; unit: string }[];
  fresh: (last: T | undefined) => T;
  least?: number;
  name: string;
  extra?: (row: T, put: (changes: Partial<T>) => void) => React.ReactNode;
  onEdit: (rows: T[]) => void;
  onLeave: () => void;
}

/** A short list of measures, such as the trunk's stations or the roots. */
export function PartTable<T extends object>({ rows, fields, fresh, least = 0, name, extra, onEdit, onLeave }: Props<T>) {
  const put = (row: number, changes: Partial<T>): void => onEdit(rows.map((r, i) => (i === row ? { ...r, ...changes } : r)));
  return (
    <>
      <table className="w-full table-fixed border-collapse text-[14.5px]">
        <thead>
          <tr className="text-right text-[13.5px] text-quiet">
            {extra && <th className="w-40 text-left font-normal">what</th>}
            {fields.map((f) => (
              <th key={f.key} className="px-1 pb-1 font-normal leading-4">
                {f.head}
                <br />
                {f.unit}
              </th>
            ))}
            <th className="w-20" />
          </tr>
        </thead>
        <tbody>
          {rows.map((row, i) => (
            <tr key={i} className="border-t border-rule">
              {extra && <td>{extra(row, (changes) => put(i, changes))}</td>}
              {fields.map((f) => (
                <td key={f.key} className="p-0">
                  <NumberCell
                    value={row[f.key] as number}
                    label={`${name} ${i + 1} ${f.head}`}
                    row={i}
                    column={f.key}
                    onValue={(value) => put(i, { [f.key]: value } as unknown as Partial<T>)}
                    onLeave={onLeave}
                  />
                </td>
              ))}
              <td className="text-right">
                <button
                  type="button"
                  className="h-9 text-[14px] text-copper underline-offset-2 hover:underline disabled:opacity-40"
                  disabled={rows.length <= least}
                  onClick={() => {
                    onEdit(rows.filter((_, k) => k !== i));
                    onLeave();
                  }}
                >
                  take out
                </button>
              </td>
            </tr>
          ))}
        </tbody>
      </table>
      <button
        type="button"
        className="btn btn-outline btn-primary btn-sm mt-3"
        onClick={() => {
          onEdit([...rows, fresh(rows[rows.length - 1])]);
          onLeave();
        }}
      >
        Add a {name}
      </button>
    </>
  );
}
