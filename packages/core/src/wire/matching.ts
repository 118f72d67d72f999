import { groupedBy, greatestOf } from '../units/index.js';
/** An edge between two nodes (counted from 0) with its worth, a whole number above 0. */
export type Edge = readonly [a: number, b: number, worth: number];

export interface Matching {
  pairs: [number, number][];
  worth: number;
}

const FREE = -1;
const OUTER = 0;
const INNER = 1;

/** The nodes that edges hold together, part by part; those without an edge are left out. */
function partsOf(count: number, edges: readonly Edge[]): number[][] {
  const lead = Array.from({ length: count }, (_, i) => i);
  const leadOf = (i: number): number => (lead[i] === i ? i : (lead[i] = leadOf(lead[i]!)));
  for (const [a, b] of edges) lead[leadOf(a)] = leadOf(b);
  return [...groupedBy(lead.keys(), leadOf).values()].filter((part) => part.length > 1);
}

/** Pairs of greatest worth, each node in one at most: Edmonds' algorithm with dual values, O(n³), on each connected part by itself. */
export function bestPairs(count: number, edges: readonly Edge[]): Matching {
  const pairs: [number, number][] = [];
  let worth = 0;
  for (const part of partsOf(count, edges)) {
    const place = new Map(part.map((node, i) => [node, i]));
    const own = edges.flatMap(([a, b, w]): Edge[] => (place.has(a) ? [[place.get(a)!, place.get(b)!, w]] : []));
    for (const [a, b, w] of new Search(part.length, own).run()) {
      pairs.push([part[a]!, part[b]!]);
      worth += w;
    }
  }
  return { pairs: pairs.sort((p, q) => p[0] - q[0]), worth };
}

/** Nodes count from 1 inside; a flower (an odd ring of nodes or flowers that acts as one node) gets a number behind them. */

class Search {
  private readonly n: number;
  private last: number;
  /** Nodes and flowers at most. */
  private readonly size: number;
  /** The best link between any two nodes or flowers, at u · size + v: the nodes that it joins, and its worth (0: none). */
  private readonly from: Int32Array;
  private readonly to: Int32Array;
  private readonly worth: Int32Array;
  /** Dual value of each node and flower. */
  private readonly dual: Float64Array;
  /** Whom each is paired with; 0: nobody. */
  private readonly mate: Int32Array;
  private readonly slack: Int32Array;
  /** The outermost flower that each is in; itself where in none. */
  private readonly top: Int32Array;
  private readonly parent: Int32Array;
  private readonly mark: Int32Array;
  private readonly seen: Int32Array;
  /** The nodes that each node has an edge to. */
  private readonly near: number[][];
  private readonly ring: number[][];
  /** Which part of a flower holds a node. */
  private readonly holder: Int32Array[];
  private queue: number[] = [];
  private round = 0;

  constructor(count: number, edges: readonly Edge[]) {
    this.n = count;
    this.last = count;
    // A flower has three parts at least, so that there are at most half as many as nodes.
    const size = count + (count >> 1) + 2;
    const zeros = (): Int32Array => new Int32Array(size);
    this.size = size;
    [this.from, this.to, this.worth] = [new Int32Array(size * size), new Int32Array(size * size), new Int32Array(size * size)];
    for (let u = 0; u < size; u++) {
      for (let v = 0; v < size; v++) {
        this.from[u * size + v] = u;
        this.to[u * size + v] = v;
      }
    }
    for (const [a, b, w] of edges) {
      const both = [this.link(a + 1, b + 1), this.link(b + 1, a + 1)];
      for (const l of both) this.worth[l] = Math.max(this.worth[l]!, w);
    }
    this.near = Array.from({ length: count + 1 }, () => []);
    for (let u = 1; u <= count; u++) for (let v = 1; v <= count; v++) if (this.worth[this.link(u, v)]! > 0) this.near[u]!.push(v);
    const most = greatestOf(
      edges.map(([, , w]) => w),
      0,
    );
    this.dual = new Float64Array(size).map((_, i) => (i >= 1 && i <= count ? most : 0));
    [this.mate, this.slack, this.parent, this.mark, this.seen] = [zeros(), zeros(), zeros(), zeros(), zeros()];
    this.top = zeros().map((_, i) => (i <= count ? i : 0));
    this.ring = Array.from({ length: size }, () => []);
    this.holder = Array.from({ length: size }, () => new Int32Array(count + 1));
    for (let u = 1; u <= count; u++) this.holder[u]![u] = u;
  }

