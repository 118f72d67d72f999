import type { View } from '@ustle/core';

export const LETTERS = 'ABCDE';
export const sameView = (a: View, b: View): boolean => a.bearing === b.bearing && a.pitch === b.pitch && a.roll === b.roll;
/** "152°", "152°, leaning 5° to you". */
export function sayView({ bearing, pitch, roll }: View): string {
  const lean = [pitch && `${Math.abs(pitch)}° ${pitch > 0 ? 'to you' : 'away'}`, roll && `${Math.abs(roll)}° ${roll > 0 ? 'right' : 'left'}`].filter(Boolean);
  return `${bearing}°${lean.length ? `, leaning ${lean.join(' and ')}` : ''}`;
}
