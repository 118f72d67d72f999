import { Injectable } from '@nestjs/common';
import { dayOf } from '@ustle/core';

/** The one place that knows what day it is. USTLE_TODAY sets it, for the demo and for tests. */
@Injectable()
export class Clock {
  /** Today's ISO date in the machine's own time zone. */
  todayIso(): string {
    const set = process.env.USTLE_TODAY;
    if (set && Number.isFinite(dayOf(set))) return set;
    const now = new Date();
    return `${now.getFullYear()}-${String(now.getMonth() + 1).padStart(2, '0')}-${String(now.getDate()).padStart(2, '0')}`;
  }

  today(): number {
    return dayOf(this.todayIso());
  }
}
