import { paths } from '@ustle/contract';
import { branchIn, byWhom, sayLine, standing, type RecordLine } from '@ustle/core';
import { Quiet } from '../shared/parts';
import { addDays, sayDate } from '../shared/say';
import { useAddress } from '../stages/address';
import { useDesk } from '../stages/desk';
import { byDay } from './by-day';

function Photo({ line }: { line: Extract<RecordLine, { kind: 'photo' }> }) {
  const { names, today } = useDesk();
  const { get, set } = useAddress();
  if (!line.photo) return null;
  const over = get('photo') === line.photo;
  // All at once: the address takes one change at a time.
  const lay = (): void =>
    set(
      over
        ? { photo: null }
        : { photo: line.photo!, day: line.on === today ? null : line.on, ...(line.bearing === undefined ? {} : { bearing: String(line.bearing) }) },
    );
  return (
    <figure className="my-1 w-56">
      <a href={paths.photo(line.photo)} target="_blank" rel="noreferrer">
        <img
          src={paths.photo(line.photo, 'small')}
          alt={sayLine(line, names)}
          width={224}
          height={line.width && line.height ? Math.round((224 * line.height) / line.width) : undefined}
          loading="lazy"
          className="bg-rule/40"
        />
      </a>
      <figcaption>
        <Quiet onClick={lay}>{over ? 'take it off the table' : 'lay it over the tree'}</Quiet>
      </figcaption>
    </figure>
  );
}

/** The record as a story by date. A slip is taken back by a further line; what was written stays readable. */
export function Story({ lines }: { lines: readonly RecordLine[] }) {
  const { tree, names, setDay, day, act } = useDesk();
  const valid = new Set(standing(tree.record));
  const days = byDay(lines);
  if (!days.length) return <p className="mt-4 text-quiet">Nothing of that stands in the record.</p>;
  return (
    <ol className="mt-4" aria-label="Record">
      {days.map(({ on, lines: of }) => (
        <li key={on} className="border-t border-rule py-2">
          <h2 className="flex flex-wrap items-baseline justify-between gap-3 text-lg">
            {sayDate(on)}
            <span className="font-sans text-[0.97rem] print:hidden">
              {day === on ? (
                <span className="text-quiet">shown</span>
              ) : (
                <Quiet onClick={() => setDay(on)} label={`Show the tree on ${sayDate(on)}`}>
                  show the tree
                </Quiet>
              )}
              {of.some((l) => 'was' in l && l.was) && (
                <span className="pl-4">
                  <Quiet onClick={() => setDay(addDays(on, -1))} label={`and before the cuts of ${sayDate(on)}`}>
                    and before the cuts
                  </Quiet>
                </span>
              )}
            </span>
          </h2>
          <ul>
            {of.map((line, i) => {
              const branch = branchIn(line);
              const stands = valid.has(line);
              return (
                <li key={line.id ?? i} className="flex gap-3 py-0.5">
                  <div className={`min-w-0 flex-1 ${stands ? '' : 'text-quiet line-through'}`}>
                    <span className="first-letter:uppercase">
                      {branch && line.kind !== 'worked' ? `${names(branch)}: ` : ''}
                      {sayLine(line, names)}
                      {line.kind === 'session' && line.weather ? `; ${line.weather}` : ''}
                      {byWhom(line)}
                    </span>
                    {line.kind === 'photo' && stands && <Photo line={line} />}
                  </div>
                  {stands && line.id && (
                    <span className="print:hidden">
                      <Quiet onClick={() => void act({ kind: 'withdrawn', corrects: line.id! })} label={`Take back: ${sayLine(line, names)}`}>
                        take back
                      </Quiet>
                    </span>
                  )}
                </li>
              );
            })}
          </ul>
        </li>
      ))}
    </ol>
  );
}
