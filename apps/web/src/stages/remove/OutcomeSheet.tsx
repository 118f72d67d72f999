import { useEffect } from 'react';
import { add, ring, scale, screenAxes, type Consequences, type EitherWay, type Evidence, type Gap, type Looks, type ProposedSession } from '@ustle/core';
import { percent, sayDate } from '../../shared/say';
import { Budget } from '../Budget';
import { useDesk } from '../desk';
import { useRemove } from './kit';

function BeforeAfter({ before, after }: { before: Looks; after: Looks }) {
  const rows: [string, string, string][] = [
    ['Trunk in sight', percent(before.trunkInSight), percent(after.trunkInSight)],
    ['Score of the front', String(Math.round(before.score * 100)), String(Math.round(after.score * 100))],
    ['Back branch', before.backBranch ? 'yes' : 'none', after.backBranch ? 'yes' : 'none'],
  ];
  return (
    <table className="w-full">
      <thead>
        <tr className="text-left text-[0.94rem] text-quiet">
          <td />
          <th className="font-normal">as it is</th>
          <th className="font-normal">after the cuts</th>
        </tr>
      </thead>
      <tbody>
        {rows.map(([name, was, will]) => (
          <tr key={name} className="border-t border-rule">
            <th className="py-1.5 text-left font-normal">{name}</th>
            <td>{was}</td>
            <td className={will === was ? '' : 'font-bold'}>{will}</td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}

function Sessions({ sessions }: { sessions: readonly ProposedSession[] }) {
  const { act, names } = useDesk();
  const later = sessions.filter((s) => s.session > 1);
  const leave = async (): Promise<void> => {
    for (const s of later) if (!(await act({ kind: 'put-off', branches: s.branches, session: s.session, until: s.on }))) return;
  };
  return (
    <section className="mt-4 border-l-4 border-ochre bg-base-100 px-3 py-2">
      <h3 className="text-lg">More than one session</h3>
      <ul className="mt-1 space-y-1.5">
        {sessions.map((s) => (
          <li key={s.session}>
            <strong>{s.session === 1 ? 'Now' : s.on ? `From ${sayDate(s.on)}` : 'No day found'}</strong>: {s.branches.map(names).join('; ') || 'nothing'} (
            {percent(s.green)})<div className="text-[0.94rem] text-quiet">{s.because}</div>
          </li>
        ))}
      </ul>
      {later.length > 0 && (
        <button type="button" className="btn btn-primary btn-sm mt-2" onClick={() => void leave()}>
          Leave them for then
        </button>
      )}
    </section>
  );
}

/** Words for where a gap is, seen from the front or from above. */
function sayGap(gap: Gap): string {
  const width = (2 * gap.radius).toFixed(0);
  return gap.seen === 'front' ? `${width} mm wide, ${gap.center[2].toFixed(0)} mm up` : `${width} mm wide, seen from above`;
}

function gapEvidence(gap: Gap, bearing: number): Evidence {
  const { right, up } = screenAxes(bearing);
  const axes = gap.seen === 'front' ? ([right, up] as const) : ([right, screenAxes(bearing).toward] as const);
  return { lines: [ring(gap.center, gap.radius, axes)], words: [{ at: add(gap.center, scale(axes[1], gap.radius)), text: sayGap(gap) }] };
}

function Gaps({ gaps, bearing }: { gaps: readonly Gap[]; bearing: number }) {
  const { setBranch, names } = useDesk();
  const { setSpot } = useRemove();
  if (!gaps.length) return <p className="mt-1 text-quiet">No hole in the outline.</p>;
  return (
    <ul className="mt-1 border-b border-rule">
      {gaps.map((g, i) => {
        const show = (): void => setSpot(gapEvidence(g, bearing));
        return (
          <li key={i} className="border-t border-rule py-1.5">
            <button type="button" className="flex w-full items-baseline gap-2 text-left hover:text-copper" onMouseEnter={show} onFocus={show} onClick={show}>
              <span className="flex-1">{sayGap(g)}</span>
              <span className={`text-[0.94rem] ${g.opened ? 'text-ochre' : 'text-quiet'}`}>{g.opened ? 'opened by the cuts' : 'there before'}</span>
            </button>
            <div className="text-[0.94rem]">
              {g.fills.map((f) => (
                <button
                  key={f.branch}
                  type="button"
                  className={`mr-4 text-left hover:underline ${f.reaches ? 'text-moss' : 'text-quiet'}`}
                  onClick={() => setBranch(f.branch)}
                >
                  {names(f.branch)}: {f.because}
                </button>
              ))}
            </div>
          </li>
        );
      })}
    </ul>
  );
}

function Either({ ways, index }: { ways: readonly [EitherWay, EitherWay]; index: number }) {
  const { act, names } = useDesk();
  const { pair, setPair } = useRemove();
  const [a] = ways;
  return (
    <section className="mt-4">
      <div className="flex items-baseline justify-between gap-2">
        <h3 className="text-lg">
          Either {names(a.keep)} or {names(a.remove)}
        </h3>
        <span className="flex gap-3 text-[0.94rem]">
          <button type="button" className="text-copper underline-offset-2 hover:underline" onClick={() => setPair(pair === index ? null : index)}>
            {pair === index ? 'one picture' : 'side by side'}
          </button>
          <button
            type="button"
            className="text-quiet underline-offset-2 hover:underline"
            onClick={() => {
              setPair(null);
              void act({ kind: 'either', a: a.keep, b: a.remove });
            }}
          >
            drop
          </button>
        </span>
      </div>
      <div className="mt-1 grid grid-cols-2 gap-4">
        {ways.map((w) => (
          <div key={w.keep}>
            <button
              type="button"
              className="btn btn-outline btn-primary btn-sm w-full"
              onClick={() => void act({ kind: 'decide', branch: w.keep, act: 'keep' })}
            >
              Keep {names(w.keep)}
            </button>
            <dl className="mt-1 grid grid-cols-[1fr_auto] gap-x-2 text-[0.94rem]">
              <dt className="text-quiet">green off</dt>
              <dd>{percent(w.green)}</dd>
              <dt className="text-quiet">front</dt>
              <dd>{Math.round(w.looks.score * 100)}</dd>
              <dt className="text-quiet">trunk in sight</dt>
              <dd>{percent(w.looks.trunkInSight)}</dd>
              <dt className="text-quiet">gaps opened</dt>
              <dd>{w.gaps}</dd>
            </dl>
            {w.losses.map((l) => (
              <p key={l.kind} className="mt-1 text-[0.94rem] text-ochre">
                {names(w.remove)}: {l.text}
              </p>
            ))}
          </div>
        ))}
      </div>
    </section>
  );
}

/** What the plan's cuts lead to, before anything is cut. */
export function OutcomeSheet({ weighed }: { weighed: Consequences }) {
  const { names } = useDesk();
  const { setSpot, wiping, setWiping } = useRemove();
  useEffect(() => () => setSpot(null), [setSpot]);
  return (
    <>
      <button type="button" className="btn btn-outline btn-primary btn-sm mb-2" aria-pressed={wiping} onClick={() => setWiping(!wiping)}>
        {wiping ? 'The plan alone' : 'Wipe before and after'}
      </button>
      <BeforeAfter before={weighed.before} after={weighed.after} />
      <Budget reading={weighed.reading} />
      {weighed.sessions && <Sessions sessions={weighed.sessions} />}
      {weighed.losses.length > 0 && (
        <section className="mt-4">
          <h3 className="text-lg">What would be lost</h3>
          <ul className="mt-1">
            {weighed.losses.map((l) => (
              <li key={`${l.branch}${l.kind}`} className={l.kind === 'wire' || l.kind === 'guy' ? 'text-madder' : ''}>
                <strong>{names(l.branch)}</strong>: {l.text}
              </li>
            ))}
          </ul>
        </section>
      )}
      {weighed.either.map((ways, i) => (
        <Either key={`${ways[0].keep} ${ways[0].remove}`} ways={ways} index={i} />
      ))}
      <section className="mt-4">
        <h3 className="text-lg">Gaps, and who could fill them</h3>
        <Gaps gaps={weighed.gaps} bearing={weighed.front.bearing} />
      </section>
      {weighed.promises.length > 0 && (
        <section className="mt-4">
          <h3 className="text-lg">Comes back later</h3>
          <ul className="mt-1">
            {weighed.promises.map((p) => (
              <li key={p.branch}>
                <strong>{names(p.branch)}</strong>, {p.kind}
                {p.on ? `, ${p.ready ? 'now' : sayDate(p.on)}` : ''}. <span className="text-quiet">{p.text}</span>
              </li>
            ))}
          </ul>
        </section>
      )}
    </>
  );
}
