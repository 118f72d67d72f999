import type { Observable } from 'rxjs';

/** A measuring device as its cable shows it: lines of text come in. A real caliper or scale on a serial port would be behind the same. */
export interface LinePort {
  readonly lines: Observable<string>;
}

export interface Reading {
  /** mm of a caliper, g of a scale. */
  value: number;
  /** The jaws, or what lies on the scale, rest: this is the value to take. */
  settled: boolean;
}

/** A device's line is a letter and its value: "S 012.34" when it rests, "M 012.34" while it moves; null for anything else. */
export function readingOf(line: string): Reading | null {
  const match = /^([SM]) (\d{1,5}\.\d{1,2})$/.exec(line.trim());
  return match ? { value: Number(match[2]), settled: match[1] === 'S' } : null;
}
