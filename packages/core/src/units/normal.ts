/** Standard normal distribution function. Abramowitz & Stegun 7.1.26 is too coarse here, so: the series for small
 *  arguments and the continued fraction for the tail (A&S 26.2.10, 26.2.14); absolute error below 1e-12. */
export function normalCdf(x: number): number {
  const a = Math.abs(x);
  if (a > 38) return x > 0 ? 1 : 0;
  const density = Math.exp((-a * a) / 2) / Math.sqrt(2 * Math.PI);
  if (a < 3) {
    let term = a;
    let sum = a;
    for (let k = 1; k < 200 && term > 1e-17 * sum; k++) {
      term *= (a * a) / (2 * k + 1);
      sum += term;
    }
    return x >= 0 ? 0.5 + density * sum : 0.5 - density * sum;
  }
  let fraction = a;
  for (let k = 60; k >= 1; k--) fraction = a + k / fraction;
  const tail = density / fraction;
  return x > 0 ? 1 - tail : tail;
}

/** Quantile of the standard normal, by bisection on normalCdf; p in (0, 1). */
export function normalQuantile(p: number): number {
  let low = -10;
  let high = 10;
  for (let i = 0; i < 60; i++) {
    const middle = (low + high) / 2;
    if (normalCdf(middle) < p) low = middle;
    else high = middle;
  }
  return (low + high) / 2;
}
