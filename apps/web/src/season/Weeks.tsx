import { groupedBy } from '@ustle/core';
import { useEffect, useLayoutEffect, useRef, useState } from 'react';
import { flushSync } from 'react-dom';
import { Link } from 'react-router';
import { useVirtualizer } from '@tanstack/react-virtual';
import { getISODay, parseISO } from 'date-fns';
import type { DueView } from '@ustle/contract';
import { addDays, daysBetween, sayBrief, sayDate, sayShort } from '../shared/say';
import { StageGlyph, type Glyph } from '../shared/StageGlyph';

interface Week {
  title: string;
  days: DueView[];
}

/** The dated work by week, Monday to Sunday; the first week is this one. */
function weeksOf(days: readonly DueView[], today: string): Week[] {
  const monday = addDays(today, 1 - getISODay(parseISO(today)));
  const byWeek = groupedBy(days, (day) => Math.floor(daysBetween(monday, day.on) / 7));
  return [...byWeek]
    .sort((a, b) => a[0] - b[0])
    .map(([week, list]) => {
      const from = addDays(monday, week * 7);
      const name = week === 0 ? 'This week' : week === 1 ? 'Next week' : `Week of ${sayDate(from)}`;
      return { title: name, days: list };
    });
}

const GLYPHS: Record<DueView['kind'], Glyph> = {
  look: 'unseen',
  remove: 'unseen',
  window: 'unseen',
  held: 'none',
  stage: 'none',
  promise: 'none',
  vow: 'none',
  session: 'none',
  plan: 'none',
};

function Item({ item, today }: { item: DueView; today: string }) {
  return (
    <div className="border-t border-rule">
      <Link
        to={`/tree/${item.tree}/${item.leadsTo}${item.branches[0] ? `?branch=${item.branches[0]}` : ''}`}
        className="grid grid-cols-[24px_1fr] gap-x-3 gap-y-0.5 px-4 py-3 hover:bg-sheet sm:grid-cols-[24px_120px_170px_1fr] sm:px-6"
      >
        <StageGlyph stage={item.mark ?? GLYPHS[item.kind]} />
        <span className={item.kind !== 'plan' && item.on <= today ? 'font-bold text-copper' : ''}>
          {item.kind === 'plan' ? 'open' : item.since ? `since ${sayBrief(item.since)}` : item.on <= today ? 'today' : sayShort(item.on)}
        </span>
        <span className="col-start-2 font-serif text-lg leading-6 sm:col-start-3">{item.treeName}</span>
        <span className="col-start-2 sm:col-start-4">
          <strong className="font-semibold">{/\?$/.test(item.title) ? item.title : `${item.title}.`}</strong> <span className="text-quiet">{item.text}</span>
        </span>
      </Link>
    </div>
  );
}

type Row = { title: string } | { item: DueView };

/** Whether the page is being put on paper, where all of it has to be. */
function usePrinting(): boolean {
  const [printing, setPrinting] = useState(false);
  useEffect(() => {
    const tell = (on: boolean) => () => flushSync(() => setPrinting(on));
    const [before, after] = [tell(true), tell(false)];
    window.addEventListener('beforeprint', before);
    window.addEventListener('afterprint', after);
    return () => {
      window.removeEventListener('beforeprint', before);
      window.removeEventListener('afterprint', after);
    };
  }, []);
  return printing;
}

/** Rows beyond what is seen: so many that a usual yard is on the page whole, to be searched and walked by Tab. */
const BEYOND = 60;
const ROW_PX = 54;

/** What is due by week, then what has no day. However long it is, only what is near the eye is drawn. */
export function Weeks({ days, from }: { days: readonly DueView[]; from: string }) {
  const box = useRef<HTMLDivElement>(null);
  const [top, setTop] = useState(0);
  const printing = usePrinting();
  const open = days.filter((d) => d.kind === 'plan');
  const weeks = [
    ...weeksOf(
      days.filter((d) => d.kind !== 'plan'),
      from,
    ),
    ...(open.length ? [{ title: 'When you like', days: open }] : []),
  ];
  const rows = weeks.flatMap(({ title, days: of }): Row[] => [{ title }, ...of.map((item) => ({ item }))]);
  useLayoutEffect(() => setTop(box.current!.offsetTop), []);
  // eslint-disable-next-line react-hooks/incompatible-library
  const list = useVirtualizer({
    count: rows.length,
    getScrollElement: () => box.current?.closest<HTMLElement>('.overflow-auto') ?? null,
    estimateSize: () => ROW_PX,
    overscan: BEYOND,
    scrollMargin: top,
  });
  const seen = list.getVirtualItems();
  const [first, last] = [seen[0], seen.at(-1)];
  const shown = printing ? rows.map((_, index) => ({ index, key: index })) : seen;
  return (
    <div
      ref={box}
      className="border-b border-rule"
      style={printing || !first ? {} : { paddingTop: first.start - top, paddingBottom: Math.max(0, list.getTotalSize() + top - last!.end) }}
    >
      {shown.map(({ index, key }) => {
        const row = rows[index]!;
        return (
          <div key={key} ref={list.measureElement} data-index={index}>
            {'title' in row ? <h2 className="px-4 pb-2 pt-6 text-lg sm:px-6">{row.title}</h2> : <Item item={row.item} today={from} />}
          </div>
        );
      })}
    </div>
  );
}
