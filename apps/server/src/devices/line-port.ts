import type { Observable } from 'rxjs';

/** A measuring device as its cable shows it: lines of text come in. A real caliper on a serial port would be behind the same. */
export interface LinePort {
  readonly lines: Observable<string>;
}

export interface Reading {
  mm: number;
  /** The jaws rest: this is the value to take. */
  settled: boolean;
}

/** A caliper's line is its value in mm and a letter: "S 012.34" when it rests, "M 012.34" while it moves; null for anything else. */
export function readingOf(line: string): Reading | null {
  const match = /^([SM]) (\d{1,3}\.\d{2})$/.exec(line.trim());
  return match ? { mm: Number(match[2]), settled: match[1] === 'S' } : null;
}
