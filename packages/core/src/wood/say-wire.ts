import { gaugeOf, type MetalName } from './metals.js';

/** "2.1 mm": a size as it is sold, whether it is kept to the hundredth (2.05) or as its gauge has it (2.053). */
export const sayThick = (size: number): string => `${(size + 1e-6).toFixed(1)} mm`;

/** "2.6 mm, gauge 10": the gauge where the metal is sold by it. */
export function saySize(metal: MetalName, size: number): string {
  const gauge = metal === 'copper' ? gaugeOf(size) : null;
  return `${sayThick(size)}${gauge === null ? '' : `, gauge ${gauge}`}`;
}

/** "2.6 mm copper (gauge 10)" */
export function sayMetal(metal: MetalName, size: number): string {
  const gauge = metal === 'copper' ? gaugeOf(size) : null;
  return `${sayThick(size)} ${metal}${gauge === null ? '' : ` (gauge ${gauge})`}`;
}

/** Of wire: metres from a metre on, mm below. */
export const sayLength = (mm: number): string => (mm >= 1000 ? `${(mm / 1000).toFixed(1)} m` : `${mm.toFixed(0)} mm`);
