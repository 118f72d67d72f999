import { standing, type RecordEntry } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { postEntry } from '../../shared/api';
import { addDays, sayDate } from '../../shared/say';
import { useDesk } from '../tree-context';

function wordsFor(entry: RecordEntry): string {
  switch (entry.kind) {
    case 'wired':
      return `wired, ${entry.size?.toFixed(1) ?? '?'} mm ${entry.metal ?? ''}${entry.strands && entry.strands > 1 ? ` × ${entry.strands}` : ''}${entry.bentDeg ? `, bent to ${entry.bentDeg.toFixed(0)}°` : ''}`;
    case 'inspected':
      return `seen ${entry.stage ?? ''}`;
    case 'unwired':
      return `wire ${entry.method === 'unwound' ? 'unwound' : 'cut off'}`;
    case 'removed':
      return `taken off, ${Math.round((entry.green ?? 0) * 100)}% of the green`;
    case 'shortened':
      return `${entry.stub ? 'cut to a stub of' : 'shortened to'} ${entry.length?.toFixed(0) ?? '?'} mm`;
    case 'agreed':
      return `${entry.by ?? 'the owner'} agreed to cut ${(entry.branches ?? []).join(', ')}`;
    default:
      return `${entry.kind}${entry.text ? `: ${entry.text}` : ''}`;
  }
}

/** The record, newest first. A slip is taken back by a further line; the first stays readable. */
export function History({ branch }: { branch: string | null }) {
  const { view, tree, today, setDay } = useDesk();
  const { attempt } = useNotice();
  const valid = new Set(standing(tree.record).map((e) => e.id));
  const lines = tree.record.filter((e) => e.kind !== 'withdrawn' && (!branch || e.branch === branch)).reverse();
  if (!lines.length) return null;
  return (
    <section className="mt-6">
      <h3 className="text-lg">Record{branch ? ` of ${branch}` : ''}</h3>
      <ul className="mt-1 border-b border-rule">
        {lines.map((entry) => (
          <li key={entry.id} className="flex items-baseline gap-3 border-t border-rule py-1.5">
            <span className="w-24 shrink-0 text-quiet">{sayDate(entry.on)}</span>
            <span className={`flex-1 ${valid.has(entry.id) ? '' : 'text-quiet line-through'}`}>
              {!branch && entry.branch ? `${entry.branch} ` : ''}
              {wordsFor(entry)}
            </span>
            {entry.was && (
              <button type="button" className="text-[14px] text-copper underline-offset-2 hover:underline" onClick={() => setDay(addDays(entry.on, -1))}>
                see it before
              </button>
            )}
            {valid.has(entry.id) && entry.id && (
              <button
                type="button"
                className="text-[14px] text-copper underline-offset-2 hover:underline"
                onClick={() => void attempt(() => postEntry(view, { on: today, kind: 'withdrawn', corrects: entry.id! }))}
              >
                take back
              </button>
            )}
          </li>
        ))}
      </ul>
    </section>
  );
}
