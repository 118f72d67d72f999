import { namesOf, sayAct, sayLine, type Intent } from '../src/index.js';
import { maple, wire } from './maple.js';
import { actFrom, after, branch } from './trees.js';

test('every kind of line and of act is said in a few words', () => {
  const start = after(maple(), { kind: 'decide', branch: 'back', act: 'remove' }, { kind: 'decide', branch: 'twig', act: 'stub', length: 30, stub: 'anchor' });
  const intents: Intent[] = [
    { kind: 'front', front: { bearing: 20, pitch: 5, roll: 0 } },
    { kind: 'keep-open', view: { bearing: 200, pitch: 0, roll: 0 } } as Intent,
    { kind: 'manner', firmness: 'firm' },
    { kind: 'manner', tolerance: 'fading' },
    { kind: 'manner', tolerance: 'none' },
    { kind: 'rules', profile: 'refinement', limits: {}, rules: {} },
    { kind: 'either', a: 'low', b: 'right' },
    { kind: 'put-off', branches: ['back', 'twig'], session: 2, until: '2027-02-01' },
    { kind: 'put-off', branches: ['back'], session: 1, until: null },
    ...(['keep', 'remove', 'shorten', 'stub', 'reserve', 'sacrifice', 'undecided'] as const).map((act): Intent => ({ kind: 'decide', branch: 'right', act })),
    { kind: 'remeasure', branch: 'right', changes: { d: 11 } },
    { kind: 'remeasure', branch: 'right', changes: { name: 'the long one' } },
    { kind: 'measure', measured: { name: 'Redshank' } },
    { kind: 'measure', measured: { vigour: 'strong', pot: maple().pot } },
    { kind: 'list-branch', branch: branch('new', { at: 300 }), after: null },
    { kind: 'unlist', branches: ['twig'] },
    wire('low', '2026-05-01', { strands: 2 }),
    { kind: 'bent', branch: 'low', bentDeg: 35 },
    { kind: 'bent', branch: 'low' },
    { kind: 'guyed', branch: 'low', text: 'to the rim' },
    { kind: 'pushed', branch: 'low', metal: 'copper', size: 2, gave: 'branch' },
    { kind: 'measured', branch: 'low', d: 12.4, heldDeg: 20 },
    { kind: 'inspected', branch: 'low', stage: 'marking' },
    { kind: 'cut', branch: 'low', pieces: 3 },
    { kind: 'unwired', branch: 'low', method: 'unwound', heldDeg: 22 },
    { kind: 'unwired', branch: 'low' },
    { kind: 'agreed', by: 'The pier master', branches: ['back', 'twig'] },
    { kind: 'take-off', branches: ['back'] },
    { kind: 'take-off', branches: ['twig'] },
    { kind: 'repotted' },
    { kind: 'fed', text: 'rape cake' },
    { kind: 'styled' },
    { kind: 'note', text: '  Full buds. ' },
    { kind: 'note' },
    { kind: 'photo', text: 'front' },
    { kind: 'hours', hours: 2.5, text: 'wire' },
    { kind: 'hours' },
  ] as Intent[];
  const names = namesOf(start);
  const said = intents.map((intent) => {
    const made = after(start, intent);
    const lines = made.record.slice(start.record.length).map((l) => sayLine(l, names));
    return `${sayAct(actFrom(intent), names)}${lines.length ? ` → ${lines.join(' / ')}` : ''}`;
  });
  expect(said).toMatchInlineSnapshot(`
   [
     "choose the front at 20°, tilted 5/0°",
     "keep 200° open",
     "wire it firm",
     "bear marks that fade",
     "bear no marks",
     "look at it by the rules "refinement"",
     "either first left or first right",
     "leave back and first left, first from the trunk on its left side for session 2",
     "cut back in this session",
     "keep first right",
     "take off first right",
     "shorten first right",
     "leave a stub of first right",
     "hold in reserve: first right",
     "let run free: first right",
     "leave open: first right",
     "measure first right",
     "name first right",
     "name it anew",
     "measure",
     "add a branch",
     "take first left, first from the trunk on its left side out of the list",
     "wire first left → wired, 3.0 mm aluminium × 2, bent to 40°",
     "first left: bent to 35° → bent to 35°",
     "first left: bent → bent",
     "first left: tied: to the rim → tied: to the rim",
     "first left: press test with 2.0 mm copper: the branch gave way → press test with 2.0 mm copper: the branch gave way",
     "first left: measured, 12.4 mm thick, holds 20° → measured, 12.4 mm thick, holds 20°",
     "first left: seen marking → seen marking",
     "first left: wire cut where it marked, 3 pieces → wire cut where it marked, 3 pieces",
     "first left: wire unwound, holds 22° → wire unwound, holds 22°",
     "first left: wire cut off → wire cut off",
     "The pier master agreed to cut back and first left, first from the trunk on its left side → The pier master agreed to cut back and first left, first from the trunk on its left side",
     "cut back → taken off, 15% of the green",
     "cut first left, first from the trunk on its left side → cut to a stub of 30 mm",
     "repotted → repotted",
     "fed: rape cake → fed: rape cake",
     "styled → styled",
     "Full buds. → Full buds.",
     "a note → a note",
     "photo: front → photo: front",
     "2.5 hours: wire → 2.5 hours: wire",
     "? hours → ? hours",
   ]
  `);
});
