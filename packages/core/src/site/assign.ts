import type { Statement } from './schema';

/** A question: who writes where. */
export interface Question {
  /** The roles of one person; none for somebody without any. */
  roles: readonly string[];
  type: string;
  field: string;
}

/** Which profiles somebody may write with in a field, and why. */
export interface Assignment {
  /** The profile that the editor starts with; null where nobody may write there. */
  profile: string | null;
  /** All that may be chosen, the first of them the default. */
  choices: readonly string[];
  /** The place of the statement that won; null where none fits and the fallback holds. */
  statement: number | null;
  /** The places of later statements that would fit as well. */
  beaten: readonly number[];
}

/** What of a site it depends on who writes with what. */
export interface Assigning {
  assignments: readonly Pick<Statement, 'roles' | 'types' | 'fields' | 'profiles'>[];
  /** The profiles for whatever no statement fits. */
  fallback?: readonly string[];
}

/** One bit for each statement. */
type Bits = Uint32Array;

/**
 * Answers who writes with what: of an ordered list of statements the first that fits wins. Each name has one bit for each
 * statement, so a question costs one pass over the bits, however many names there are.
 */
export class Assignments {
  private readonly words: number;
  private readonly roles: Names;
  private readonly types: Names;
  private readonly fields: Names;

  constructor(private readonly site: Assigning) {
    const { assignments } = site;
    this.words = Math.ceil(assignments.length / 32);
    const of = (read: (statement: Assigning['assignments'][number]) => '*' | readonly string[]): Names =>
      new Names(assignments.map(read), this.words);
    this.roles = of(({ roles }) => roles);
    this.types = of(({ types }) => types);
    this.fields = of(({ fields }) => fields);
  }

  /** The answer to one question. Every question has exactly one. */
  why({ roles, type, field }: Question): Assignment {
    const fitting = this.fitting(roles, type, field);
    const [statement = null, ...beaten] = fitting;
    const choices = statement === null ? (this.site.fallback ?? []) : this.site.assignments[statement]!.profiles;
    return { profile: choices[0] ?? null, choices, statement, beaten };
  }

  /** The place of the statement that wins; null where none fits. */
  first({ roles, type, field }: Question): number | null {
    const byType = this.types.of(type);
    const byField = this.fields.of(field);
    const byRoles = this.ofRoles(roles);
    for (let word = 0; word < this.words; word++) {
      const bits = (byRoles[word]! & byType[word]! & byField[word]!) >>> 0;
      if (bits !== 0) return word * 32 + lowest(bits);
    }
    return null;
  }

  private fitting(roles: readonly string[], type: string, field: string): number[] {
    const byType = this.types.of(type);
    const byField = this.fields.of(field);
    const byRoles = this.ofRoles(roles);
    const all: number[] = [];
    for (let word = 0; word < this.words; word++)
      for (let bits = (byRoles[word]! & byType[word]! & byField[word]!) >>> 0; bits !== 0; bits = (bits & (bits - 1)) >>> 0)
        all.push(word * 32 + lowest(bits));
    return all;
  }

  private ofRoles(roles: readonly string[]): Bits {
    const [first, ...others] = roles;
    if (others.length === 0) return first === undefined ? this.roles.everybody : this.roles.of(first);
    const all = this.roles.of(first!).slice();
    for (const role of others) {
      const bits = this.roles.of(role);
      for (let word = 0; word < this.words; word++) all[word]! |= bits[word]!;
    }
    return all;
  }
}

/** For each name the statements that mention it, or everybody. */
class Names {
  readonly everybody: Bits;
  private readonly named = new Map<string, Bits>();

  constructor(lists: readonly ('*' | readonly string[])[], words: number) {
    this.everybody = new Uint32Array(words);
    lists.forEach((list, at) => {
      if (list === '*') this.everybody[at >>> 5]! |= 1 << (at & 31);
    });
    lists.forEach((list, at) => {
      if (list === '*') return;
      for (const name of list) {
        let bits = this.named.get(name);
        if (bits === undefined) this.named.set(name, (bits = this.everybody.slice()));
        bits[at >>> 5]! |= 1 << (at & 31);
      }
    });
  }

  of(name: string): Bits {
    return this.named.get(name) ?? this.everybody;
  }
}

/** The place of the lowest bit that is set. */
const lowest = (bits: number): number => 31 - Math.clz32(bits & -bits);

/** A field of a content type, as far as questions are concerned. */
export interface Place {
  type: string;
  field: string;
}

/**
 * Statements that never win, whoever asks: an earlier one always does. Somebody with several roles gets what one of them
 * gets, so it is enough to ask for each role, and for somebody without any.
 *
 * @param places every field of every type
 * @returns the places of those statements, each with the earlier ones that win instead; none where nothing is there that they fit
 */
export function neverWinning(
  site: Assigning,
  roles: readonly string[],
  places: readonly Place[],
): { statement: number; behind: number[] }[] {
  const assignments = new Assignments(site);
  const wins = new Set<number>();
  const behind = new Map<number, Set<number>>();
  for (const { type, field } of places)
    for (const role of [null, ...roles]) {
      const { statement, beaten } = assignments.why({ roles: role === null ? [] : [role], type, field });
      if (statement === null) continue;
      wins.add(statement);
      for (const loser of beaten) {
        let winners = behind.get(loser);
        if (winners === undefined) behind.set(loser, (winners = new Set()));
        winners.add(statement);
      }
    }
  return site.assignments.flatMap((_statement, at) =>
    wins.has(at) ? [] : [{ statement: at, behind: [...(behind.get(at) ?? [])].sort((a, b) => a - b) }],
  );
}