  run(): Edge[] {
    while (this.grow());
    const pairs: Edge[] = [];
    for (let u = 1; u <= this.n; u++) {
      const v = this.mate[u]!;
      if (v > u) pairs.push([u - 1, v - 1, this.worth[this.link(u, v)]!]);
    }
    return pairs;
  }

  private link(u: number, v: number): number {
    return u * this.size + v;
  }

  private gap(link: number): number {
    const [u, v] = [this.from[link]!, this.to[link]!];
    return this.dual[u]! + this.dual[v]! - this.worth[this.link(u, v)]! * 2;
  }

  private copyLink(to: number, from: number): void {
    this.from[to] = this.from[from]!;
    this.to[to] = this.to[from]!;
    this.worth[to] = this.worth[from]!;
  }

  private improveSlack(u: number, x: number): void {
    if (!this.slack[x] || this.gap(this.link(u, x)) < this.gap(this.link(this.slack[x]!, x))) this.slack[x] = u;
  }

  private findSlack(x: number): void {
    this.slack[x] = 0;
    for (let u = 1; u <= this.n; u++) if (this.worth[this.link(u, x)]! > 0 && this.top[u] !== x && this.mark[this.top[u]!] === OUTER) this.improveSlack(u, x);
  }

  private push(x: number): void {
    if (x <= this.n) this.queue.push(x);
    else this.ring[x]!.forEach((part) => this.push(part));
  }

  private setTop(x: number, to: number): void {
    this.top[x] = to;
    if (x > this.n) this.ring[x]!.forEach((part) => this.setTop(part, to));
  }

  /** Place of a part in its flower's ring, the ring turned about so that the way there is even. */
  private evenPlace(flower: number, part: number): number {
    const ring = this.ring[flower]!;
    const place = ring.indexOf(part);
    if (place % 2 === 0) return place;
    this.ring[flower] = [ring[0]!, ...ring.slice(1).reverse()];
    return ring.length - place;
  }

  private pair(u: number, v: number): void {
    const link = this.link(u, v);
    this.mate[u] = this.to[link]!;
    if (u <= this.n) return;
    const part = this.holder[u]![this.from[link]!]!;
    const place = this.evenPlace(u, part);
    const ring = this.ring[u]!;
    for (let i = 0; i < place; i++) this.pair(ring[i]!, ring[i ^ 1]!);
    this.pair(part, v);
    this.ring[u] = [...ring.slice(place), ...ring.slice(0, place)];
  }

  private augment(from: number, to: number): void {
    let [u, v] = [from, to];
    for (;;) {
      const next = this.top[this.mate[u]!]!;
      this.pair(u, v);
      if (!next) return;
      this.pair(next, this.top[this.parent[next]!]!);
      [u, v] = [this.top[this.parent[next]!]!, next];
    }
  }

  private commonRoot(a: number, b: number): number {
    this.round++;
    let [u, v] = [a, b];
    while (u || v) {
      if (u) {
        if (this.seen[u] === this.round) return u;
        this.seen[u] = this.round;
        u = this.top[this.mate[u]!]!;
        if (u) u = this.top[this.parent[u]!]!;
      }
      [u, v] = [v, u];
    }
    return 0;
  }

  private addFlower(u: number, root: number, v: number): void {
    let b = this.n + 1;
    while (b <= this.last && this.top[b]) b++;
    if (b > this.last) this.last++;
    this.dual[b] = 0;
    this.mark[b] = OUTER;
    this.mate[b] = this.mate[root]!;
    const side = (from: number): number[] => {
      const parts: number[] = [];
      for (let x = from; x !== root;) {
        const y = this.top[this.mate[x]!]!;
        parts.push(x, y);
        this.push(y);
        x = this.top[this.parent[y]!]!;
      }
      return parts;
    };
    this.ring[b] = [root, ...side(u).reverse()];
    this.ring[b]!.push(...side(v));
    this.setTop(b, b);
    for (let x = 1; x <= this.last; x++) this.worth[this.link(b, x)] = this.worth[this.link(x, b)] = 0;
    this.holder[b]!.fill(0);
    for (const part of this.ring[b]!) {
      for (let x = 1; x <= this.last; x++) {
        if (this.worth[this.link(b, x)] === 0 || this.gap(this.link(part, x)) < this.gap(this.link(b, x))) {
          this.copyLink(this.link(b, x), this.link(part, x));
          this.copyLink(this.link(x, b), this.link(x, part));
        }
      }
      for (let x = 1; x <= this.n; x++) if (this.holder[part]![x]) this.holder[b]![x] = part;
    }
    this.findSlack(b);
  }

