import { leastOf } from '../../units/index.js';
import { lengthOf, pointAt, stretch, type Evidence } from '../../space/index.js';
import { speciesOf } from '../../species/index.js';
import type { PlacedBranch } from '../../tree/index.js';
import type { Draft } from '../finding.js';
import { isLiving, percent, type Survey } from '../survey.js';

const along = (b: PlacedBranch): Evidence => ({ lines: [b.line.points], words: [] });

function ofState(s: Survey, b: PlacedBranch): Draft[] {
  const { id, state, green, backBuds } = b.branch;
  const common = { branch: id, evidence: { state, green }, draw: () => along(b) };
  switch (state) {
    case 'dead':
      return [
        { ...common, rule: 'dead', severity: 3, advice: 'remove', because: ['Dead wood carries no green. Cut it back, or leave a stub of it as a jin.'] },
      ];
    case 'blind': {
      if (backBuds)
        return [
          {
            ...common,
            rule: 'blind',
            severity: 2,
            advice: 'shorten',
            also: ['remove'],
            because: ['No bud at the tip, but buds further back: shortened to one of them it goes on.'],
          },
        ];
      const species = speciesOf(s.placed.tree.species);
      const wait = species.budsBackOnOldWood ? [`${species.name} can bud on old wood: waiting a season is possible.`] : [];
      return [
        {
          ...common,
          rule: 'blind',
          severity: 2,
          advice: 'remove',
          also: wait.length ? ['wait'] : [],
          because: ['Green, but without a bud at the tip it will not go on.', ...wait],
        },
      ];
    }
    case 'weak':
      return [
        {
          ...common,
          rule: 'weak',
          severity: 1,
          advice: 'wait',
          also: ['remove'],
          because: ['Weak growth: wire and cuts here cost more than they give this year. Light from above may bring it back.'],
        },
      ];
    default:
      return [];
  }
}

/** Where foliage begins: the branch's own, or that of a living branch on it, as a share of its length. */
function bareShare(s: Survey, b: PlacedBranch): number {
  const length = lengthOf(b.line);
  const shoots = (s.on.get(b.branch.id) ?? []).filter((c) => isLiving(c) && s.greenWith.get(c.branch.id)! > 0).map((c) => c.branch.at / length);
  return leastOf(shoots, b.branch.bareTo);
}

function leggy(s: Survey, b: PlacedBranch): Draft[] {
  const limit = s.profile.limits.leggyShare;
  const bare = bareShare(s, b);
  if (!isLiving(b) || !(bare > limit)) return [];
  const { id, backBuds } = b.branch;
  const end = bare * lengthOf(b.line);
  return [
    {
      branch: id,
      rule: 'leggy',
      severity: 1,
      evidence: { bare: Math.round(bare * 100) / 100, limit },
      advice: backBuds ? 'shorten' : 'compact',
      also: backBuds ? ['compact'] : ['reserve'],
      because: [
        `Bare for ${percent(bare)} of its length: the foliage stands far from the trunk.`,
        backBuds
          ? 'There are buds further back to shorten to, or bends bring the foliage in.'
          : 'Bends in one or two planes bring the foliage in; cut back it might not bud.',
      ],
      draw: () => ({
        lines: [stretch(b.line, 0, end).points],
        words: [{ at: pointAt(b.line, end / 2).point, text: `${end.toFixed(0)} mm bare` }],
      }),
    },
  ];
}

/** dead, blind, weak, leggy: what a branch is like by itself. */
export const condition = (s: Survey): Draft[] => s.placed.branches.flatMap((b) => [...ofState(s, b), ...leggy(s, b)]);
