import type { Contender, Reason } from '../css/cascade';
import { isInherited } from '../css/properties';
import { compileSelectors } from '../css/selector';
import type { Specificity } from '../css/specificity';
import { expand } from '../css/shorthands';
import type { ElementNode } from '../html/node';
import type { Scene } from './context';

/** A row of a contest as it is shown. */
export interface Row {
  sheet: string;
  selector: string;
  line: number;
  layer: string;
  property: string;
  value: string;
  important: boolean;
  specificity: Specificity;
  /** `wins`, by what it loses to the winner, or that its condition does not hold. */
  outcome: 'wins' | Reason | 'condition';
  condition: string;
}

export interface ContestTable {
  /** The value as far as it is known without layout. */
  value: string;
  /** The winner first. Where nothing is declared, the value is inherited or the browser's. */
  rows: Row[];
  /** Where it is inherited: how many elements further up it is declared. */
  levels: number;
}

/** The contest for a property of an element: who won, who lost and by what. */
export function contestFor(scene: Scene, element: ElementNode, property: string, pseudo = ''): ContestTable {
  const { styles } = scene;
  const { cascade } = styles;
  const name = pseudo.replace(/^::/, '');
  const style = name === '' ? styles.of(element) : styles.ofPseudo(element, name);
  if (style === null) return { value: '', rows: [], levels: 0 };
  const value = style.value(property);
  let at = style;
  let from: ElementNode | null = element;
  let levels = 0;
  while (at.source(property).contender === null && at.parent !== null && isInherited(property)) {
    at = at.parent;
    if (levels > 0 || name === '') from = from?.parent?.type === 'element' ? from.parent : null;
    levels++;
  }
  const contest = at.contests.get(property);
  const rows: Row[] = [];
  if (contest !== undefined) {
    rows.push(rowOf(contest.winner, 'wins'));
    for (const loser of contest.losers) rows.push(rowOf(loser, cascade.decide(contest.winner, loser).reason));
  } else {
    const { contender } = at.source(property);
    if (contender !== null) rows.push(rowOf(contender, 'wins'));
    levels = contender === null ? 0 : levels;
  }
  if (name === '' && from !== null)
    for (const dormant of cascade.wouldDeclare(from)) if (longhandIs(dormant, property)) rows.push(rowOf(dormant, 'condition'));
  return { value, rows, levels };
}

const longhandIs = ({ property, declared }: Contender, wanted: string): boolean =>
  expand(property, declared).some((longhand) => longhand.property === wanted);

const rowOf = (
  { sheet, selector, line, layer, property, declared, important, specificity, off }: Contender,
  outcome: Row['outcome'],
): Row => ({ sheet, selector, line, layer, property, value: declared, important, specificity, outcome, condition: off });

/** A list of selectors with one to a line, shortened where it is long, as a table shows it. */
export function shortSelector(selector: string, most = 60): string {
  try {
    const all = compileSelectors(selector).map(({ text }) => text);
    return all.length > 1 && selector.length > most ? `${all[0]!}, … (${all.length})` : selector;
  } catch {
    return selector;
  }
}