  private openFlower(b: number): void {
    for (const part of this.ring[b]!) this.setTop(part, part);
    const entry = this.holder[b]![this.from[this.link(b, this.parent[b]!)]!]!;
    const place = this.evenPlace(b, entry);
    const ring = this.ring[b]!;
    for (let i = 0; i < place; i += 2) {
      const [inner, outer] = [ring[i]!, ring[i + 1]!];
      this.parent[inner] = this.from[this.link(outer, inner)]!;
      this.mark[inner] = INNER;
      this.mark[outer] = OUTER;
      this.slack[inner] = 0;
      this.findSlack(outer);
      this.push(outer);
    }
    this.mark[entry] = INNER;
    this.parent[entry] = this.parent[b]!;
    for (let i = place + 1; i < ring.length; i++) {
      this.mark[ring[i]!] = FREE;
      this.findSlack(ring[i]!);
    }
    this.top[b] = 0;
  }

  /** Follows a link that has become tight; true where a pair more was made. */
  private follow(link: number): boolean {
    const [u, v] = [this.top[this.from[link]!]!, this.top[this.to[link]!]!];
    if (this.mark[v] === FREE) {
      this.parent[v] = this.from[link]!;
      this.mark[v] = INNER;
      const next = this.top[this.mate[v]!]!;
      this.slack[v] = 0;
      this.slack[next] = 0;
      this.mark[next] = OUTER;
      this.push(next);
    } else if (this.mark[v] === OUTER) {
      const root = this.commonRoot(u, v);
      if (!root) {
        this.augment(u, v);
        this.augment(v, u);
        return true;
      }
      this.addFlower(u, root, v);
    }
    return false;
  }

  /** One stage: searches from all free nodes until a pair more is made (true), or none is worth it. */
  private grow(): boolean {
    this.mark.fill(FREE);
    this.slack.fill(0);
    this.queue = [];
    for (let x = 1; x <= this.last; x++) {
      if (this.top[x] === x && !this.mate[x]) {
        this.parent[x] = 0;
        this.mark[x] = OUTER;
        this.push(x);
      }
    }
    if (!this.queue.length) return false;
    for (;;) {
      while (this.queue.length) {
        const u = this.queue.shift()!;
        if (this.mark[this.top[u]!] === INNER) continue;
        for (const v of this.near[u]!) {
          const link = this.link(u, v);
          if (this.top[u] === this.top[v]) continue;
          if (this.gap(link) !== 0) this.improveSlack(u, this.top[v]!);
          else if (this.follow(link)) return true;
        }
      }
      if (!this.shiftDuals()) return false;
      this.queue = [];
      for (let x = 1; x <= this.last; x++) {
        const s = this.slack[x]!;
        if (this.top[x] === x && s && this.top[s] !== x && this.gap(this.link(s, x)) === 0 && this.follow(this.link(s, x))) return true;
      }
      for (let b = this.n + 1; b <= this.last; b++) if (this.top[b] === b && this.mark[b] === INNER && this.dual[b] === 0) this.openFlower(b);
    }
  }

  /** Moves the dual values as far as something becomes tight; false where a free node's has come to nothing. */
  private shiftDuals(): boolean {
    let by = Infinity;
    for (let b = this.n + 1; b <= this.last; b++) if (this.top[b] === b && this.mark[b] === INNER) by = Math.min(by, this.dual[b]! / 2);
    for (let x = 1; x <= this.last; x++) {
      if (this.top[x] !== x || !this.slack[x]) continue;
      const gap = this.gap(this.link(this.slack[x]!, x));
      if (this.mark[x] === FREE) by = Math.min(by, gap);
      else if (this.mark[x] === OUTER) by = Math.min(by, gap / 2);
    }
    for (let u = 1; u <= this.n; u++) {
      if (this.mark[this.top[u]!] === OUTER) {
        if (this.dual[u]! <= by) return false;
        this.dual[u] = this.dual[u]! - by;
      } else if (this.mark[this.top[u]!] === INNER) this.dual[u] = this.dual[u]! + by;
    }
    for (let b = this.n + 1; b <= this.last; b++) {
      if (this.top[b] !== b) continue;
      if (this.mark[b] === OUTER) this.dual[b] = this.dual[b]! + 2 * by;
      else if (this.mark[b] === INNER) this.dual[b] = this.dual[b]! - 2 * by;
    }
    return true;
  }
}
