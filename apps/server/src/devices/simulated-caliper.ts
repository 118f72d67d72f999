import { concatMap, delay, from, of, Subject } from 'rxjs';
import type { LinePort } from './line-port.js';

const STEP_MS = 60;
/** Repeat error of a caliper on bark, as a share of the thickness. */
const NOISE = 0.012;

/** Stands in for a caliper on a cable: its jaws close on a thickness, a little differently each time. */
export class SimulatedCaliper implements LinePort {
  private readonly said = new Subject<string>();
  readonly lines = this.said.asObservable();

  /** Closes the jaws on about this thickness (mm); without one, on whatever lies between them. */
  press(near: number = 3 + Math.random() * 12): void {
    const value = Math.max(0.3, near * (1 + NOISE * (Math.random() + Math.random() - 1)));
    const line = (letter: string, mm: number): string => `${letter} ${mm.toFixed(2).padStart(6, '0')}`;
    const closing = [1.6, 1.25, 1.08, 1.01].map((wide) => line('M', value * wide));
    from([...closing, line('S', value)])
      .pipe(concatMap((text) => of(text).pipe(delay(STEP_MS))))
      .subscribe((text) => this.said.next(text));
  }
}
