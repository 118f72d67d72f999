import type { MailView, WalkView } from '@ustle/contract';
import { dayOf, groupedBy, isoOf, sayDay } from '@ustle/core';

/** The notice of a walk that is due by tomorrow; null where none is. */
export function noticeOf({ on, stops }: WalkView): MailView | null {
  const tomorrow = isoOf(dayOf(on) + 1);
  const due = stops.filter((s) => s.walk <= tomorrow);
  if (!due.length) return null;
  const day = due.map((s) => s.walk).sort()[0]!;
  const byTree = groupedBy(due, (s) => s.treeName);
  return {
    id: `walk-${day}`,
    on,
    subject: `${day <= on ? 'Today' : 'Tomorrow'}: a walk past ${byTree.size} ${byTree.size === 1 ? 'tree' : 'trees'}, ${due.length} ${due.length === 1 ? 'look' : 'looks'}`,
    text: [
      `For ${sayDay(dayOf(day))}:`,
      ...[...byTree].flatMap(([tree, of]) => [tree, ...of.map((s) => `  ${s.name}, ${s.what}: ${s.because[0] ?? ''}`)]),
    ].join('\n'),
  };
}
