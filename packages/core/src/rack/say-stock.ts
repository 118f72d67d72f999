import { dayOf, sayDay } from '../units/index.js';
import { sayLength } from '../wood/index.js';
import type { Stock } from './stock.js';

/** "the roll of 12 March 2026, 41.2 m left", "an offcut of 640 mm" */
export const sayStock = (stock: Stock): string =>
  stock.form === 'offcut'
    ? `${stock.origin === 'straightened' ? 'a straightened piece' : 'an offcut'} of ${sayLength(stock.left)}`
    : `the roll of ${sayDay(dayOf(stock.since))}, ${sayLength(stock.left)} left`;
