import { asWound, type Anchor, type Intent, type MetalName, type PlanRun, type Wrap } from '@ustle/core';

/** Between wire and bark, mm, as it is told. */
export type Gap = '0' | '0.5' | '1';

/** What is typed of a piece of wire that was put on. */
export interface PuttingOn {
  on: string;
  metal: MetalName;
  size: number;
  strands: number;
  length: number;
  halves: { turns: number; bent: number }[];
  gap: Gap;
  wrap: Wrap;
  anchor: Anchor;
  /** A roll's id, "best" for the one that it is best cut from, or "none". */
  roll: string;
  /** That it is from that roll though there is less on it by the book. */
  sure: boolean;
}

/** Where a branch's first bend begins, and which way it turns in the tree's own space. */
export type BendPlace = Required<Pick<Extract<Intent, { kind: 'wired' }>, 'at' | 'toward'>>;

export type Wired = Extract<Intent, { kind: 'wired' }>;

/** The act that tells what was put on, as it was; in a session of work it is bent in a later step, and that step tells how far. */
export function wiredFrom(
  run: PlanRun,
  fields: PuttingOn,
  { roll, inSession, placeOf }: { roll: string | null; inSession: boolean; placeOf: (branch: string) => BendPlace | null },
): Wired {
  const { on, gap, wrap, anchor, size, halves, length, metal, strands } = fields;
  const wound = run.branches.map((part, i) => ({
    branch: part.branch,
    hand: part.hand,
    start: part.start,
    turns: halves[i]!.turns,
    wrap,
    ...(inSession ? {} : { bentDeg: halves[i]!.bent, ...placeOf(part.branch) }),
    targetDeg: part.target,
    over: part.bendLength,
  }));
  const { first, ...others } = asWound(run, wound);
  return {
    kind: 'wired',
    on,
    metal,
    strands,
    size: Number(size),
    angle: run.angle,
    ...first,
    ...others,
    gap: Number(gap),
    anchor,
    length,
    ...(roll === null ? {} : { roll }),
  };
}
