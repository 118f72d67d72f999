import { useRef, useState } from 'react';
import { Link } from 'react-router';
import { useVirtualizer } from '@tanstack/react-virtual';
import type { DueView, TreeSummary, WalkStop } from '@ustle/contract';
import { dayOf, isoOf, vowsOf, type Species, type Task } from '@ustle/core';
import { useNotice } from '../app/notice';
import { DateField } from '../shared/DateField';
import { doAct, fetchTree } from '../shared/desk-store';
import { DAYS, goodMonths } from './good-months';
import { addDays, sayDate, saySpan } from '../shared/say';

const MONTHS = 18;
const ROW = 62;
const LABEL = 150;

const WORK: [Task, string, string][] = [
  ['repotting', 'repot', 'var(--color-bark)'],
  ['wiring', 'wire', 'var(--color-copper)'],
  ['pruning', 'prune', 'var(--color-moss)'],
];

interface Lane {
  tree: TreeSummary;
  species: Species | undefined;
  stops: WalkStop[];
  due: DueView[];
}

/** A mark on a lane that can be chosen: a look, or what was promised. */
export type Chosen = { kind: 'look'; stop: WalkStop } | { kind: 'due'; due: DueView };

const share = (from: string, iso: string): number => Math.min(100, Math.max(0, ((dayOf(iso) - dayOf(from)) / DAYS) * 100));

const GLYPHS = { look: 'M1 7Q7 0 13 7Q7 14 1 7ZM5.2 7a1.8 1.8 0 1 0 3.6 0a1.8 1.8 0 1 0-3.6 0', promise: 'M4 13V1M4 2H11.5L9 5L11.5 8H4' };

/** What stands on a lane: an open eye for a look, a pennant for a promise. */
const Glyph = ({ of }: { of: keyof typeof GLYPHS }) => (
  <svg width="14" height="14" viewBox="0 0 14 14" aria-hidden="true">
    <path d={GLYPHS[of]} fill="none" stroke="currentColor" strokeWidth="1.8" />
  </svg>
);

function Row({
  lane: { tree, species, stops, due },
  from,
  chosen,
  onChoose,
}: {
  lane: Lane;
  from: string;
  chosen: Chosen | null;
  onChoose: (chosen: Chosen) => void;
}) {
  const mark = 'absolute grid h-6 w-6 -translate-x-1/2 place-items-center pointer-coarse:h-11 pointer-coarse:w-11';
  // One look a day is enough to see.
  const looks = [...new Map(stops.map((s) => [s.walk, s])).values()];
  return (
    <div className="flex h-full items-stretch border-b border-rule">
      <Link to={`/tree/${tree.id}/watch`} className="w-[150px] shrink-0 truncate px-4 py-2 font-serif text-lg hover:bg-sheet">
        {tree.name}
      </Link>
      <div className="relative min-w-0 flex-1">
        {species &&
          WORK.map(([task, name, colour], i) =>
            goodMonths(species, task, tree.hemisphere, from).map(([a, b]) => (
              <span
                key={`${task}${a}`}
                title={`Good to ${name}`}
                className="absolute h-[3px]"
                style={{ left: `${a}%`, width: `${b - a}%`, top: 4 + i * 5, background: colour }}
              />
            )),
          )}
        {stops
          .filter((s) => s.window)
          .map((s) => (
            <span
              key={s.of + s.branch}
              title={`${s.name}: can come off clean, ${saySpan(s.window!.from, s.window!.to)}`}
              className="absolute top-[26px] h-2.5 bg-moss"
              style={{ left: `${share(from, s.window!.from)}%`, width: `max(3px, ${share(from, s.window!.to) - share(from, s.window!.from)}%)` }}
            />
          ))}
        {[...new Set(stops.flatMap((s) => (s.marks && s.marks >= from ? [s.marks] : [])))].map((iso) => (
          <span
            key={iso}
            title={`May mark from ${sayDate(iso)}`}
            className="absolute top-[24px] h-3.5 w-[3px] bg-madder"
            style={{ left: `${share(from, iso)}%` }}
          />
        ))}
        {looks.map((s) => (
          <button
            key={s.walk}
            type="button"
            aria-label={`Look at ${tree.name} on ${sayDate(s.walk)}`}
            aria-pressed={chosen?.kind === 'look' && chosen.stop === s}
            className={`${mark} top-[34px] text-ochre aria-pressed:text-copper`}
            style={{ left: `${share(from, s.walk)}%` }}
            onClick={() => onChoose({ kind: 'look', stop: s })}
          >
            <Glyph of="look" />
          </button>
        ))}
        {due
          .filter((d) => d.kind === 'promise' || d.kind === 'held' || d.kind === 'vow' || d.kind === 'stage')
          .map((d) => (
            <button
              key={d.kind + d.on + d.branches.join() + (d.line ?? '')}
              type="button"
              aria-label={`${d.title}, ${sayDate(d.on)}`}
              aria-pressed={chosen?.kind === 'due' && chosen.due === d}
              className={`${mark} top-[34px] text-indigo aria-pressed:text-copper`}
              style={{ left: `${share(from, d.on)}%` }}
              onClick={() => onChoose({ kind: 'due', due: d })}
            >
              <Glyph of="promise" />
            </button>
          ))}
      </div>
    </div>
  );
}

