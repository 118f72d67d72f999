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
}

export type Wired = Extract<Intent, { kind: 'wired' }>;

/** The act that tells what was put on, as it was; in a session of work it is bent in a later step, and that step tells how far. */
export function wiredFrom(run: PlanRun, fields: PuttingOn, { roll, inSession }: { roll: string | null; inSession: boolean }): Wired {
  const { on, gap, wrap, anchor, size, halves, length, metal, strands } = fields;
  const wound = run.branches.map((part, i) => ({
    branch: part.branch,
    hand: part.hand,
    start: part.start,
    turns: halves[i]!.turns,
    ...(inSession ? {} : { bentDeg: halves[i]!.bent }),
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
    wrap,
    anchor,
    length,
    ...(roll === null ? {} : { roll }),
  };
}
