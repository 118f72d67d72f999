import { useState } from 'react';
import { KEPT_SIGHT, PLUMB_LINE, POT_LINE } from '@ustle/core';
import { paths } from '@ustle/contract';
import { FileButton } from '../../../shared/FileButton';
import { NumberField } from '../../../shared/NumberField';
import { Quiet } from '../../../shared/parts';
import { percent } from '../../../shared/say';
import { useDesk } from '../../desk';
import { useMeasure } from '../kit';
import { PhotoLines } from './PhotoLines';
import { SinceBefore } from './SinceBefore';
import { SimulatedCamera } from './SimulatedCamera';
import type { Photographs } from './use-photographs';

const FEWEST_GOOD = 6;
/** Foliage is found with so many photos and more. */
const FEWEST_GREEN = 3;

/** What is wrong with photos, each with a way to take it out. */
function NotUsed({ ph }: { ph: Photographs }) {
  const why = ph.sight.photos.filter((p) => ph.left.has(p.photo));
  const { refused } = ph;
  // What is said of one line stands with it.
  const notes = (ph.solved?.notes ?? []).filter((n) => !ph.lines.some((l) => n.startsWith(`${l}: `)));
  if (!why.length && !refused.length && !notes.length && !ph.answer?.refused && !ph.answer?.scale) return null;
  return (
    <ul className="mb-3 space-y-1 border-l-4 border-ochre px-3 py-1" aria-label="About the photos" role="status">
      {ph.answer?.refused && <li>{ph.said(ph.answer.refused)}</li>}
      {refused.map((r) => (
        <li key={r.name} className="text-madder">
          {r.name}: {r.why}
        </li>
      ))}
      {ph.answer?.scale && (
        <li>
          {ph.answer.scale} <Quiet onClick={() => ph.choose(POT_LINE)}>mark the pot’s width in two photos</Quiet>
        </li>
      )}
      {why.map((p) => (
        <li key={p.photo}>
          <Quiet onClick={() => ph.look(p.photo)}>Photo {ph.numbers.get(p.photo)}</Quiet>: {ph.left.get(p.photo)}{' '}
          <Quiet onClick={() => void ph.takeOut(p.photo)} label={`Take photo ${ph.numbers.get(p.photo)} out`}>
            take it out
          </Quiet>
        </li>
      ))}
      {notes.map((n) => (
        <li key={n}>{ph.said(n)}</li>
      ))}
    </ul>
  );
}

function FirstSteps() {
  return (
    <ol className="my-3 list-decimal space-y-2 pl-6">
      <li>
        <a className="underline" href={paths.cards()} target="_blank" rel="noreferrer">
          Print the cards
        </a>{' '}
        (two pages) at their full size, cut them out, and lay four to eight of them flat round the pot. Card 0 lies where the mark on the pot is: bearing 0.
      </li>
      <li>
        Take 8 to 16 photos round the tree: most from about the height of its branches, a few from above. Each shows the whole tree and two cards or more.
        Neither the pot nor a card may move meanwhile.
      </li>
      <li>Bring them in here, or open this page on the phone and take them with it.</li>
    </ol>
  );
}

