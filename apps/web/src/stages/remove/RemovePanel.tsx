import { useCallback, useEffect, useMemo, useRef, useState } from 'react';
import { decisionsOf, type Act, type Branch, type Finding } from '@ustle/core';
import { useNotice } from '../../app/notice';
import { putDecision } from '../../shared/api';
import { Bar, Caution, PanelHead, Skeleton } from '../../shared/parts';
import { percent } from '../../shared/say';
import { useDesk } from '../tree-context';

const ACTS: { act: Act; name: string; key: string }[] = [
  { act: 'keep', name: 'Keep', key: 'k' },
  { act: 'remove', name: 'Take off', key: 'x' },
  { act: 'reserve', name: 'Reserve', key: 'r' },
  { act: 'undecided', name: 'Undecided', key: 'u' },
];
const ACT_WORDS: Partial<Record<Act, string>> = { keep: 'keep', remove: 'take off', reserve: 'reserve', undecided: '' };
const SEVERITY = ['', 'text-quiet', 'text-ochre', 'text-madder'];

/** Branches listed at first; a scan may bring thousands. */
const ROWS = 120;
const NOTHING_FOUND: Finding[] = [];

interface RowProps {
  branch: Branch;
  act: Act;
  findings: Finding[];
  open: boolean;
  onOpen: () => void;
  onAct: (act: Act) => void;
}

function Row({ branch, act, findings, open, onOpen, onAct }: RowProps) {
  const row = useRef<HTMLLIElement>(null);
  useEffect(() => {
    if (open) row.current?.scrollIntoView({ block: 'nearest' });
  }, [open]);
  return (
    <li ref={row} className={`border-t border-rule ${open ? 'bg-base-100' : ''}`}>
      <button type="button" className="flex w-full items-baseline gap-3 px-2 py-2 text-left" aria-expanded={open} onClick={onOpen}>
        <strong className={`w-10 shrink-0 ${act === 'remove' ? 'line-through decoration-madder decoration-2' : ''}`}>{branch.id}</strong>
        <span className="min-w-0 flex-1 truncate">
          {findings.length ? (
            findings.map((f) => (
              <span key={f.rule} className={SEVERITY[f.severity]}>
                {f.rule.replace('-', ' ')}{' '}
              </span>
            ))
          ) : (
            <span className="text-quiet">{branch.name ?? `on ${branch.parent}, ${branch.d.toFixed(0)} mm`}</span>
          )}
        </span>
        <span className={act === 'remove' ? 'text-madder' : act === 'keep' ? 'text-moss' : 'text-ochre'}>{ACT_WORDS[act] ?? act}</span>
        <span className="w-10 text-right text-quiet">{percent(branch.green)}</span>
      </button>
      {open && (
        <div className="space-y-2 px-2 pb-3">
          {findings.map((f) => (
            <div key={f.rule}>
              {f.because.map((b) => (
                <p key={b}>{b}</p>
              ))}
              {f.conflicts.length > 0 && <p className="text-madder">It carries {f.conflicts.join(', ')}: that wire loses its branch.</p>}
            </div>
          ))}
          {!findings.length && <p className="text-quiet">Nothing speaks against this branch.</p>}
          <div className="flex flex-wrap gap-1.5">
            {ACTS.map((a) => (
              <button
                key={a.act}
                type="button"
                aria-pressed={a.act === act}
                className={`btn btn-sm ${a.act === act ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
                onClick={() => onAct(a.act)}
              >
                {a.name} <kbd className="text-[12px] opacity-60">{a.key.toUpperCase()}</kbd>
              </button>
            ))}
          </div>
        </div>
      )}
    </li>
  );
}

export function RemovePanel() {
  const { view, tree, plan, branch, setBranch } = useDesk();
  const { attempt } = useNotice();
  const acts = useMemo(() => decisionsOf(tree), [tree]);
  /** Branches with findings first, from below; then the others. */
  const { order, findingsOn, byId } = useMemo(() => {
    const on = new Map<string, Finding[]>();
    for (const f of plan?.findings ?? []) on.set(f.branch, [...(on.get(f.branch) ?? []), f]);
    return {
      order: [...on.keys(), ...tree.branches.map((b) => b.id).filter((id) => !on.has(id))],
      findingsOn: on,
      byId: new Map(tree.branches.map((b) => [b.id, b])),
    };
  }, [plan, tree]);
  const [shown, setShown] = useState(ROWS);
  const rows = branch && order.indexOf(branch) >= shown ? order.slice(0, order.indexOf(branch) + 1) : order.slice(0, shown);
  const act = useCallback((id: string, to: Act) => void attempt(() => putDecision(view, id, { act: to })), [attempt, view]);

  // The address follows the keys with a delay; a quick hand is ahead of it.
  const at = useRef(branch);
  useEffect(() => {
    at.current = branch;
  }, [branch]);

  useEffect(() => {
    const go = (by: number): void => {
      const from = at.current ? order.indexOf(at.current) : -1;
      at.current = order[Math.min(order.length - 1, Math.max(0, from + by))] ?? null;
      setBranch(at.current);
    };
    const onKey = (event: KeyboardEvent): void => {
      if (event.ctrlKey || event.metaKey || (event.target instanceof HTMLElement && event.target.matches('input, textarea, select'))) return;
      const key = event.key.toLowerCase();
      if (key === 'j') go(1);
      else if (key === 'l') go(-1);
      const chosen = ACTS.find((a) => a.key === key);
      if (chosen && at.current) act(at.current, chosen.act);
    };
    window.addEventListener('keydown', onKey);
    return () => window.removeEventListener('keydown', onKey);
  }, [order, setBranch, act]);

  if (!plan) return <Skeleton lines={9} />;
  const { removed, cap } = plan.green;
  const found = findingsOn.size;
  return (
    <>
      <PanelHead title="What to remove">
        {found
          ? `${found} ${found === 1 ? 'branch has' : 'branches have'} something against them. You decide; nothing here is a must.`
          : 'Nothing was found against any branch.'}
      </PanelHead>
      <div className="mb-1 flex justify-between">
        <span>Green coming off</span>
        <span>
          <strong>{percent(removed)}</strong> <span className="text-quiet">of at most {percent(cap)} this year</span>
        </span>
      </div>
      <Bar share={removed / Math.max(cap * 1.5, removed)} limit={cap / Math.max(cap * 1.5, removed)} tone={removed > cap ? 'madder' : 'moss'} />
      {removed > cap && <p className="mt-2 text-madder">More than this tree likes to lose in a year. Leave part of it for the next session.</p>}
      {!tree.plan.front && <p className="mt-3 text-quiet">Choose a front first, and what points at the eye or hides the trunk is found too.</p>}
      <ul className="mb-4 mt-4 border-b border-rule">
        {rows.map((id) => (
          <Row
            key={id}
            branch={byId.get(id)!}
            act={acts.get(id) ?? 'undecided'}
            findings={findingsOn.get(id) ?? NOTHING_FOUND}
            open={id === branch}
            onOpen={() => setBranch(id === branch ? null : id)}
            onAct={(to) => act(id, to)}
          />
        ))}
      </ul>
      {rows.length < order.length && (
        <button type="button" className="btn btn-ghost btn-sm mb-4" onClick={() => setShown(shown + ROWS)}>
          {order.length - rows.length} more branches
        </button>
      )}
      <Caution>
        Cutters and saws: keep the other hand behind the blade, and wear eye protection. What is cut stays cut; a client's tree waits for their word.
      </Caution>
    </>
  );
}
