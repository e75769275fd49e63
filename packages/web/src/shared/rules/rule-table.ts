import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, contentChild, ElementRef, inject, input, output, type TemplateRef } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import type { Risk } from '@typikon/core';

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
 */
@Component({
  selector: 'ty-rule-table',
  imports: [MatButtonModule, MatCheckboxModule, NgTemplateOutlet],
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
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  /** The place of a row on the screen, for whoever scrolls it into view. */
  rowOf(name: string): HTMLElement | undefined {
    return [...this.host.querySelectorAll<HTMLElement>('[data-element]')].find(({ dataset }) => dataset['element'] === name);
  }
}
