import { dayOf, yearAndDay } from '../units/index.js';
import type { MetalName } from '../wood/index.js';
import { standing } from './record.js';
import type { Tree } from './types.js';

/** Work and wire that went into a tree in a year. */
export interface YearOfWork {
  year: number;
  hours: number;
  /** mm of each metal. */
  wire: Record<MetalName, number>;
  /** Hours and looks of those who told who they are, by name. */
  people: { name: string; hours: number; looks: number }[];
}

/** Hours of work, wire used and looks, by year, the newest first: steps of sessions, and hours noted by hand. */
export function labourOf(tree: Tree): YearOfWork[] {
  const years = new Map<number, YearOfWork>();
  for (const line of standing(tree.record)) {
    const minutes = line.kind === 'worked' ? (line.minutes ?? 0) : line.kind === 'hours' ? (line.hours ?? 0) * 60 : 0;
    const wire = line.kind === 'wired' ? (line.length ?? 0) : 0;
    const look = line.kind === 'inspected' || (line.kind === 'guyed' && line.done === 'looked');
    const name = ('by' in line ? line.by : undefined) ?? line.who;
    if (!minutes && !wire && !(look && name)) continue;
    const { year } = yearAndDay(dayOf(line.on));
    const of = years.get(year) ?? { year, hours: 0, wire: { aluminium: 0, copper: 0 }, people: [] };
    years.set(year, of);
    of.hours += minutes / 60;
    if (name && (minutes || look)) {
      const own = of.people.find((p) => p.name === name) ?? { name, hours: 0, looks: 0 };
      if (!of.people.includes(own)) of.people.push(own);
      own.hours += minutes / 60;
      own.looks += Number(look);
    }
    if (line.kind === 'wired') of.wire[line.metal ?? 'aluminium'] += wire;
  }
  return [...years.values()].sort((a, b) => b.year - a.year);
}
