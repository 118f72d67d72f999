import { dayOf, isoOf, sayDay } from '../units/index.js';
import { nameInText, speciesOf } from '../species/index.js';
import { PROMISE_WORDS, sayAbout, sayLine, sayMinutes } from '../acts/index.js';
import type { PlanDocument } from '../plan/index.js';
import { posedLines } from '../pose/index.js';
import { cutList, cuttingCare } from '../removal/index.js';
import {
  agreedBranches,
  namesOf,
  outcomeOf,
  placeTree,
  sayBranches,
  silhouetteOf,
  standing,
  VIGOUR_FACTOR,
  vowsOf,
  workSessions,
  type LineOf,
  type RecordLine,
  type Silhouette,
  type Tree,
  type WorkSession,
} from '../tree/index.js';
import { aftercareOf } from './aftercare.js';
import { layOut, running, type Laid } from './lay-out.js';
import type { Pace } from './pace.js';
import type { WorkStep } from './step.js';

/** A part of a paper: what stands on it, from top to bottom. */
export interface Section {
  head: string;
  text?: string[];
  /** Names and values in two columns. */
  facts?: [string, string][];
  /** A line each, to be ticked on paper. */
  ticks?: { head: string; text: string[] }[];
  list?: string[];
  pictures?: { caption: string; picture: Silhouette }[];
  /** Ids of photos with what is said of them. */
  photos?: { photo: string; caption: string }[];
  caution?: string[];
}

/** What leaves the studio on paper: the same for the page and for the file. */
export interface Paper {
  title: string;
  under: string;
  sections: Section[];
}

export const PAPERS = ['proposal', 'report', 'sheet'] as const;
export type PaperKind = (typeof PAPERS)[number];

const percent = (share: number): string => `${Math.round(share * 100)}%`;
const many = (n: number, one: string, more = `${one}s`): string => `${n === 1 ? 'one' : n} ${n === 1 ? one : more}`;
const under = (tree: Tree, onDay: number): string => `${speciesOf(tree.species).name}${tree.client ? `, belongs to ${tree.client}` : ''}. ${sayDay(onDay)}.`;
const ESTIMATES = 'All figures of wood, growth and time are estimates; the tree has the last word.';

const asItStands = (tree: Tree): Tree => ({ ...tree, plan: { ...tree.plan, decisions: [] } });

/** Green that a strong tree puts on again in a season, as a share of the whole; an own estimate. docs: Papers. */
const REGROWTH = 0.3;

/** Seasons until what the cuts take is grown again, as it is told. */
function sayRegrowth(tree: Tree, removed: number): string {
  const seasons = removed / (REGROWTH * VIGOUR_FACTOR[tree.vigour]);
  if (removed < 0.01) return 'none: no green goes';
  return seasons < 1 ? 'about one growing season' : `about ${Math.ceil(seasons)} growing seasons`;
}

