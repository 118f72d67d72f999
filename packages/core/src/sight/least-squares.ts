/** Solves a symmetric positive definite system in place (Cholesky); null where it is not. `a` by rows. */
export function solveSymmetric(a: readonly number[][], b: readonly number[]): number[] | null {
  const lower = factor(a);
  return lower && backward(lower, b);
}

/** The inverse of a symmetric positive definite matrix; null where it is not. */
export function inverseSymmetric(a: readonly number[][]): number[][] | null {
  const lower = factor(a);
  if (!lower) return null;
  const n = a.length;
  return Array.from({ length: n }, (_, i) =>
    backward(
      lower,
      Array.from({ length: n }, (_, j) => (i === j ? 1 : 0)),
    ),
  );
}

function factor(a: readonly number[][]): Float64Array[] | null {
  const n = a.length;
  const lower = a.map((row) => Float64Array.from(row));
  for (let i = 0; i < n; i++) {
    const own = lower[i]!;
    for (let j = 0; j <= i; j++) {
      const other = lower[j]!;
      let sum = own[j]!;
      for (let k = 0; k < j; k++) sum -= own[k]! * other[k]!;
      if (i === j) {
        if (!(sum > 0)) return null;
        own[i] = Math.sqrt(sum);
      } else own[j] = sum / other[j]!;
    }
  }
  return lower;
}

function backward(lower: readonly Float64Array[], b: readonly number[]): number[] {
  const n = lower.length;
  const x = [...b];
  for (let i = 0; i < n; i++) {
    for (let k = 0; k < i; k++) x[i]! -= lower[i]![k]! * x[k]!;
    x[i]! /= lower[i]![i]!;
  }
  for (let i = n - 1; i >= 0; i--) {
    for (let k = i + 1; k < n; k++) x[i]! -= lower[k]![i]! * x[k]!;
    x[i]! /= lower[i]![i]!;
  }
  return x;
}

/** Residuals that depend on some of the unknowns only; each already divided by its own spread. */
export interface Block {
  /** Which of the unknowns it depends on. */
  on: readonly number[];
  residuals: (x: Float64Array) => readonly number[];
  /** The residuals' slopes, exact: for each of the unknowns it depends on, one for each residual; left out, they are found by differences. */
  slopes?: (x: Float64Array) => readonly (readonly number[])[];
  /** Beyond so many spreads, all residuals of the block taken together, it counts less and less; left out, it never does. */
  doubts?: number;
}

export interface Fitted {
  x: Float64Array;
  /** Half of the sum of squares, those that are doubted counted less. */
  cost: number;
  /** What is left of each block's residuals, as the root of their mean square. */
  rms: number[];
  /** JᵀJ at the end, damping left out. */
  normal: number[][];
}

const STEP = 1e-6;
/** A step that betters the cost by less than this share is the last. */
const LITTLE = 1e-6;
const TIMES = 10;

const squares = (r: readonly number[]): number => r.reduce((sum, v) => sum + v * v, 0);
/** How much a block weighs by how far it is off: one within what is trusted, falling beyond (Cauchy). */
const weightOf = (sum: number, count: number, doubts: number | undefined): number => (doubts === undefined ? 1 : 1 / (1 + sum / (count * doubts * doubts)));
const costOf = (sum: number, count: number, doubts: number | undefined): number =>
  doubts === undefined ? sum / 2 : (count * doubts * doubts * Math.log(1 + sum / (count * doubts * doubts))) / 2;

/** Nonlinear least squares by Levenberg and Marquardt. `scale` is the size of each unknown where it may be near nothing. */
export function fit(start: ArrayLike<number>, blocks: readonly Block[], { rounds = 60, scale }: { rounds?: number; scale?: ArrayLike<number> } = {}): Fitted {
  let x = Float64Array.from(start);
  const n = x.length;
  let damping = 1e-3;
  const total = (at: Float64Array): number =>
    blocks.reduce((sum, b) => {
      const r = b.residuals(at);
      return sum + costOf(squares(r), r.length, b.doubts);
    }, 0);
  let cost = total(x);
  for (let round = 0; round < rounds; round++) {
    const { normal, gradient } = normalEquations(x, blocks, scale);
    let better = false;
    for (let tries = 0; tries < 8 && !better; tries++) {
      const damped = normal.map((row, i) => row.map((v, j) => (i === j ? v * (1 + damping) + 1e-12 : v)));
      const step = solveSymmetric(damped, gradient);
      if (step) {
        const next = x.map((v, i) => v - step[i]!);
        const then = total(next);
        if (then < cost) {
          const little = cost - then < LITTLE * (1 + cost);
          [x, cost, better] = [next, then, true];
          damping = Math.max(1e-9, damping / TIMES);
          if (little) round = rounds;
          continue;
        }
      }
      damping *= TIMES;
    }
    if (!better) break;
  }
  return { x, cost, normal: n ? normalEquations(x, blocks, scale).normal : [], rms: blocks.map((b) => Math.sqrt(meanSquare(b.residuals(x)))) };
}

const meanSquare = (r: readonly number[]): number => (r.length ? squares(r) / r.length : 0);

function normalEquations(x: Float64Array, blocks: readonly Block[], scale?: ArrayLike<number>): { normal: number[][]; gradient: number[] } {
  const n = x.length;
  const normal = Array.from({ length: n }, () => new Array<number>(n).fill(0));
  const gradient = new Array<number>(n).fill(0);
  for (const { on, residuals, slopes: exact, doubts } of blocks) {
    const here = [...residuals(x)];
    const weight = weightOf(squares(here), here.length, doubts);
    const differences = (): number[][] =>
      on.map((i) => {
        const h = STEP * Math.max(1, scale?.[i] ?? Math.abs(x[i]!));
        const was = x[i]!;
        x[i] = was + h;
        const up = [...residuals(x)];
        x[i] = was - h;
        const down = residuals(x);
        x[i] = was;
        return up.map((v, k) => (v - down[k]!) / (2 * h));
      });
    const slopes = exact ? exact(x) : differences();
    on.forEach((i, a) => {
      gradient[i]! += weight * slopes[a]!.reduce((sum, v, k) => sum + v * here[k]!, 0);
      on.forEach((j, b) => {
        if (j > i) return;
        const sum = weight * slopes[a]!.reduce((all, v, k) => all + v * slopes[b]![k]!, 0);
        normal[i]![j]! += sum;
        if (i !== j) normal[j]![i]! += sum;
      });
    });
  }
  return { normal, gradient };
}
