import { namesOf, sayAct, sayLine, type Intent } from '../src/index.js';
import { maple, wire } from './maple.js';
import { actFrom, after, branch } from './trees.js';

/** The figures of an act that are told of it as they are, and its branches. */
const FIGURES = ['bentDeg', 'heldDeg', 'd', 'size', 'pieces', 'hours', 'session', 'pace', 'past', 'weeks'];

test('each act is said by what it says: its branches by name, its figures with it, no two different ones alike, and its lines too', () => {
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
    { kind: 'pruned', text: 'back to two buds' },
    { kind: 'defoliated' },
    { kind: 'ailing', weeks: 6 },
    { kind: 'manner', pace: 1.3 },
    { kind: 'manner', pace: null },
    { kind: 'manner', learnFrom: '2026-03-01' },
    { kind: 'manner', learnFrom: null },
    { kind: 'branch-manner', branch: 'low', past: 0.15 },
    { kind: 'note', text: '  Full buds. ' },
    { kind: 'note' },
    { kind: 'photo', text: 'front' },
    { kind: 'hours', hours: 2.5, text: 'wire' },
    { kind: 'hours' },
  ] as Intent[];
  const names = namesOf(start);
  const said = intents.map((intent) => {
    const made = after(start, intent);
    return { intent, words: sayAct(actFrom(intent), names), lines: made.record.slice(start.record.length).map((l) => sayLine(l, names)) };
  });
  expect(said.map((s) => s.words)).toEqual([...new Set(said.map((s) => s.words))]);
  for (const { intent, words, lines } of said) {
    const own = intent as unknown as Record<string, unknown>;
    for (const text of [words, ...lines]) expect(text).toMatch(/^(?!.*(undefined|null|NaN|\[object)).{3,160}$/s);
    for (const b of [own.branch, own.a, own.b, ...((own.branches as string[]) ?? [])])
      if (typeof b === 'string') {
        expect(words).toContain(names(b));
        expect(words).not.toMatch(new RegExp(`\\b(low|twig)\\b`));
      }
    for (const f of FIGURES.filter((f) => typeof own[f] === 'number' && own[f] !== 1 && intent.kind !== 'wired'))
      expect(words).toContain(f === 'past' ? `${100 * (own[f] as number)}%` : String(own[f]));
    if (typeof own.text === 'string') expect(words).toContain(own.text.trim());
    // What is noted is said the same of the act and of its line.
    if (lines.length === 1 && !['wired', 'take-off', 'agreed'].includes(intent.kind)) expect(words.endsWith(lines[0]!)).toBe(true);
  }
  const line = (intent: Intent): string => said.find((s) => s.intent === intents.find((i) => JSON.stringify(i) === JSON.stringify(intent)))!.lines[0]!;
  expect(line({ kind: 'take-off', branches: ['back'] })).toContain('15% of the green');
  expect(line({ kind: 'take-off', branches: ['twig'] })).toContain('stub of 30 mm');
  expect(line(intents.find((i) => i.kind === 'wired')!)).toMatch(/3\.0 mm aluminium × 2.*40°/);
});
