import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { Severity } from '@typikon/core';

const WORDS: Readonly<Record<Severity, string>> = { loss: 'Lost', change: 'Changed', tidy: 'Tidied' };

/** The mark of an outcome: a shape and a word of its own, not only a colour. */
@Component({
  selector: 'ty-severity-mark',
  template: `
    <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true" fill="none" stroke="currentColor" stroke-width="1.7">
      @switch (severity()) {
        @case ('loss') {
          <path d="M3 3h10v10H3zM3 13 13 3" />
        }
        @case ('change') {
          <path d="M2.500 6.500c2-3 3.500 1.500 5.500 0s3.500-3 5.500 0M2.500 11c2-3 3.500 1.500 5.500 0s3.500-3 5.500 0" />
        }
        @default {
          <path d="M4 8h8" stroke-dasharray="1.500 2" />
        }
      }
    </svg>
    <span class="ty-unseen">{{ word() }}: </span>
  `,
  styles: `
    :host {
      display: inline-grid;
      place-items: center;
      width: 20px;
      height: 18px;
    }
    :host.loss {
      color: var(--ty-rubric);
    }
    :host.change {
      color: var(--ty-ochre);
    }
    :host.tidy {
      color: var(--ty-soft);
    }
  `,
  host: { '[class]': 'severity()' },
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SeverityMark {
  readonly severity = input.required<Severity>();
  protected readonly word = computed(() => WORDS[this.severity()]);
}
