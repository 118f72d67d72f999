import { fits, sayRule } from '@ustle/core';

/** A description of a number: its bounds, unit and step. */
export type NumberRule = Parameters<typeof fits>[0];

/** A number as people type it, decimal comma included; NaN for anything else: "5o" is no number. */
export const readNumber = (text: string): number => {
  const plain = text.trim().replace(',', '.');
  return /^[+-]?(\d+\.?\d*|\.\d+)$/.test(plain) ? Number(plain) : NaN;
};

/** What is wrong with a typed number, as a sentence; null where nothing is. */
export function numberFault(text: string, rule: NumberRule, name: string): string | null {
  const value = readNumber(text);
  if (Number.isNaN(value)) return `${name}: "${text.trim()}" is not a number.`;
  return fits(rule, value) ? null : `${name}: ${sayRule(rule)}; not ${text.trim()}.`;
}

const decimals = (rule: NumberRule): number => (Number(rule.step ?? 1) >= 1 ? 0 : Number(rule.step) >= 0.1 ? 1 : 2);

/** A number as the hand measures it: whole mm and degrees, a tenth for thickness; what was measured finer is shown as it is. */
export function sayNumber(value: number, rule: NumberRule): string {
  const rounded = value.toFixed(decimals(rule));
  return Math.abs(Number(rounded) - value) < 1e-9 ? rounded : String(Math.round(value * 100) / 100);
}
