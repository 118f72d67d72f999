import { dayOf, sayDay } from '../units/index.js';
import { PROMISE_WORDS, sayLine, sayMinutes } from '../acts/index.js';
import type { PlanDocument } from '../plan/index.js';
import { namesOf, silhouetteOf, standing, vowsOf, workSessions, type LineOf, type RecordLine, type Tree, type WorkSession } from '../tree/index.js';
import { asItStands } from '../stand/index.js';
import { aftercareOf } from './aftercare.js';
import { uncut, ESTIMATES, many, under, type Paper, type Section } from './paper.js';

/** Who agreed to what, and when. */
export const agreementsOf = (tree: Tree): string[] => {
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

/** What a session did beside cuts, bends and wire, line by line. */
const TOLD: ReadonlySet<RecordLine['kind']> = new Set(['guyed', 'unwired', 'defoliated', 'pruned', 'repotted', 'styled']);

function sessionSection(tree: Tree, session: WorkSession): Section {
  const names = namesOf(tree);
  const lines = within(standing(tree.record), session.begun, session.last);
  const minutes = session.answers.reduce((sum, a) => sum + (a.minutes ?? 0), 0);
  const wired = lines.flatMap((l) => (l.kind === 'wired' ? [l] : []));
  const wire = wired.reduce((sum, l) => sum + (l.length ?? 0), 0);
  const cuts = lines.filter((l) => l.kind === 'removed' || l.kind === 'shortened');
  const photos = lines.flatMap((l) => (l.kind === 'photo' && l.photo ? [{ photo: l.photo, caption: sayLine(l, names) }] : []));
  const bent = lines.flatMap((l) => (l.kind === 'bent' ? [l] : []));
  const placed = new Set(lines.flatMap((l) => (l.kind === 'placed' ? [l.branch] : [])));
  const cracked = bent.filter((l) => l.crack && l.crack !== 'none');
  const others = lines.filter((l) => TOLD.has(l.kind));
  return {
    head: session.begun === session.last ? sayDay(session.begun) : `${sayDay(session.begun)} to ${sayDay(session.last)}`,
    facts: [
      ...(session.by ? [['By', session.by] as [string, string]] : []),
      ['Time', sayMinutes(minutes)],
      ['Cuts', String(cuts.length)],
      ...(bent.length
        ? [['Bent', `${many(new Set(bent.map((l) => l.branch)).size, 'branch', 'branches')}, in ${many(bent.length, 'stage')}`] as [string, string]]
        : []),
      ...(placed.size ? [['Placed', many(placed.size, 'branch', 'branches')] as [string, string]] : []),
      ['Wired', `${many(new Set(wired.map((l) => l.branch)).size, 'branch', 'branches')}, ${(wire / 1000).toFixed(1)} m of wire`],
    ],
    list: [...cuts, ...cracked, ...others].map(
      (l) => `${'branch' in l && l.branch ? `${'called' in l && l.called ? l.called : names(l.branch)}: ` : ''}${sayLine(l, names)}`,
    ),
    text: exceptions(session),
    photos,
  };
}

const NEXT = { look: 'to be looked at', remove: 'to come off', window: 'can come off' } as const;

/** What was done to a tree, for its owner: session by session, the newest first; how it is kept, and what comes next. */
export function reportOf(given: Tree, plan: PlanDocument, onDay: number): Paper {
  const tree = asItStands(given, onDay);
  const sessions = workSessions(tree).reverse();
  const names = namesOf(tree);
  const next = [...plan.wires].sort((a, b) => (a.task.on < b.task.on ? -1 : 1))[0];
  const owed = vowsOf(tree).filter((v) => !v.ended);
  return {
    title: `${tree.name}: what was done`,
    under: under(tree, onDay),
    sections: [
      { head: 'Now', pictures: [{ caption: 'From its front', picture: silhouetteOf(uncut(tree)) }] },
      ...(sessions.length
        ? sessions.map((s) => sessionSection(tree, s))
        : [{ head: 'No session yet', text: ['Nothing was worked on this tree in a session so far.'] }]),
      ...(tree.client && agreementsOf(tree).length ? [{ head: 'Agreed', list: agreementsOf(tree) }] : []),
      ...(sessions[0] ? [{ head: 'How to keep it now', list: aftercareOf(tree, sessions[0].last, sessions[0].begun) }] : []),
      {
        head: 'What comes next',
        list: [
          ...(next
            ? [
                `Wire on ${names(next.branch)}: ${next.task.late ? 'was to be looked at' : NEXT[next.task.kind]} by ${sayDay(dayOf(next.task.late ? next.nextInspection : next.task.on))}.`,
              ]
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
