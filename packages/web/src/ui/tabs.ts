import { ChangeDetectionStrategy, Component, ElementRef, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';

export interface Tab<Id extends string = string> {
  id: Id;
  label: string;
  /** A paragraph sign in front, as in a book of rules. */
  cite?: string;
  /** A short addition behind the label, such as a count, and what it means. */
  mark?: { text: string; meaning: string };
}

/** A row of tabs: one tab stop, arrow keys between them (ARIA Authoring Practices, "Tabs"). */
@Component({
  selector: 'ty-tabs',
  imports: [MatButtonModule],
  template: `
    <div class="row" role="tablist" [attr.aria-label]="label()">
      @for (tab of tabs(); track tab.id) {
        <button
          mat-button
          type="button"
          role="tab"
          class="ty-plain"
          [id]="prefix() + '-tab-' + tab.id"
          [attr.aria-controls]="prefix() + '-panel'"
          [attr.aria-selected]="tab.id === current()"
          [tabIndex]="tab.id === current() ? 0 : -1"
          (click)="chosen.emit(tab.id)"
          (keydown)="key($event)"
        >
          @if (tab.cite) {
            <b aria-hidden="true">{{ tab.cite }}</b>
          }
          {{ tab.label }}
          @if (tab.mark) {
            <sup aria-hidden="true">{{ tab.mark.text }}</sup><span class="ty-unseen">, {{ tab.mark.meaning }}</span>
          }
        </button>
      }
    </div>
  `,
  styles: `
    :host {
      display: block;
    }
    .row {
      display: flex;
      gap: 2px;
    }
    .row .ty-plain {
      position: relative;
      padding: 7px 11px 8px;
      color: var(--ty-soft);
      font-size: 13px;
    }
    .row .ty-plain:hover {
      color: var(--ty-ink);
    }
    .row .ty-plain[aria-selected='true'] {
      color: var(--ty-ink);
      font-weight: 600;
      box-shadow: inset 0 -2px 0 var(--ty-ink);
    }
    b {
      font: 600 13px/20px var(--ty-serif);
      color: var(--ty-rubric);
      margin-right: 3px;
    }
    sup {
      font-size: 10px;
      color: var(--ty-ochre);
      font-weight: 600;
      margin-left: 2px;
      line-height: 1;
    }
    :host.book .row {
      padding: 10px 20px 0;
      border-bottom: 1px solid var(--ty-line);
      background: var(--ty-paper);
    }
    :host.book .row .ty-plain {
      border: 1px solid transparent;
      border-bottom: 0;
      margin-bottom: -1px;
    }
    :host.book .row .ty-plain[aria-selected='true'] {
      background: var(--ty-sheet);
      border-color: var(--ty-line);
      box-shadow: none;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Tabs<Id extends string> {
  readonly tabs = input.required<readonly Tab<Id>[]>();
  readonly current = input.required<string>();
  readonly label = input.required<string>();
  /** Makes the ids of the tabs and of the panel they control. */
  readonly prefix = input.required<string>();
  readonly chosen = output<Id>();
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;

  protected key(event: KeyboardEvent): void {
    const tabs = this.tabs();
    // The tab that has the focus: the current one may not be shown as that yet where keys come fast.
    const at = tabs.findIndex(({ id }) => `${this.prefix()}-tab-${id}` === (event.currentTarget as HTMLElement).id);
    const to =
      event.key === 'ArrowRight'
        ? at + 1
        : event.key === 'ArrowLeft'
          ? at - 1
          : event.key === 'Home'
            ? 0
            : event.key === 'End'
              ? tabs.length - 1
              : null;
    if (to === null) return;
    event.preventDefault();
    const tab = tabs[(to + tabs.length) % tabs.length]!;
    this.chosen.emit(tab.id);
    this.host.querySelector<HTMLElement>(`#${this.prefix()}-tab-${tab.id}`)?.focus();
  }
}
