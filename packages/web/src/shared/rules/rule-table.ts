import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChild,
  ElementRef,
  inject,
  input,
  output,
  signal,
  type TemplateRef,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import type { Risk } from '@typikon/core';
import { InView } from '../../ui/in-view';

/** So many rows are drawn before anybody scrolls. */
const FIRST_ROWS = 24;
const HEAD_PX = 34;
const ROW_PX = 30;

/** One element as the table of rules shows it. */
export interface RuleRow {
  name: string;
  meaning: string;
  isAllowed: boolean;
  /** Whether nobody can change that. */
  isFixed: boolean;
  risk: Risk;
  /** Its attributes, and in words what becomes of it. */
  attributes: readonly string[];
  summary: string;
}

export interface RuleGroup<Row extends RuleRow = RuleRow> {
  id: string;
  name: string;
  gloss: string;
  rows: readonly Row[];
}

/**
 * Elements by meaning: whether they may stay, and with which attributes. What else there is to say of each stands in further columns,
 * which whoever uses the table gives as the template `cells`, with their heads as `heads`; the row that is open shows `details`.
 * A group is drawn once it comes near to what is seen: there are more than a hundred rows.
 */
@Component({
  selector: 'ty-rule-table',
  imports: [InView, MatButtonModule, MatCheckboxModule, NgTemplateOutlet],
  templateUrl: './rule-table.html',
  styleUrl: './rule-table.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RuleTable<Row extends RuleRow> {
  readonly groups = input.required<readonly RuleGroup<Row>[]>();
  readonly caption = input.required<string>();
  /** What the attributes are called here. */
  readonly attributesHead = input.required<string>();
  /** How many further columns there are. */
  readonly further = input.required<number>();
  readonly chosen = input<string | null>(null);
  readonly none = input('Nothing fits.');
  readonly choose = output<Row>();
  readonly allow = output<{ row: Row; isAllowed: boolean }>();
  protected readonly heads = contentChild.required<TemplateRef<unknown>>('heads');
  protected readonly cells = contentChild.required<TemplateRef<unknown>>('cells');
  protected readonly details = contentChild.required<TemplateRef<unknown>>('details');
  /** Groups that have come into view. */
  private readonly seen = signal<ReadonlySet<string>>(new Set());
  protected readonly drawn = computed((): ReadonlySet<string> => {
    const [seen, chosen] = [this.seen(), this.chosen()];
    const drawn = new Set<string>();
    let rows = 0;
    for (const group of this.groups()) {
      // The first screen is there at once.
      if (rows < FIRST_ROWS || seen.has(group.id) || group.rows.some(({ name }) => name === chosen)) drawn.add(group.id);
      rows += group.rows.length;
    }
    return drawn;
  });
  /** The rows that there are, drawn or not, with the heads of groups and the head of the table. */
  protected readonly count = computed(() => this.groups().reduce((sum, { rows }) => sum + rows.length + 1, 1));
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  protected draw({ id }: RuleGroup): void {
    this.seen.update((seen) => new Set([...seen, id]));
  }

  /** About how high a group will be, so that the bar beside it tells the truth. */
  protected heightOf({ rows }: RuleGroup): number {
    return HEAD_PX + rows.length * ROW_PX;
  }

  /** The place of a row on the screen, for whoever scrolls it into view. */
  rowOf(name: string): HTMLElement | undefined {
    return [...this.host.querySelectorAll<HTMLElement>('[data-element]')].find(({ dataset }) => dataset['element'] === name);
  }
}
