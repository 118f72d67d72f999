import Papa from 'papaparse';
import { BRANCH_STATES, KNOWN_BY, type Branch, type Measured, MOST_FAULTS, type FileFault } from '@ustle/core';

export type MeasuredResult = { measured: Partial<Measured> } | { faults: FileFault[] };

/** Columns of a branch table: the field names of the tree file. Those not given take the value here; the others are needed. */
const KNOWN = ['known', 'knownD', 'knownDeg', 'knownLength'] as const;
const DEFAULTS = { name: '', tipD: null, bareTo: 0.35, green: 0, state: 'normal', stage: 'wood', backBuds: true } as const;
const NEEDED = ['id', 'parent', 'at', 'bearing', 'elevation', 'length', 'd'] as const;
const COLUMNS: readonly string[] = [...NEEDED, ...Object.keys(DEFAULTS), ...KNOWN];

/** The mark before a name that would else be read as a formula. */
const AS_TEXT = /^'(?=[=+\-@])/;

type Row = Record<string, string>;

/** Rows of a delimited text with the number of the line each came from; tabs, semicolons and commas are told apart by themselves. */
export function rowsOf(text: string): { rows: { line: number; row: Row }[]; columns: string[] } {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/);
  const filled = lines.map((line, i) => ({ line: i + 1, text: line })).filter((l) => l.text.replace(/[\s,;]/g, '') !== '');
  const parsed = Papa.parse<Row>(filled.map((l) => l.text).join('\n'), { header: true, transformHeader: (h) => h.trim(), transform: (v) => v.trim() });
  return { rows: parsed.data.map((row, i) => ({ line: filled[i + 1]?.line ?? i + 2, row })), columns: parsed.meta.fields ?? [] };
}

/** Each digit is read once: a cell of a million digits takes no longer than as many cells. */
const A_NUMBER = /^[+-]?(?:\d+(?:[.,]\d+)?|[.,]\d+)(?:e[+-]?\d+)?$/i;

/** A number as people write it; a decimal comma counts as a point. NaN when it is none. */
export const numberOf = (text: string | undefined): number => (text && A_NUMBER.test(text) ? Number(text.replace(',', '.')) : NaN);

/** A share written as 0.35 or as 35%. */
const shareOf = (text: string): number => (text.endsWith('%') ? numberOf(text.slice(0, -1).trim()) / 100 : numberOf(text));

const truth = (text: string): boolean | null => (/^(true|yes|1|x)$/i.test(text) ? true : /^(false|no|0|)$/i.test(text) ? false : null);

/** A table of branches as text, from a spreadsheet; refused with the line and column of every fault. */
export function readBranchCsv(text: string): MeasuredResult {
  const { rows, columns } = rowsOf(text);
  const faults: FileFault[] = [];
  const fault = (line: number, column: string, code: string, message: string): void => {
    faults.push({ path: `/line/${line}/${column}`, code, message: `Line ${line}, ${column}: ${message}` });
  };
  for (const column of columns)
    if (!COLUMNS.includes(column)) fault(1, column || '(no name)', 'unknown-column', `no such column. Known are: ${COLUMNS.join(', ')}.`);
  for (const column of NEEDED) if (!columns.includes(column)) fault(1, column, 'missing-column', 'this column is missing.');
  if (faults.length) return { faults };

  const branches = rows.map(({ line, row }): Branch => {
    const number = (column: string, value = numberOf(row[column])): number => {
      if (!Number.isFinite(value)) fault(line, column, 'type', `"${row[column] ?? ''}" is not a number.`);
      return value;
    };
    const optional = <T>(column: string, value: T, read: (text: string) => T): T => (row[column] ? read(row[column]) : value);
    const d = number('d');
    const known = (): Pick<Branch, 'known'> => {
      if (!row.known) return {};
      const how = KNOWN_BY.find((k) => k === row.known);
      if (!how) fault(line, 'known', 'choice', `"${row.known}" is none of: ${KNOWN_BY.join(', ')}.`);
      const spread = (key: string, column: string): object => (row[column] ? { [key]: number(column) } : {});
      return { known: { how: how ?? 'ruler', ...spread('d', 'knownD'), ...spread('deg', 'knownDeg'), ...spread('length', 'knownLength') } };
    };
    const state = row.state || DEFAULTS.state;
    if (!(BRANCH_STATES as readonly string[]).includes(state)) fault(line, 'state', 'choice', `"${state}" is none of: ${BRANCH_STATES.join(', ')}.`);
    const backBuds = row.backBuds === undefined ? true : truth(row.backBuds);
    if (backBuds === null) fault(line, 'backBuds', 'type', `"${row.backBuds}" is neither yes nor no.`);
    return {
      id: row.id ?? '',
      ...(row.name ? { name: row.name.replace(AS_TEXT, '') } : {}),
      parent: row.parent || 'trunk',
      at: number('at'),
      bearing: number('bearing'),
      elevation: number('elevation'),
      length: number('length'),
      d,
      tipD: optional('tipD', Math.max(0.1, Math.round(d * 3.5) / 10), (t) => number('tipD', numberOf(t))),
      bareTo: optional('bareTo', DEFAULTS.bareTo, (t) => number('bareTo', shareOf(t))),
      green: optional('green', DEFAULTS.green, (t) => number('green', shareOf(t))),
      state: state as Branch['state'],
      stage: row.stage === 'shoot' ? 'shoot' : 'wood',
      backBuds: backBuds ?? true,
      ...known(),
    };
  });
  if (!branches.length) fault(1, 'id', 'empty', 'there is no branch below the head of the table.');
  return faults.length ? { faults: faults.slice(0, MOST_FAULTS) } : { measured: { branches } };
}

/** The branches as a table for a spreadsheet, in which no name can be run as a formula. Paths of crooked branches are not in it: the tree file keeps them. */
export const writeBranchCsv = (branches: readonly Branch[]): string =>
  `${Papa.unparse(
    branches.map((b) => {
      const { known, ...own } = b as unknown as Record<string, unknown> & Pick<Branch, 'known'>;
      const told: Record<string, unknown> = { ...own, known: known?.how, knownD: known?.d, knownDeg: known?.deg, knownLength: known?.length };
      return Object.fromEntries(COLUMNS.map((c) => [c, told[c] ?? '']));
    }),
    { columns: [...COLUMNS], newline: '\n', escapeFormulae: true },
  )}\n`;
