import type { Fate } from '@ustle/core';

/** What may be decided of a branch, in the order of its keys. */
export const FATE_WORDS: readonly { act: Fate; name: string; done: string; key: string; tone: string }[] = [
  { act: 'keep', name: 'Keep', done: 'keep', key: 'k', tone: 'text-moss' },
  { act: 'remove', name: 'Take off', done: 'take off', key: 'x', tone: 'text-madder' },
  { act: 'shorten', name: 'Shorten', done: 'shorten', key: 's', tone: 'text-madder' },
  { act: 'stub', name: 'Leave a stub', done: 'stub', key: 't', tone: 'text-madder' },
  { act: 'reserve', name: 'Reserve', done: 'reserve', key: 'r', tone: 'text-ochre' },
  { act: 'sacrifice', name: 'Let it run', done: 'runs free', key: 'f', tone: 'text-ochre' },
  { act: 'undecided', name: 'Open', done: '', key: 'u', tone: 'text-quiet' },
];

export const wordOf = (act: Fate): (typeof FATE_WORDS)[number] => FATE_WORDS.find((a) => a.act === act)!;

export const RULE_WORDS: Record<string, string> = {
  'inside-bend': 'inside of a bend',
  'hides-trunk': 'hides the trunk',
  'too-thick': 'too thick',
  eye: 'at the eye',
  fork: 'fork of three',
};
export const sayRule = (rule: string): string => RULE_WORDS[rule] ?? rule;
export const sayRuleFirst = (rule: string): string => sayRule(rule).replace(/^./, (c) => c.toUpperCase());

/** The colour of a finding by its severity, 1 to 3. */
export const SEVERITY_TONES = ['', 'text-quiet', 'text-ochre', 'text-madder'];
