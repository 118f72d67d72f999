import { serialOf, serialsOf, type Keep } from '../units/index.js';
import { boxAround, boxed, boxesApart, type Box } from '../space/index.js';
import type { PlacedTree } from '../tree/index.js';
import type { FlatBark } from './flat-bark.js';
import { knotsOf, MARGIN, type Knot } from './knots.js';
import type { LaidWire } from './laid.js';
import type { PlanMemory } from './memory.js';
import { shoulderOf, type Shoulder } from './shoulders.js';

/** A limb with the wire that comes on it. */
export interface Surrounding {
  id: string;
  bark: FlatBark;
  box: Box;
  /** Thickness of the wire, mm, as far as it is known before it is laid. */
  wound: number;
  /** Tells limb and thickness from others. */
  key: string;
}

/** What may be in the way of the wire on a limb. */
export interface Near {
  limbs: readonly Surrounding[];
  wires: LaidWire[];
}

/** What a limb's pieces are worked out among: the limbs near it, and what was worked out before. */
export interface Among {
  near: readonly Surrounding[];
  keep: Keep;
}

/** Wires are told apart by so much of their half width, mm, in looking for what is in their way: all single ones are alike. */
const KNOT_STEP = 3;

export const keyOf = (limbs: readonly Surrounding[]): string => limbs.map((l) => l.key).join();

/** The limbs of a tree laid flat, and what of each, with the wire that comes on it, is in the way of the wire on another. */
export class Surroundings {
  private readonly barks = new Map<string, FlatBark>();
  private readonly knots = new Map<string, Knot[]>();
  private every: readonly Surrounding[] = [];

  constructor(
    private readonly placed: PlacedTree,
    private readonly memory: PlanMemory,
  ) {}

  /** Says how thick the wire is that comes on each limb, mm; 0 where none does. */
  wind(thickness: (limb: string) => number): void {
    this.every = ['trunk', ...this.placed.branches.map((b) => b.branch.id)].map((id) => {
      const [bark, wound] = [this.bark(id), thickness(id)];
      return { id, bark, box: boxed(bark.line), wound, key: `${serialOf(bark)} ${wound}` };
    });
  }

  bark(id: string): FlatBark {
    const before = this.barks.get(id);
    if (before) return before;
    const b = this.placed.byId.get(id);
    const made = this.memory.barkOf(id, b?.line ?? this.placed.trunk, b ? this.bark(b.branch.parent) : null);
    this.barks.set(id, made);
    return made;
  }

  shoulder(branch: string, limb: string, keep: Keep): Shoulder {
    const [bark, own] = [this.bark(limb), this.bark(branch)];
    return keep(`shoulder ${serialsOf([bark, own])}`, () => shoulderOf(branch, bark, own));
  }

  /** Limbs, and of some wires those, that come within some mm of one of a few limbs. */
  nearTo(limbs: readonly string[], wires: readonly LaidWire[], within: number): Near {
    const own = limbs.map((id) => boxed(this.bark(id).line));
    const around = boxAround(own);
    const isNear = ({ box }: { box: Box }): boolean => !boxesApart(around, box, within) && own.some((of) => !boxesApart(of, box, within));
    return { limbs: this.every.filter(isNear), wires: wires.filter(isNear) };
  }

  /** The wood in the way of wires on a limb: what grows on it, with the wire that comes on that, and what comes close to it. */
  knotsOn(limb: string, half: number, beside: number, { keep, near = this.every }: Pick<Among, 'keep'> & Partial<Among>): Knot[] {
    // For one wire as for one a little thicker: what is in its way stays the same.
    const widest = Math.ceil(half / KNOT_STEP) * KNOT_STEP;
    const key = [limb, widest, beside].join(' ');
    const before = this.knots.get(key);
    if (before) return before;
    const bark = this.bark(limb);
    const box = boxed(bark.line);
    const beneath = near.filter((l) => l.bark !== bark && !boxesApart(box, l.box, l.wound + 2 * widest + MARGIN));
    const made = keep(`knots ${key} ${serialOf(bark)} ${keyOf(beneath)}`, () => this.findKnots(limb, widest, beside, { keep, near: beneath }));
    this.knots.set(key, made);
    return made;
  }

  private findKnots(limb: string, half: number, beside: number, { keep, near }: Among): Knot[] {
    const bark = this.bark(limb);
    const parent = this.placed.byId.get(limb)?.branch.parent;
    const found = near.flatMap(({ id, bark: other, wound }) => {
      if (id !== parent) return knotsOf(id, bark, other, this.placed.byId.get(id)?.branch.parent === limb ? wound * beside : wound, half);
      // Where it comes out of its own limb, the first turn has been looked at.
      const beyond = (k: Knot): Knot => ({ ...k, spots: k.spots.filter((p) => p.s > bark.clearFrom + 2 * bark.radius(0)) });
      const knots = knotsOf(id, bark, other, 0, half);
      return keep(`beyond ${serialsOf([bark, ...knots])}`, () => knots.map(beyond).filter((k) => k.spots.length > 0));
    });
    return keep(`all knots ${serialsOf(found)}`, () => found);
  }
}
