import { gaugeOf, METAL_DATA, type MetalName, type Stock } from '@ustle/core';
import { sayDate } from './say';

const hundredth = (x: number): number => Math.round(x * 100) / 100;
/** Sizes that are sold, mm. */
export const soldSizes = (metal: MetalName): number[] => METAL_DATA[metal].sizes.map(hundredth);
/** "2.6 mm, gauge 10" */
export const saySize = (metal: MetalName, size: number): string =>
  `${size.toFixed(1)} mm${metal === 'copper' && gaugeOf(size) !== null ? `, gauge ${gaugeOf(size)}` : ''}`;
/** The size that is sold nearest to another. */
export const nearestSize = (metal: MetalName, to: number): number => soldSizes(metal).reduce((best, s) => (Math.abs(s - to) < Math.abs(best - to) ? s : best));
/** Metres from a metre on, mm below. */
export const sayLength = (mm: number): string => (mm >= 1000 ? `${(mm / 1000).toFixed(1)} m` : `${mm.toFixed(0)} mm`);

/** "The roll of 12 March, 41.2 m left", "An offcut of 640 mm" */
export const sayStock = (stock: Stock): string =>
  stock.form === 'offcut'
    ? `${stock.origin === 'straightened' ? 'A straightened piece' : 'An offcut'} of ${sayLength(stock.left)}`
    : `The roll of ${sayDate(stock.since)}, ${sayLength(stock.left)} left`;
