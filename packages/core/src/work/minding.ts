import { speciesOf } from '../species/index.js';
import type { Tree } from '../tree/index.js';
import type { StepKind } from './step.js';

/** The small things that good hands do, at the step where they belong. */
const MIND: Partial<Record<StepKind, string[]>> = {
  shelter: ['Branch at chest height, light from the side. Lay out cutters, pliers, paste, raffia and the wire before you begin.'],
  clear: ['Rub off the bud that would make a third at a fork.', 'Before going on with new wire, look whether old fine wire has bitten: what has not may stay.'],
  cut: ['Leave one small shoot beside a large cut: it helps it close.', 'Cut to a length a little shorter than the crown will be.'],
  jin: ['Peel while the wood is fresh; let it dry before it is carved.'],
  soak: ['On living wood raffia dries after a heavy bend, since the wood drinks it; where it stays wet the wood has died.'],
  fast: ['The tree is fast in its pot before any heavy pull.'],
  wire: [
    'One hand holds wire and branch together near the last turn, the other winds from inside outward.',
    'Snug, no gap at the shoulder: a loose coil holds a small part, and the branch breaks at the gap.',
    'Do not wire foliage in. Stop before the tip and close with a small loop.',
  ],
  bend: [
    'Try how it gives before you bend it, and listen.',
    'Thumbs inside, hold along the whole bend, let the bend travel, turn a little with the wire.',
    'No knife towards the cambium.',
  ],
  guy: [
    'Coils first, ties after. What has been bent hard is tied as well, before the weight of its pads moves it.',
    'Show yourself where it runs: a hose or a can pulls at it.',
  ],
  device: ['When it comes off one day: mark where the wood stands, and look again after an hour and after some days.'],
  place: ['A small turn in the wire’s direction tightens the coil. Tips up to the light at the end.'],
  clean: ['Foliage that looks superfluous feeds the roots: leave what the design can bear.'],
  pot: ['Pad the wire where it crosses a root.'],
};

const DANGER: Partial<Record<StepKind, string[]>> = {
  cut: ['Cutters and saws: keep the other hand behind the blade, protect your eyes, and hold the branch that comes off.'],
  jin: [
    'Blades and power tools: eye, ear and dust protection, both hands on the tool; follow the tool maker’s instructions.',
    'Lime sulphur and other chemicals irritate strongly, and give off toxic gas with acids: outdoors, gloves, goggles. Follow the label and your local rules, and ask a qualified person.',
  ],
  wire: ['Wire ends spring: protect your eyes, and hold the loose end.'],
  bend: ['Copper under load springs back: face out of line, eyes protected.'],
  guy: ['A taut tie stores energy: stay out of its line, and let it out slowly.'],
  device: ['Screws, bars and frames store energy: stay out of line, turn slowly, release slowly.'],
  pot: ['Heavy pots: lift with someone, from the knees.'],
};

/** What to mind at the first step of a kind, and at every one what can hurt; poisonous and irritating kinds are told at the start. */
export function mindingOf(tree: Tree, kind: StepKind, first: boolean): { mind: string[]; danger: string[] } {
  const species = speciesOf(tree.species);
  const mind = [...(MIND[kind] ?? [])];
  if (kind === 'clear' && !species.budsBackOnOldWood) mind.push('This kind does not bud back on old wood: keep inner green as helpers until back buds show.');
  if (kind === 'clear' && species.budsBackOnOldWood) mind.push('This kind buds back on old wood: weak inner growth and all that hangs may go.');
  if (kind === 'wire' && species.group.includes('broadleaf')) mind.push('Broadleaves are wired without their leaves: taken off, or in winter.');
  const danger = [...(DANGER[kind] ?? []), ...(kind === 'shelter' ? species.hazards : [])];
  return { mind: first ? mind : [], danger: first ? danger : danger.slice(0, 1) };
}

/** What to do after a crack, at once. */
export const CRACK_NOW = {
  along: 'Along the fibre: it heals. Press it shut, bind it tightly with raffia, seal it, and go no further today.',
  across:
    'Across the fibre: what lies beyond may die. Let it back a little, bind and seal it as it is, shade the tree, and do not bend it further this season.',
} as const;
