import { useState } from 'react';
import { Link } from 'react-router';
import { RACK_LINE_FIELDS, type RollEvent, type Stock, sayLength } from '@ustle/core';
import { useNotice } from '../app/notice';
import { NumberField } from '../shared/NumberField';
import { Caution, Quiet } from '../shared/parts';
import { sayDate } from '../shared/say';
import { writeRack } from './queries';
import { Scale } from './Scale';

const ORIGINS = { bought: 'came new', 'left-over': 'left over', straightened: 'taken off and straightened' };

function sayEvent(event: RollEvent, stock: Stock): string {
  if (event.kind === 'in') return `${ORIGINS[stock.origin]}, ${sayLength(stock.whole)}${event.grams ? ` by its weight of ${event.grams.toFixed(1)} g` : ''}`;
  if (event.kind === 'weighed') return `weighed, ${event.grams!.toFixed(1)} g: ${sayLength(event.left)} left`;
  if (event.kind === 'measured') return `measured: ${sayLength(event.left)} left`;
  if (event.kind === 'annealed') return 'annealed';
  return 'gone';
}

/** One roll or offcut: weigh it, measure it, anneal it; and all that happened to it. */
export function OpenRoll({ stock }: { stock: Stock }) {
  const { attempt } = useNotice();
  const [grams, setGrams] = useState<number | null>(null);
  const roll = stock.id;
  const write = (line: Parameters<typeof writeRack>[0]): Promise<boolean> => attempt(() => writeRack(line));
  return (
    <div className="space-y-4">
      <p>
        {sayLength(stock.left)} left, {stock.mass.toFixed(0)} g of wire.{' '}
        {stock.checkedOn ? `Last checked ${sayDate(stock.checkedOn)}.` : 'Reckoned from what came and what was cut.'}
        {stock.form === 'roll' && ` Its empty reel weighs ${stock.reel.toFixed(0)} g.`}
        {!stock.soft && (stock.metal === 'copper' ? ' It is hard: anneal it before it is wound.' : ' A little harder than new.')}
      </p>
      {stock.gone ? (
        <p>Gone since {sayDate(stock.gone)}.</p>
      ) : (
        <>
          <div className="flex flex-wrap items-end gap-3">
            <NumberField label="On the scale" rule={RACK_LINE_FIELDS.weighed.grams} value={grams} onValue={setGrams} unit="g" open />
            <Scale near={stock.mass + stock.reel} onGrams={setGrams} />
            {grams !== null && (
              <button
                type="button"
                className="btn btn-primary btn-sm"
                onClick={() => void write({ kind: 'weighed', roll, grams }).then((done) => done && setGrams(null))}
              >
                It weighs {grams.toFixed(1)} g
              </button>
            )}
          </div>
          <NumberField
            label="Or measured: what is left"
            rule={RACK_LINE_FIELDS.measured.length}
            value={Math.round(stock.left)}
            onValue={(length) => length !== null && void write({ kind: 'measured', roll, length })}
            unit="mm"
          />
          <div className="flex flex-wrap gap-x-5">
            {!stock.soft && <Quiet onClick={() => void write({ kind: 'annealed', roll })}>it is annealed now</Quiet>}
            <Quiet onClick={() => void write({ kind: 'gone', roll })}>it is gone</Quiet>
          </div>
          {!stock.soft && stock.metal === 'copper' && (
            <Caution>Annealing is fire, hot metal and fumes: outdoors, away from what burns, and by someone who knows it.</Caution>
          )}
        </>
      )}
      <h3 className="text-lg">What happened to it</h3>
      <ul className="border-b border-rule">
        {[...stock.events].reverse().map((event, i) => (
          <li key={i} className="flex items-baseline gap-3 border-t border-rule py-2">
            <span className="w-28 shrink-0 text-quiet">{sayDate(event.on)}</span>
            <span className="min-w-0 flex-1">
              {event.kind === 'cut' ? (
                <>
                  {sayLength(event.length!)} cut for{' '}
                  <Link className="underline" to={`/tree/${event.tree}/wire?branch=${event.branches![0]}`}>
                    {event.treeName}
                  </Link>
                </>
              ) : (
                sayEvent(event, stock)
              )}
              {event.text ? `: ${event.text}` : ''}
            </span>
            {event.line && (i === 0 || event.kind !== 'in') && (
              <Quiet label={`Take back: ${sayEvent(event, stock)}`} onClick={() => void write({ kind: 'withdrawn', corrects: event.line! })}>
                take back
              </Quiet>
            )}
          </li>
        ))}
      </ul>
    </div>
  );
}
