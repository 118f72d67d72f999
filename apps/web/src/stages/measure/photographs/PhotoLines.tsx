import type { FoundLine } from '@ustle/core';
import { Quiet } from '../../../shared/parts';
import { count } from '../../../shared/say';
import type { Photographs } from './use-photographs';

/** A line that is farther off in a photo than this, px, is to be looked at. */
const OFF_PX = 3;

const plusMinus = (value: number, sd: number, digits: number): string => `${value.toFixed(digits)} ± ${Math.max(sd, 10 ** -digits / 2).toFixed(digits)}`;
const sayFound = (l: FoundLine): string =>
  [
    `${plusMinus(l.length, l.sd.length, 0)} mm long`,
    ...(l.line === 'trunk' ? [] : [`at ${l.elevation < 0 ? '−' : ''}${Math.abs(l.elevation).toFixed(0)} ± ${Math.max(1, l.sd.angleDeg).toFixed(0)}°`]),
    l.d === null ? 'thickness not drawn' : `${plusMinus(l.d, l.sd.d, 1)} mm thick`,
  ].join(', ');

/** In which photos a line is drawn, how far each is off, and where it is drawn best next. */
function Chosen({ ph }: { ph: Photographs }) {
  const { line, sight, found, numbers } = ph;
  const drawn = sight.drawn.filter((d) => d.line === line);
  const next = ph.nextFor(line);
  const space = found.get(line);
  const without = ph.solved?.without.find((w) => w.line === line)?.why;
  const off = new Map((space?.perPhoto ?? []).map((p) => [p.photo, p]));
  return (
    <div className="space-y-1 border-l-4 border-copper bg-base-100 px-3 py-2">
      {drawn.length > 0 && (
        <ul className="flex flex-wrap gap-x-4 gap-y-1">
          {drawn.map((d) => {
            const own = off.get(d.photo);
            const far = own !== undefined && own.rmsPx > OFF_PX;
            return (
              <li key={d.photo} className={far ? 'text-madder' : ''}>
                <Quiet onClick={() => ph.look(d.photo)}>photo {numbers.get(d.photo)}</Quiet>
                {own && far ? `: ${own.mm.toFixed(0)} mm off` : own && !space?.flat ? `: ${own.rmsPx.toFixed(1)} px` : ''}
              </li>
            );
          })}
        </ul>
      )}
      {space?.notes.map((n) => (
        <p key={n}>{ph.said(n)}</p>
      ))}
      {without && drawn.length > 0 && <p>{ph.said(without)}</p>}
      <p className="flex flex-wrap gap-x-4">
        {next && (
          <Quiet onClick={() => ph.look(next)}>
            {drawn.length ? `next in photo ${numbers.get(next)}, which tells most` : `begin in photo ${numbers.get(next)}`}
          </Quiet>
        )}
        {drawn.length > 0 && <Quiet onClick={() => void ph.forgetLine(line)}>take its drawings away</Quiet>}
      </p>
    </div>
  );
}

/** What is drawn: each line with how well it is known; one of them is in hand. */
export function PhotoLines({ ph }: { ph: Photographs }) {
  const { lines, found, sight, line } = ph;
  return (
    <>
      <h3 className="mb-1 text-lg">Drawn over them</h3>
      <div className="mb-2 flex flex-wrap gap-2">
        <button type="button" className="btn btn-outline btn-sm" onClick={ph.add}>
          A further branch
        </button>
        <button type="button" className="btn btn-outline btn-sm border-rule font-normal" onClick={() => ph.addPart('root')}>
          A root
        </button>
        <button type="button" className="btn btn-outline btn-sm border-rule font-normal" title="dead wood on the trunk" onClick={() => ph.addPart('shari')}>
          Dead wood
        </button>
      </div>
      {ph.undrawn.length > 0 && (
        <label className="mb-2 flex items-center gap-2 text-quiet">
          or one of the list
          <select className="select select-sm min-w-0 flex-1 bg-sheet" value="" onChange={(event) => ph.choose(event.target.value)}>
            <option value="">choose it</option>
            {ph.undrawn.map((b) => (
              <option key={b.id} value={b.id}>
                {ph.nameOf(b.id)}
              </option>
            ))}
          </select>
        </label>
      )}
      <ul className="divide-y divide-rule border-y border-rule">
        {lines.map((l) => {
          const space = found.get(l);
          const times = sight.drawn.filter((d) => d.line === l).length;
          const far = space?.perPhoto.some((p) => p.rmsPx > OFF_PX);
          return (
            <li key={l}>
              <button
                type="button"
                aria-pressed={l === line}
                className={`grid min-h-9 w-full grid-cols-[128px_1fr] items-baseline gap-2 py-1 text-left pointer-coarse:min-h-11 ${l === line ? 'font-semibold' : 'hover:bg-base-100'}`}
                onClick={() => ph.choose(l)}
              >
                <span>{ph.nameOf(l)}</span>
                <span className={`font-normal ${far ? 'text-madder' : 'text-quiet'}`}>
                  {space ? sayFound(space) : times ? `drawn in ${count(times, 'photo')}` : 'not drawn yet'}
                </span>
              </button>
              {l === line && <Chosen ph={ph} />}
            </li>
          );
        })}
      </ul>
    </>
  );
}