/** A tree measured by photos: they come in, lines are drawn over them, the tree takes what follows. */
export function PhotographsSheet() {
  const { stored } = useDesk();
  const { photographs: ph } = useMeasure();
  const [over, setOver] = useState(false);
  const { sight, solved, answer, coming } = ph;
  const bring = (files: readonly File[]): void => void ph.bring(files.map((file) => ({ picture: file, name: file.name })));
  const used = solved?.cameras.length ?? 0;
  const stand = used === 1 ? 'One photo stands' : `${used} photos stand`;
  const byCards = sight.photos.some((p) => p.cards.length > 1);
  const changed = answer?.by?.changed ?? [];
  const trunkDrawn = ph.found.has('trunk') && ph.answer?.by !== null;
  const ready = ph.isWorkedOut && trunkDrawn && changed.length > 0;
  return (
    <div
      className={over ? 'outline-2 outline-copper' : ''}
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        bring([...event.dataTransfer.files]);
      }}
    >
      {!sight.photos.length && <FirstSteps />}
      <div className="mb-2 flex flex-wrap items-center gap-x-3 gap-y-2">
        <FileButton
          label={sight.photos.length ? 'More photos' : 'Bring photos in'}
          what="Photos to measure by"
          accept="image/jpeg,image/png,image/webp,image/heic,.heic"
          multiple
          disabled={coming !== null}
          onFiles={bring}
        />
        <SimulatedCamera tree={stored.id} ph={ph} />
      </div>
      <div className="mb-2 flex flex-wrap items-center gap-x-4">
        <NumberField
          label="Side of a card"
          inline
          rule={KEPT_SIGHT.properties.cardSide as never}
          value={sight.cardSide}
          unit="mm"
          onValue={(v) => v !== null && ph.setSide(v)}
        />
        {byCards && (
          <button
            type="button"
            aria-pressed={ph.line === PLUMB_LINE}
            className={`min-h-11 underline ${ph.line === PLUMB_LINE ? 'font-semibold' : 'text-quiet'}`}
            onClick={() => ph.choose(PLUMB_LINE)}
          >
            {sight.drawn.some((d) => d.line === PLUMB_LINE) ? 'level by what hangs plumb' : 'the bench was not level'}
          </button>
        )}
        {sight.photos.some((p) => p.camera) && (
          <button type="button" className="min-h-11 text-quiet underline" onClick={() => void ph.photographAgain()}>
            photograph it again
          </button>
        )}
        {sight.photos.length > 0 && (
          <a className="inline-flex min-h-11 items-center text-quiet underline" href={paths.cards()} target="_blank" rel="noreferrer">
            cards to print
          </a>
        )}
      </div>
      <p role="status" className="mb-2 text-quiet">
        {coming
          ? `Photo ${coming.at} of ${coming.of} is looked at.`
          : solved
            ? byCards
              ? `${stand} in space, their corners within ${solved.rmsPx.toFixed(1)} px.${used < FEWEST_GOOD ? ' Eight or more, from all sides, make it surer.' : ''}`
              : `${stand} by the pot’s width.`
            : sight.photos.length && !answer
              ? 'It is worked out where they were taken from.'
              : ''}
      </p>
      <NotUsed ph={ph} />
      {ph.line === PLUMB_LINE && (
        <p className="mb-2">
          Hang a weight on a thread beside the tree, or take the edge of a door: its upper and lower end, in two photos from different sides.
        </p>
      )}
      <SinceBefore ph={ph} />
      {sight.photos.length > 0 && !byCards && (
        <button
          type="button"
          aria-pressed={ph.line === POT_LINE}
          className={`btn mb-2 ${ph.line === POT_LINE ? 'btn-primary' : 'btn-outline border-rule font-normal'}`}
          onClick={() => ph.choose(POT_LINE)}
        >
          Mark the pot’s width ({Math.round(stored.tree.pot.width)} mm)
        </button>
      )}
      {used > 0 && (
        <>
          <PhotoLines ph={ph} />
          <div className="mt-3 flex flex-wrap items-center gap-3 border-t border-rule pt-3">
            <button type="button" className="btn btn-primary" aria-disabled={!ready} onClick={() => ready && void ph.takeOver()}>
              {changed.length ? `Measure the tree by them (${changed.length})` : 'The tree is measured by them'}
            </button>
            <span className="text-quiet">
              {!ph.found.has('trunk')
                ? 'Draw the trunk in two photos first: the tree stands on its foot.'
                : !trunkDrawn
                  ? 'First they are to be brought to the photos of before: see above.'
                  : changed.length
                    ? `${changed.map(ph.nameOf).slice(0, 4).join(', ')}${changed.length > 4 ? ' …' : ''}: the tree has ${changed.length === 1 ? 'it' : 'them'} otherwise, or not yet.`
                    : 'Its branches lie as they are drawn here.'}
            </span>
            {sight.photos.filter((p) => p.camera).length >= FEWEST_GREEN && stored.tree.branches.length > 0 && (
              <div className="w-full">
                <button
                  type="button"
                  className="btn btn-outline border-rule font-normal"
                  disabled={ph.green?.rest === null}
                  onClick={() => void ph.findGreen()}
                >
                  Foliage from the photos
                </button>
                <span role="status" className="pl-3 text-quiet">
                  {ph.green?.rest === null
                    ? `Photo ${ph.green.at} of ${ph.green.of}`
                    : ph.green
                      ? `Found: ${percent(ph.green.rest)} of it is the crown’s. Undo takes it back.`
                      : 'Share, and where it begins, for each branch.'}
                </span>
              </div>
            )}
          </div>
        </>
      )}
    </div>
  );
}
