import type { DrawnWord } from './drawings';

/** A word of the field, and what it means here. */
export interface Word {
  word: string;
  /** How it stands in sentences, as a pattern of whole words. */
  forms: string;
  says: string;
  drawing?: DrawnWord;
}

/** The words that a newcomer asks for, by the alphabet. */
export const WORDS: readonly Word[] = [
  { word: 'anchor', forms: 'anchors?|anchored', says: 'What keeps the beginning of a wire from turning: a second branch, turns round the trunk, or the soil.' },
  { word: 'apex', forms: 'apex', says: 'The top of the tree as it is looked at.' },
  { word: 'back bud', forms: 'back buds?', says: 'A bud on older wood, behind the foliage: from it a long bare branch can be cut back.' },
  { word: 'blind', forms: 'blind', says: 'Green, but without a bud at its end: it will not grow on.' },
  { word: 'crotch', forms: 'crotch(?:es)?', says: 'The corner between a branch and what it grows on.' },
  {
    word: 'cushion',
    forms: 'cushions?|cushioned',
    says: 'What lies between a tie and the bark, so that the pull is spread: a piece of tube, leather, or rubber.',
  },
  { word: 'flush', forms: 'flush(?:es)?', says: 'A wave of growth, from the opening of the buds until the leaves are hard.' },
  { word: 'gauge', forms: 'gauge', says: 'The thickness of wire in numbers: the higher, the thinner.' },
  {
    word: 'hand',
    forms: 'clockwise|counter-clockwise',
    says: 'Which way round a wire goes, seen from the trunk along the branch. The two halves of a piece go opposite ways.',
    drawing: 'hand',
  },
  { word: 'harden off', forms: 'harden(?:s|ed)? off', says: 'New leaves or needles become firm: the flush is over, and the tree has its strength back.' },
  { word: 'jin', forms: 'jins?', says: 'A dead branch, stripped of its bark and kept.' },
  { word: 'leader', forms: 'leaders?', says: 'The growing end of the trunk.' },
  { word: 'live vein', forms: 'live veins?', says: 'The strip of living bark on a trunk that is dead beside it; what stands on it is fed by it.' },
  {
    word: 'mark',
    forms: 'marks|marking|bites?',
    says: 'What a wire leaves in the bark that has grown against it. Shallow ones grow out on some kinds, deep ones never.',
  },
  {
    word: 'over, under',
    forms: 'over the shoulder|from beneath the shoulder',
    says: 'Where a wire first touches its branch: over the top brings it down, from beneath holds it up.',
    drawing: 'start',
  },
  { word: 'pad', forms: 'pads?', says: 'A flat layer of foliage.' },
  {
    word: 'parallel wires',
    forms: 'parallel wires?',
    says: 'Thin wires along the outside of a bend, under the wrap: the fibres cannot tear away from each other.',
  },
  { word: 'piece', forms: 'pieces?', says: 'One length of wire, as a rule on two branches of like thickness, joined round what they grow on.' },
  { word: 'raffia', forms: 'raffia', says: 'Fibre of a palm, wound on wet and tight: it holds the bark together while the branch is bent.' },
  { word: 'ramification', forms: 'ramification', says: 'How finely branches fork towards their tips.' },
  { word: 'reserve', forms: 'reserves?', says: 'A branch kept for now, until a risky bend elsewhere has survived.' },
  { word: 'sacrifice', forms: 'sacrifices?|sacrifice branch(?:es)?', says: 'A branch left to run, to thicken what is below it, and cut when it has.' },
  { word: 'set', forms: '^set$|has set|have set', says: 'A branch has set when it stays where it is without its wire.' },
  {
    word: 'settles',
    forms: 'settles?(?: at)?',
    says: 'Where a branch comes to rest under its wire once the hand lets go: less far than it was bent.',
    drawing: 'settles',
  },
  { word: 'shari', forms: 'shari', says: 'Dead wood on the trunk, without its bark.' },
  {
    word: 'shoulder',
    forms: 'shoulders?',
    says: 'Where a branch leaves what it grows on. Wire begins there, and so does its first bend.',
    drawing: 'shoulder',
  },
  { word: 'spring-back', forms: 'spring-back|springs? back|sprang back', says: 'What a bend loses when hand or wire lets go of it.', drawing: 'settles' },
  { word: 'strain', forms: 'strain(?:ed)?', says: 'How far the fibres on the outside of a bend are drawn out, as a share of their length.' },
  { word: 'stub', forms: 'stubs?', says: 'What is left of a branch to become dead wood, or to tie to.' },
  { word: 'twists', forms: 'twists?', says: 'Turns of a nail or stick in a doubled tie: each makes it shorter and draws a little more.', drawing: 'windlass' },
  { word: 'wrap', forms: 'wraps?|wrapped', says: 'Raffia or tape round a branch before it is wired and bent.' },
];

const ALL = new RegExp(`\\b(?:${WORDS.map((w) => `(${w.forms})`).join('|')})(?![\\w-])`, 'gi');

/** A sentence in parts: those that are words of the glossary with what they are, each word where it comes first. */
export function wordsIn(text: string): (string | { text: string; word: Word })[] {
  const parts: (string | { text: string; word: Word })[] = [];
  const told = new Set<Word>();
  let from = 0;
  for (const match of text.matchAll(ALL)) {
    const word = WORDS[match.slice(1).findIndex((group) => group !== undefined)]!;
    if (told.has(word)) continue;
    told.add(word);
    if (match.index > from) parts.push(text.slice(from, match.index));
    parts.push({ text: match[0], word });
    from = match.index + match[0].length;
  }
  if (from < text.length) parts.push(text.slice(from));
  return parts;
}
