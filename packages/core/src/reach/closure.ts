/** Sets of documents that need the same items, and what each item weighs. */
export interface Problem {
  /** By the number of the item; whole numbers above 0. */
  weights: readonly number[];
  groups: readonly Group[];
}

export interface Group {
  /** The items that are all needed, each once. */
  items: readonly number[];
  /** How many documents need exactly these; a whole number above 0. */
  count: number;
}

/**
 * Chooses items so that `gain` for each covered document less `price` for each unit of weight is most: the closure problem, solved as
 * a minimum cut (J. C. Picard, "Maximal closure of a graph and applications to combinatorial problems", Management Science 22, 1976)
 * by the algorithm of Dinic. Of several best choices the smallest is made.
 *
 * @param problem gain × all counts and price × all weights have to stay below 2^53
 * @returns the items chosen
 */
export function bestClosure({ weights, groups }: Problem, gain: number, price: number): Set<number> {
  const network = new Network(groups.length + weights.length + 2);
  const [source, sink] = [groups.length + weights.length, groups.length + weights.length + 1];
  groups.forEach(({ items, count }, group) => {
    network.connect(source, group, gain * count);
    for (const item of items) network.connect(group, groups.length + item, Infinity);
  });
  weights.forEach((weight, item) => network.connect(groups.length + item, sink, price * weight));
  network.saturate(source, sink);
  const reached = network.levels(source);
  return new Set(weights.flatMap((_, item) => (reached[groups.length + item]! >= 0 ? [item] : [])));
}

/** A flow network: edges in pairs, there and back, each pair side by side. */
class Network {
  private readonly to: number[] = [];
  private readonly room: number[] = [];
  private readonly edges: number[][];

  constructor(private readonly nodes: number) {
    this.edges = Array.from({ length: nodes }, () => []);
  }

  connect(from: number, to: number, capacity: number): void {
    this.edges[from]!.push(this.to.length);
    this.to.push(to);
    this.room.push(capacity);
    this.edges[to]!.push(this.to.length);
    this.to.push(from);
    this.room.push(0);
  }

  /** How far each node is from one, by edges with room left; -1 where none leads. */
  levels(source: number): Int32Array {
    const level = new Int32Array(this.nodes).fill(-1);
    level[source] = 0;
    const queue = [source];
    for (let at = 0; at < queue.length; at++) {
      const node = queue[at]!;
      for (const edge of this.edges[node]!) {
        const next = this.to[edge]!;
        if (this.room[edge]! > 0 && level[next] === -1) {
          level[next] = level[node]! + 1;
          queue.push(next);
        }
      }
    }
    return level;
  }

  /** Sends as much as there is room for. */
  saturate(source: number, sink: number): void {
    for (let level = this.levels(source); level[sink] !== -1; level = this.levels(source)) {
      const tried = new Int32Array(this.nodes);
      while (this.push(source, sink, level, tried));
    }
  }

  /** Sends what one more way takes, without recursion; false where there is none. */
  private push(source: number, sink: number, level: Int32Array, tried: Int32Array): boolean {
    const way: number[] = [];
    let node = source;
    while (node !== sink) {
      const edges = this.edges[node]!;
      let edge = -1;
      while (tried[node]! < edges.length) {
        const candidate = edges[tried[node]!]!;
        if (this.room[candidate]! > 0 && level[this.to[candidate]!] === level[node]! + 1) {
          edge = candidate;
          break;
        }
        tried[node]!++;
      }
      if (edge !== -1) {
        way.push(edge);
        node = this.to[edge]!;
        continue;
      }
      const back = way.pop();
      if (back === undefined) return false;
      node = this.to[back ^ 1]!;
      tried[node]!++;
    }
    const most = way.reduce((least, edge) => Math.min(least, this.room[edge]!), Infinity);
    for (const edge of way) {
      this.room[edge]! -= most;
      this.room[edge ^ 1]! += most;
    }
    return true;
  }
}
