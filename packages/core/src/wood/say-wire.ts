import { gaugeOf, type MetalName } from './metals.js';

/** "2.6 mm, gauge 10": the gauge where the metal is sold by it. */
export function saySize(metal: MetalName, size: number): string {
  const gauge = metal === 'copper' ? gaugeOf(size) : null;
  return `${size.toFixed(1)} mm${gauge === null ? '' : `, gauge ${gauge}`}`;
}

/** "2.6 mm copper (gauge 10)" */
export function sayMetal(metal: MetalName, size: number): string {
  const gauge = metal === 'copper' ? gaugeOf(size) : null;
  return `${size.toFixed(1)} mm ${metal}${gauge === null ? '' : ` (gauge ${gauge})`}`;
}

/** Of wire: metres from a metre on, mm below. */
export const sayLength = (mm: number): string => (mm >= 1000 ? `${(mm / 1000).toFixed(1)} m` : `${mm.toFixed(0)} mm`);
