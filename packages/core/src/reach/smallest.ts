import { bestClosure, type Group, type Problem } from './closure';

/** Items that were chosen, and what that comes to. */
export interface Choice {
  items: ReadonlySet<number>;
  weight: number;
  /** Documents all of whose needs are chosen. */
  covered: number;
  /** Whether it is proven that no lighter choice covers as many. */
  isLeast: boolean;
}

/**
 * The choices from nothing to everything, each a part of the next. Those that are `isLeast` are the corners of the best curve there is:
 * found exactly, by a minimum cut for each. Between two of them the next document is always the one that costs least for what it brings.
 */
export function choicesOf(problem: Problem): Choice[] {
  const corners = cornersOf(problem);
  return corners.flatMap((corner, at) => {
    const next = corners[at + 1];
    return next === undefined ? [corner] : [corner, ...between(problem, corner, next)];
  });
}

/** What is lightest for a share of the documents, as far as can be told. */
export interface Smallest extends Choice {
  /** No choice that covers as many is lighter than this. */
  bound: number;
}

/**
 * Finds a light choice that covers at least so many documents: from the curve, or from the corner above it by taking away what costs
 * fewest documents for its weight, whichever is lighter.
 *
 * @param most how many documents can be covered at all, at least `covered`
 */
export function smallestFor(problem: Problem, choices: readonly Choice[], covered: number): Smallest {
  const corners = choices.filter(({ isLeast }) => isLeast);
  const above = corners.find((corner) => corner.covered >= covered)!;
  const below = corners.findLast((corner) => corner.covered < covered);
  const bound = below === undefined || above.covered === covered ? above.weight : boundBetween(below, above, covered);
  const fromBelow = trimmed(
    problem,
    choices.find((choice) => choice.covered >= covered)!,
    covered,
  );
  const fromAbove = trimmed(problem, above, covered);
  const best = fromAbove.weight < fromBelow.weight ? fromAbove : fromBelow;
  return { ...best, isLeast: best.weight <= bound, bound };
}

/** The line between two corners, which no choice lies beyond; weights are whole numbers. */
const boundBetween = (below: Choice, above: Choice, covered: number): number =>
  Math.ceil(below.weight + ((covered - below.covered) * (above.weight - below.weight)) / (above.covered - below.covered) - 1e-9);

function cornersOf(problem: Problem): Choice[] {
  const whole = choiceOf(problem, new Set(problem.groups.flatMap(({ items }) => items)), true);
  const nothing = choiceOf(problem, new Set(), true);
  const corners = [nothing];
  const stack: [low: Choice, high: Choice][] = whole.weight > 0 ? [[nothing, whole]] : [];
  for (let pair = stack.pop(); pair !== undefined; pair = stack.pop()) {
    const [low, high] = pair;
    const middle = cornerBetween(problem, low, high);
    if (middle === null) corners.push(high);
    else stack.push([middle, high], [low, middle]);
  }
  return corners;
}

/** A choice between two that lies beyond the line from one to the other, as far as any; null where none does. */
function cornerBetween(problem: Problem, low: Choice, high: Choice): Choice | null {
  const [gain, price] = [high.weight - low.weight, high.covered - low.covered];
  const { smaller, items } = reduced(problem, low.items, high.items);
  const chosen = bestClosure(smaller, gain, price);
  const middle = choiceOf(problem, new Set([...low.items, ...[...chosen].map((item) => items[item]!)]), true);
  const worth = gain * (middle.covered - low.covered) - price * (middle.weight - low.weight);
  return worth > 0 ? middle : null;
}

/** The problem that is left where some items are chosen already and none beside others can be. */
function reduced({ weights, groups }: Problem, chosen: ReadonlySet<number>, possible: ReadonlySet<number>) {
  const items = [...possible].filter((item) => !chosen.has(item));
  const numbers = new Map(items.map((item, number) => [item, number]));
  const left = new Map<string, { items: number[]; count: number }>();
  for (const { items: needed, count } of groups) {
    if (!needed.every((item) => possible.has(item))) continue;
    const still = needed.filter((item) => !chosen.has(item)).map((item) => numbers.get(item)!);
    if (still.length === 0) continue;
    const key = still.sort((one, other) => one - other).join(' ');
    const known = left.get(key);
    if (known === undefined) left.set(key, { items: still, count });
    else known.count += count;
  }
  return { items, smaller: { weights: items.map((item) => weights[item]!), groups: [...left.values()] } };
}

function choiceOf({ weights, groups }: Problem, items: ReadonlySet<number>, isLeast: boolean): Choice {
  let [weight, covered] = [0, 0];
  for (const item of items) weight += weights[item]!;
  for (const group of groups) if (group.items.every((item) => items.has(item))) covered += group.count;
  return { items, weight, covered, isLeast };
}

/** The way from one choice to the next, group by group, both left out. */
function between(problem: Problem, low: Choice, high: Choice): Choice[] {
  const { smaller, items } = reduced(problem, low.items, high.items);
  const { weights, groups } = smaller;
  const holding: number[][] = weights.map(() => []);
  groups.forEach(({ items: needed }, group) => {
    for (const item of needed) holding[item]!.push(group);
  });
  const cost = groups.map(({ items: needed }) => needed.reduce((sum, item) => sum + weights[item]!, 0));
  const chosen = new Set(low.items);
  const way: Choice[] = [];
  let { weight, covered } = low;
  while (covered < high.covered) {
    const next = cheapest(groups, cost);
    if (next === -1) break;
    for (const item of groups[next]!.items) {
      if (chosen.has(items[item]!)) continue;
      chosen.add(items[item]!);
      weight += weights[item]!;
      for (const group of holding[item]!) {
        cost[group]! -= weights[item]!;
        if (cost[group] === 0) covered += groups[group]!.count;
      }
    }
    way.push({ items: new Set(chosen), weight, covered, isLeast: false });
  }
  return way.filter(({ covered: all }) => all < high.covered);
}

/** The group that brings most documents for what it still costs; -1 where all are paid. */
function cheapest(groups: readonly Group[], cost: readonly number[]): number {
  let [best, worth] = [-1, 0];
  for (let group = 0; group < groups.length; group++) {
    if (cost[group] === 0) continue;
    const own = groups[group]!.count / cost[group]!;
    if (own > worth) [best, worth] = [group, own];
  }
  return best;
}

/** A choice without what can be spared while it still covers so many. */
function trimmed(problem: Problem, choice: Choice, covered: number): Choice {
  const { weights, groups } = problem;
  const items = new Set(choice.items);
  let alive = groups.filter(({ items: needed }) => needed.every((item) => items.has(item)));
  let spare = choice.covered - covered;
  for (;;) {
    const lost = new Map([...items].map((item): [number, number] => [item, 0]));
    for (const { items: needed, count } of alive) for (const item of needed) lost.set(item, lost.get(item)! + count);
    for (const [item, count] of lost) if (count === 0) items.delete(item);
    const [first] = [...lost]
      .filter(([, count]) => count > 0 && count <= spare)
      .sort(([one, onesCount], [other, othersCount]) => onesCount / weights[one]! - othersCount / weights[other]! || one - other);
    if (first === undefined) break;
    const [item, count] = first;
    items.delete(item);
    spare -= count;
    alive = alive.filter(({ items: needed }) => !needed.includes(item));
  }
  return choiceOf(problem, items, false);
}