/** What was chosen on a lane, and moving it by hand as far as is sensible. */
function ChosenMark({ chosen, today, onMoved }: { chosen: Chosen; today: string; onMoved: () => void }) {
  const { attempt } = useNotice();
  const look = chosen.kind === 'look' ? chosen.stop : null;
  const due = chosen.kind === 'due' ? chosen.due : null;
  const [to, setTo] = useState(look?.walk ?? due!.on);
  const [why, setWhy] = useState('');
  const [fault, setFault] = useState<string | null>(null);
  const most = look?.marks && look.marks > look.last ? look.marks : (look?.last ?? null);
  const move = async (): Promise<void> => {
    if (look && !why.trim()) return setFault('Say why it is put off.');
    if (most && to > most) return setFault(`Not beyond ${sayDate(most)}: from then ${look!.marks === most ? 'it may mark' : 'the look is overdue'}.`);
    setFault(null);
    const moved = await attempt(async () => {
      const view = await fetchTree((look ?? due!).tree);
      if (look) await doAct(view, { kind: 'snoozed', on: today, branch: look.branch, ...(look.of ? { run: look.of } : {}), until: to, text: why.trim() });
      else if (due!.line) {
        const vow = vowsOf(view.tree).find((v) => v.line.id === due!.line);
        if (vow) {
          const { id: _id, ...line } = vow.line;
          await doAct(view, { ...line, kind: 'promised', on: today, from: to, corrects: due!.line, ...(line.until && line.until < to ? { until: to } : {}) });
        }
      } else
        for (const branch of due!.branches) {
          const own = view.tree.plan.decisions.find((d) => d.branch === branch);
          if (own && own.act !== 'keep' && own.act !== 'undecided')
            await doAct(await fetchTree(due!.tree), { kind: 'decide', on: today, branch, act: own.act, until: to });
        }
    });
    if (moved) onMoved();
  };
  const movable = look?.kind === 'wire' || due?.kind === 'promise' || due?.kind === 'vow';
  return (
    <section aria-label="Chosen" className="border-b border-rule bg-sheet px-4 py-3 sm:px-6">
      <p>
        <strong>{look ? `${look.treeName}: look at ${look.name}, ${look.what}` : `${due!.treeName}: ${due!.title}`}</strong>,{' '}
        {look ? `with the walk of ${sayDate(look.walk)}, by ${sayDate(look.last)} at the latest` : sayDate(due!.on)}.{' '}
        <span className="text-quiet">{look ? look.because[0] : due!.text}</span>
      </p>
      {movable && (
        <form
          className="mt-2 flex flex-wrap items-end gap-3"
          noValidate
          onSubmit={(event) => {
            event.preventDefault();
            void move();
          }}
        >
          <DateField className="w-56" label="Move it to" value={to} today={today} min={today} max={addDays(today, DAYS)} onValue={(iso) => setTo(iso!)} />
          {look && (
            <label>
              <span className="mb-1 block text-quiet">Why</span>
              <input className="input w-64 bg-base-100" maxLength={400} value={why} onChange={(event) => setWhy(event.target.value)} />
            </label>
          )}
          <button type="submit" className="btn btn-primary">
            Move
          </button>
        </form>
      )}
      {fault && (
        <p role="alert" className="mt-1 text-madder">
          {fault}
        </p>
      )}
    </section>
  );
}

