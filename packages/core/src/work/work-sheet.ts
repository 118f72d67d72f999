import { sayThick } from '../wood/index.js';
import { greatestOf, dayOf, isoOf, sayDay } from '../units/index.js';
import { nameInText, speciesOf } from '../species/index.js';
import { sayAbout } from '../acts/index.js';
import type { PlanDocument } from '../plan/index.js';
import { cutList, cuttingCare } from '../removal/index.js';
import { placeTree, type Tree } from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import type { Laid } from './lay-out.js';
import { ESTIMATES, many, under, type Paper, type Section } from './paper.js';
import type { WorkStep } from './step.js';

/** A session on paper: every step with a box to tick, what to mind, and the cautions. */
export function workSheetOf(given: Tree, plan: PlanDocument, laid: Pick<Laid, 'steps' | 'minutes'> & Partial<Pick<Laid, 'left'>>, onDay: number): Paper {
  const tree = asItStands(given, onDay);
  const widest = greatestOf(
    cutList(placeTree(tree), 1).map((c) => c.widthMm),
    0,
  );
  const of = (kinds: readonly WorkStep['kind'][]): Section['ticks'] =>
    laid.steps.filter((s) => kinds.includes(s.kind)).map((s) => ({ head: `${s.title} (${sayAbout(s.minutes)})`, text: [...s.what, ...s.mind] }));
  const dangers = [...new Set(laid.steps.flatMap((s) => s.danger))];
  const own = new Set(laid.steps.flatMap((s) => (s.kind === 'wire' ? [s.of] : [])));
  const cutting = plan.cutList.flatMap((c): [string, string][] => {
    const pieces = c.pieces.filter((p) => own.has(p.run));
    return pieces.length ? [[`${sayThick(c.size)} ${c.metal}`, pieces.map((p) => `${p.length.toFixed(0)} mm`).join(', ')]] : [];
  });
  const groups: [string, WorkStep['kind'][]][] = [
    ['Before', ['shelter', 'clear', 'fast', 'soak']],
    ['Cuts and deadwood', ['cut', 'jin']],
    ['Wire', ['wire']],
    ['Bends', ['bend']],
    ['Ties and devices', ['guy', 'device']],
    ['Placing', ['place']],
    ['After', ['clean', 'pot', 'aftercare']],
  ];
  return {
    title: `${tree.name}: the work`,
    under: `${under(tree, onDay)} About ${sayAbout(laid.minutes)}.`,
    sections: [
      ...(dangers.length ? [{ head: 'Mind yourself', caution: dangers }] : []),
      ...(cutting.length ? [{ head: 'Wire to cut first', facts: cutting }] : []),
      ...groups.flatMap(([head, kinds]): Section[] => (of(kinds)!.length ? [{ head, ticks: of(kinds)! }] : [])),
      ...(laid.steps.some((s) => s.kind === 'cut') ? [{ head: 'Wounds', list: cuttingCare(tree, onDay, widest).wounds }] : []),
      ...(laid.left?.length
        ? [
            {
              head: 'Left for another session',
              list: laid.left.map((l) => `${many(l.steps.length, 'step')}. ${l.why}${l.on ? ` From about ${sayDay(dayOf(l.on))}.` : ''}`),
            },
          ]
        : []),
      {
        head: 'Of this kind',
        text: [
          `${nameInText(speciesOf(tree.species))[0]!.toUpperCase()}${nameInText(speciesOf(tree.species)).slice(1)}. ${ESTIMATES} Noted on ${isoOf(onDay)}.`,
        ],
      },
    ],
  };
}
