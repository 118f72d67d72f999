import { concatMap, delay, from, of, Subject } from 'rxjs';
import type { LinePort } from './line-port.js';

const STEP_MS = 60;

interface Manner {
  /** Digits after the point, and digits in all before it. */
  digits: number;
  wide: number;
  /** What it shows on its way to the value, as shares of it. */
  way: readonly number[];
  /** What it lies on, where nobody says. */
  any: () => number;
  /** How far a reading may be off, for a value. */
  noise: (value: number) => number;
  least: number;
}

/** Stands in for a device on a cable: it comes to a value step by step, a little differently each time. */
class Simulated implements LinePort {
  private readonly said = new Subject<string>();
  readonly lines = this.said.asObservable();

  constructor(private readonly manner: Manner) {}

  /** Measures about this much; without it, whatever there is. */
  press(near: number = this.manner.any()): void {
    const { digits, wide, way, noise, least } = this.manner;
    const value = Math.max(least, near + noise(near) * (Math.random() + Math.random() - 1));
    const line = (letter: string, shown: number): string => `${letter} ${shown.toFixed(digits).padStart(wide + 1 + digits, '0')}`;
    from([...way.map((share) => line('M', value * share)), line('S', value)])
      .pipe(concatMap((text) => of(text).pipe(delay(STEP_MS))))
      .subscribe((text) => this.said.next(text));
  }
}

/** A caliper: its jaws close on a thickness, in mm; on bark it repeats to about a hundredth. */
export const simulatedCaliper = (): Simulated =>
  new Simulated({
    digits: 2,
    wide: 3,
    way: [1.6, 1.25, 1.08, 1.01],
    any: () => 3 + Math.random() * 12,
    noise: (mm) => 0.012 * mm,
    least: 0.3,
  });

/** A bench scale: it swings into a weight, in g, and shows tenths. */
export const simulatedScale = (): Simulated =>
  new Simulated({ digits: 1, wide: 5, way: [0.62, 1.14, 0.97, 1.01], any: () => 80 + Math.random() * 500, noise: () => 0.4, least: 0 });
