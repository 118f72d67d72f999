import Papa from 'papaparse';
import { branchIn, namesOf, sayLine, standing, type RecordLine, type Tree } from '@ustle/core';

const COLUMNS = ['tree', 'on', 'kind', 'branch', 'place', 'said', 'stands', 'by', 'minutes', 'text', 'id', 'corrects'] as const;

/** Minutes that a line tells of; empty where it tells of none. */
const minutesOf = (line: RecordLine): number | '' =>
  line.kind === 'worked' ? (line.minutes ?? '') : line.kind === 'hours' && line.hours !== undefined ? line.hours * 60 : '';

/** The records of some trees as CSV, in the order in which they were written; `stands` is no for what was replaced or taken back since. */
export function writeRecordCsv(trees: readonly Tree[]): string {
  const rows = trees.flatMap((tree) => {
    const names = namesOf(tree);
    const valid = new Set(standing(tree.record));
    return tree.record.map((line) => {
      const branch = branchIn(line) ?? '';
      const by = ('by' in line ? line.by : undefined) ?? line.who ?? '';
      return [
        tree.name,
        line.on,
        line.kind,
        branch,
        branch && names(branch),
        sayLine(line, names),
        valid.has(line) ? 'yes' : 'no',
        by,
        minutesOf(line),
        line.text ?? '',
        line.id ?? '',
        line.corrects ?? '',
      ];
    });
  });
  return `${Papa.unparse({ fields: [...COLUMNS], data: rows }, { newline: '\n', escapeFormulae: true })}\n`;
}