/** What is proposed to the owner of a tree: front, cuts with their reasons, how it looks before and after, what it costs in years, risk, hours and wire. */
function proposalOf(tree: Tree, plan: PlanDocument, onDay: number, pace: Pace = {}): Paper {
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
  const open = cuts.filter((c) => agreed && !agreed.has(c.branch)).map((c) => c.branch);
  return {
    title: `${tree.name}: what is proposed`,
    under: under(tree, onDay),
    sections: [
      {
        head: 'Before and after',
        pictures: [
          { caption: 'As it stands', picture: silhouetteOf(asItStands(tree)) },
          { caption: 'As it is meant to stand', picture: silhouetteOf(tree, posedLines(placeTree(outcomeOf(tree).tree), plan.poses)) },
        ],
      },
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

/** Who agreed to what, and when. */
const agreementsOf = (tree: Tree): string[] => {
  const names = namesOf(tree);
  return standing(tree.record).flatMap((l) => (l.kind === 'agreed' ? [`${sayDay(dayOf(l.on))}: ${sayLine(l, names)}.`] : []));
};

const within = (lines: readonly RecordLine[], from: number, to: number): RecordLine[] => lines.filter((l) => dayOf(l.on) >= from && dayOf(l.on) <= to);

/** What a session left undone, cracked or did otherwise. */
function exceptions({ answers }: WorkSession): string[] {
  const of = (a: LineOf<'worked'>): string => `${a.title ?? a.step}${a.text ? `: ${a.text}` : ''}`;
  return [
    ...answers.filter((a) => a.answer === 'cracked').map((a) => `It cracked. ${of(a)}`),
    ...answers.filter((a) => a.answer === 'otherwise').map((a) => `Otherwise than planned. ${of(a)}`),
    ...answers.filter((a) => a.answer === 'ran-out' || a.answer === 'changed').flatMap((a) => (a.text ? [a.text] : [])),
    ...answers.filter((a) => a.answer === 'skipped').map((a) => `Left out. ${of(a)}`),
  ];
}

function sessionSection(tree: Tree, session: WorkSession): Section {
  const names = namesOf(tree);
  const lines = within(standing(tree.record), session.begun, session.last);
  const minutes = session.answers.reduce((sum, a) => sum + (a.minutes ?? 0), 0);
  const wired = lines.flatMap((l) => (l.kind === 'wired' ? [l] : []));
  const wire = wired.reduce((sum, l) => sum + (l.length ?? 0), 0);
  const cuts = lines.filter((l) => l.kind === 'removed' || l.kind === 'shortened');
  const photos = lines.flatMap((l) => (l.kind === 'photo' && l.photo ? [{ photo: l.photo, caption: sayLine(l, names) }] : []));
  const others = lines.filter((l) => l.kind === 'guyed' || l.kind === 'repotted' || l.kind === 'styled');
  return {
    head: session.begun === session.last ? sayDay(session.begun) : `${sayDay(session.begun)} to ${sayDay(session.last)}`,
    facts: [
      ...(session.by ? [['By', session.by] as [string, string]] : []),
      ['Time', sayMinutes(minutes)],
      ['Cuts', String(cuts.length)],
      ['Wired', `${many(new Set(wired.map((l) => l.branch)).size, 'branch', 'branches')}, ${(wire / 1000).toFixed(1)} m of wire`],
    ],
    list: [...cuts, ...others].map(
      (l) => `${'branch' in l && l.branch ? `${'called' in l && l.called ? l.called : names(l.branch)}: ` : ''}${sayLine(l, names)}`,
    ),
    text: exceptions(session),
    photos,
  };
}

/** What was done to a tree, for its owner: session by session, the newest first; how it is kept, and what comes next. */
function reportOf(tree: Tree, plan: PlanDocument, onDay: number): Paper {
  const sessions = workSessions(tree).reverse();
  const names = namesOf(tree);
  const next = [...plan.wires].sort((a, b) => (a.nextInspection < b.nextInspection ? -1 : 1))[0];
  const owed = vowsOf(tree).filter((v) => !v.ended);
  return {
    title: `${tree.name}: what was done`,
    under: under(tree, onDay),
    sections: [
      { head: 'Now', pictures: [{ caption: 'From its front', picture: silhouetteOf(asItStands(tree)) }] },
      ...(sessions.length
        ? sessions.map((s) => sessionSection(tree, s))
        : [{ head: 'No session yet', text: ['Nothing was worked on this tree in a session so far.'] }]),
      ...(tree.client && agreementsOf(tree).length ? [{ head: 'Agreed', list: agreementsOf(tree) }] : []),
      ...(sessions[0] ? [{ head: 'How to keep it now', list: aftercareOf(tree, onDay, sessions[0].begun) }] : []),
      {
        head: 'What comes next',
        list: [
          ...(next
            ? [`Wire: the next look ${dayOf(next.nextInspection) < onDay ? 'has been due since' : 'is due by'} ${sayDay(dayOf(next.nextInspection))}.`]
            : []),
          ...owed.map(({ line }) =>
            `${line.branch ? `${names(line.branch)}: ` : ''}${PROMISE_WORDS[line.what]}, from ${sayDay(dayOf(line.from ?? line.on))}. ${line.text ?? ''}`.trim(),
          ),
          ...(!next && !owed.length ? ['Nothing is due.'] : []),
        ],
      },
      { head: 'How sure this is', text: [ESTIMATES] },
    ],
  };
}

/** A session on paper: every step with a box to tick, what to mind, and the cautions. */
function workSheetOf(tree: Tree, plan: PlanDocument, laid: Pick<Laid, 'steps' | 'minutes'> & Partial<Pick<Laid, 'left'>>, onDay: number): Paper {
  const widest = Math.max(0, ...cutList(placeTree(tree), 1).map((c) => c.widthMm));
  const of = (kinds: readonly WorkStep['kind'][]): Section['ticks'] =>
    laid.steps.filter((s) => kinds.includes(s.kind)).map((s) => ({ head: `${s.title} (${sayAbout(s.minutes)})`, text: [...s.what, ...s.mind] }));
  const dangers = [...new Set(laid.steps.flatMap((s) => s.danger))];
  const own = new Set(laid.steps.flatMap((s) => (s.kind === 'wire' ? [s.of] : [])));
  const cutting = plan.cutList.flatMap((c): [string, string][] => {
    const pieces = c.pieces.filter((p) => own.has(p.run));
    return pieces.length ? [[`${c.size.toFixed(1)} mm ${c.metal}`, pieces.map((p) => `${p.length.toFixed(0)} mm`).join(', ')]] : [];
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

/** Hours of a session on paper where none is open and nobody said. */
const USUAL_HOURS = 4;

/** A paper of a tree: the same from whoever asks. */
export function paperOf(kind: PaperKind, tree: Tree, plan: PlanDocument, onDay: number, pace: Pace = {}): Paper {
  if (kind === 'proposal') return proposalOf(tree, plan, onDay, pace);
  if (kind === 'report') return reportOf(tree, plan, onDay);
  const now = running(tree, plan, onDay, pace);
  return workSheetOf(tree, plan, now ? { steps: now.open, minutes: now.minutes } : layOut(tree, plan, onDay, { hours: USUAL_HOURS, pace }), onDay);
}