/** Eighteen months of every tree: when wire can come off clean, looks, promises, and the months for each kind of work. */
export function Lanes({ trees, species, stops, due, today }: { trees: TreeSummary[]; species: Species[]; stops: WalkStop[]; due: DueView[]; today: string }) {
  const scroll = useRef<HTMLDivElement>(null);
  const [chosen, setChosen] = useState<Chosen | null>(null);
  const from = `${today.slice(0, 8)}01`;
  const lanes = trees
    .filter((t) => !t.asideOn || t.coils)
    .map((tree): Lane => ({
      tree,
      species: species.find((s) => s.name === tree.species),
      stops: stops.filter((s) => s.tree === tree.id),
      due: due.filter((d) => d.tree === tree.id),
    }));
  // eslint-disable-next-line react-hooks/incompatible-library
  const rows = useVirtualizer({ count: lanes.length, getScrollElement: () => scroll.current, estimateSize: () => ROW, overscan: 6 });
  const months = Array.from({ length: MONTHS }, (_, i) => isoOf(dayOf(from) + Math.round((i * DAYS) / MONTHS) + 10));
  return (
    <>
      {chosen && (
        <ChosenMark
          key={chosen.kind === 'look' ? chosen.stop.tree + chosen.stop.walk : chosen.due.tree + chosen.due.on + chosen.due.kind}
          chosen={chosen}
          today={today}
          onMoved={() => setChosen(null)}
        />
      )}
      <div ref={scroll} className="h-[calc(100dvh-150px)] min-h-72 overflow-auto" role="region" aria-label="Lanes" tabIndex={0}>
        <div className="min-w-[860px]">
          <div className="sticky top-0 z-10 flex border-b border-rule bg-base-100 text-quiet">
            <span className="shrink-0" style={{ width: LABEL }} />
            {months.map((m, i) => (
              <span key={m} className="min-w-0 flex-1 border-l border-rule py-1 pl-1 text-[0.94rem]">
                {new Date(`${m}T00:00:00Z`).toLocaleDateString('en-GB', { month: 'short', timeZone: 'UTC' })}
                {(i === 0 || m.slice(5, 7) === '01') && <strong className="block text-ink">{m.slice(0, 4)}</strong>}
              </span>
            ))}
          </div>
          <div className="relative" style={{ height: rows.getTotalSize() }}>
            <span
              className="absolute bottom-0 top-0 pointer-events-none z-[5] w-[2px] bg-copper"
              style={{ left: `calc(${LABEL}px + (100% - ${LABEL}px) * ${share(from, today) / 100})` }}
              aria-hidden="true"
            />
            {rows.getVirtualItems().map((row) => (
              <div key={row.key} className="absolute left-0 right-0" style={{ top: row.start, height: row.size }}>
                <Row lane={lanes[row.index]!} from={from} chosen={chosen} onChoose={setChosen} />
              </div>
            ))}
          </div>
        </div>
      </div>
      <div className="flex flex-wrap gap-x-5 gap-y-1 border-t border-rule px-4 py-2 text-quiet sm:px-6">
        <span className="flex items-center gap-2">
          <span className="h-2.5 w-5 bg-moss" />
          wire can come off clean
        </span>
        <span className="flex items-center gap-2">
          <span className="h-3.5 w-[3px] bg-madder" />
          from then it may mark
        </span>
        <span className="flex items-center gap-2">
          <span className="text-ochre">
            <Glyph of="look" />
          </span>
          a look
        </span>
        <span className="flex items-center gap-2">
          <span className="text-indigo">
            <Glyph of="promise" />
          </span>
          promised, or to be measured
        </span>
        {WORK.map(([task, name, colour]) => (
          <span key={task} className="flex items-center gap-2">
            <span className="h-[3px] w-5" style={{ background: colour }} />
            good to {name}
          </span>
        ))}
      </div>
    </>
  );
}
