import { sayAbout } from '../acts/index.js';
import { planOnPhoto, type PlanDocument } from '../plan/index.js';
import { posedLines } from '../pose/index.js';
import { cutList } from '../removal/index.js';
import { agreedBranches, namesOf, outcomeOf, placeTree, sayBranches, silhouetteOf, VIGOUR_FACTOR, type Tree } from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import { layOut } from './lay-out.js';
import type { Pace } from './pace.js';
import { uncut, ESTIMATES, many, percent, under, type Paper } from './paper.js';
import { agreementsOf } from './report.js';

/** Green that a strong tree puts on again in a season, as a share of the whole; an own estimate. docs: Papers. */
const REGROWTH = 0.3;

/** Seasons until what the cuts take is grown again, as it is told. */
function sayRegrowth(tree: Tree, removed: number): string {
  const seasons = removed / (REGROWTH * VIGOUR_FACTOR[tree.vigour]);
  if (removed < 0.01) return 'none: no green goes';
  return seasons < 1 ? 'about one growing season' : `about ${Math.ceil(seasons)} growing seasons`;
}

/** What is proposed to the owner of a tree: front, cuts with their reasons, how it looks before and after, what it costs in years, risk, hours and wire. */
export function proposalOf(given: Tree, plan: PlanDocument, onDay: number, pace: Pace = {}): Paper {
  const tree = asItStands(given, onDay);
  const names = namesOf(tree);
  const placed = placeTree(tree);
  const cuts = cutList(placed, 1);
  const front = tree.plan.front;
  const agreed = agreedBranches(tree);
  const all = layOut({ ...tree, client: undefined }, plan, onDay, { hours: 1000, beyond: true, pace });
  const first = layOut({ ...tree, client: undefined }, plan, onDay, { hours: 6, pace });
  const heavy = plan.poses.flatMap((p) => p.bends.filter((b) => b.band === 'heavy' || b.band === 'no').map(() => p.branch));
  const careful = plan.poses.filter((p) => p.bends.some((b) => b.band === 'careful')).length;
  const mass = (metal: string): number => plan.cutList.filter((c) => c.metal === metal).reduce((sum, c) => sum + c.mass, 0);
  const wire = (['aluminium', 'copper'] as const).flatMap((m) => (mass(m) ? [`${mass(m).toFixed(0)} g of ${m}`] : []));
  const over = planOnPhoto(tree, plan);
  const open = cuts.filter((c) => agreed && !agreed.has(c.branch)).map((c) => c.branch);
  return {
    title: `${tree.name}: what is proposed`,
    under: under(tree, onDay),
    sections: [
      {
        head: 'Before and after',
        pictures: [
          { caption: 'As it stands', picture: silhouetteOf(uncut(tree)) },
          { caption: 'As it is meant to stand', picture: silhouetteOf(tree, posedLines(placeTree(outcomeOf(tree).tree), plan.poses)) },
        ],
      },
      ...(over
        ? [
            {
              head: 'On the photo',
              text: ['Dashed: what is taken off. Outlined: where branches shall lie. Drawn through the lens of the photo taken from nearest to the front.'],
              photos: [{ photo: over.photo, caption: `Photo ${over.number}`, over }],
            },
          ]
        : []),
      {
        head: 'The front',
        text: front
          ? [
              `It is seen from ${front.bearing.toFixed(0)}° of its pot${Math.abs(front.pitch) + Math.abs(front.roll) < 1 ? ', as it stands' : `, tilted by ${Math.hypot(front.pitch, front.roll).toFixed(0)}°`}.`,
              ...(plan.read.because[0] ? [`Its strength: ${plan.read.because[0]}`] : []),
            ]
          : ['No front is chosen yet.'],
      },
      {
        head: 'What is cut, and why',
        list: cuts.length ? cuts.map((c) => `${names(c.branch)}: ${c.what} ${c.why ?? ''}`.trim()) : ['Nothing is cut.'],
      },
      {
        head: 'What it asks of the tree',
        facts: [
          ['Green that goes', `${percent(plan.green.removed)} of it; at most ${percent(plan.green.cap)} a year is borne by its kind and strength`],
          ['To grow again', sayRegrowth(tree, plan.green.removed)],
          [
            'Bends',
            `${many(plan.poses.length, 'branch', 'branches')} led elsewhere, ${careful} of them with care${heavy.length ? `, ${new Set(heavy).size} heavily` : ''}`,
          ],
          [
            'Risk',
            heavy.length
              ? `Heavy bends can crack: ${sayBranches(names, [...new Set(heavy)], 4)}. A crack along the fibre heals; one across it may cost the branch.`
              : 'No heavy bend.',
          ],
          ['Ties and devices', String(plan.guys.length + plan.devices.length)],
        ],
      },
      {
        head: 'What it asks of us',
        facts: [
          ['Hours', `${sayAbout(all.minutes)} in all, ${sayAbout(first.minutes)} in the first session`],
          ['Wire', wire.length ? wire.join(', ') : 'none'],
          ['Sessions', first.left.length ? 'more than one: the tree answers between them' : 'one'],
        ],
      },
      ...(tree.client
        ? [
            {
              head: 'Agreement',
              text: open.length
                ? [
                    `Nothing that cannot be undone is done before it is agreed. Open: ${sayBranches(names, open, 12)}.`,
                    'Agreed by, date:   ______________________________',
                  ]
                : agreementsOf(tree),
            },
          ]
        : []),
      { head: 'How sure this is', text: [ESTIMATES] },
    ],
  };
}
