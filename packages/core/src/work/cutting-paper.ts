import { greatestOf } from '../units/index.js';
import { cutList, cuttingCare, sayOldWood } from '../removal/index.js';
import { planSvg, type PlanDocument } from '../plan/index.js';
import { namesOf, placeTree, shortNamesOf, type Tree } from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import { many, percent, under, type Paper, type Section } from './paper.js';

/** The cuts of a session on paper: where they are, a box for each, how wounds are kept and what can hurt. */
export function cuttingPaperOf(given: Tree, plan: PlanDocument, onDay: number): Paper {
  const tree = asItStands(given, onDay);
  const names = namesOf(tree);
  const short = shortNamesOf(tree);
  const cuts = cutList(placeTree(tree), 1);
  const care = cuttingCare(
    tree,
    onDay,
    greatestOf(
      cuts.map((c) => c.widthMm),
      0,
    ),
  );
  const now = plan.green.sessions.find((s) => s.session === 1)?.removed ?? 0;
  const oldWood = sayOldWood(tree);
  const labels = new Map(cuts.map((c) => [c.branch, `${c.tag}: ${short(c.branch)}`]));
  const list: Section[] = cuts.length
    ? [
        { head: 'Where they are', drawing: planSvg(tree, { poses: [], on: plan.on }, labels) },
        {
          head: 'Cuts, in the order to make them',
          text: [`${many(cuts.length, 'cut')}, ${percent(now)} of the green; at most ${percent(plan.green.cap)} in a year.`, ...(oldWood ? [oldWood] : [])],
          ticks: cuts.map((c) => ({
            head: `${c.tag}. ${names(c.branch)}: ${c.what}`,
            text: [
              `${c.widthMm.toFixed(0)} mm wide${c.green > 0.0005 ? `, ${percent(c.green)} of the green` : ', no green'}; ${c.where}.`,
              ...(c.along.length ? [`Takes ${c.along.map(names).join('; ')} along.`] : []),
              ...(c.why ? [c.why] : []),
            ],
          })),
        },
        { head: 'Wounds', list: care.wounds },
      ]
    : [{ head: 'Nothing to cut', text: ['Nothing is decided to be cut in this session.'] }];
  return {
    title: `${tree.name}: what to cut`,
    under: under(tree, onDay),
    sections: [
      { head: 'Mind yourself', caution: [...care.people, "Follow the makers' instructions and your local rules."] },
      ...(tree.client ? [{ head: 'Agreement', text: ['Nothing is cut before its owner has agreed to it.'] }] : []),
      ...list,
    ],
  };
}
