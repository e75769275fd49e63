import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { framedText } from '../../shared/page/framed-text';
import type { Shown } from '../../state/pages';
import type { LookingText } from './looks-store';

/** One stored text on its page as readers see it, and as they would. */
@Component({
  selector: 'ty-look-by-both',
  imports: [RouterLink],
  template: `
    <header>
      <p>
        <a [routerLink]="['/write', text().document]">{{ text().title }}</a>
        <span class="ty-soft"
          >{{ text().differing === 1 ? 'one element looks' : text().differing + ' elements look' }} different, of
          {{ text().look.elements }}</span
        >
      </p>
    </header>
    <div class="pair">
      @for (side of sides(); track side.heading) {
        <section [attr.aria-label]="side.heading">
          <h3>{{ side.heading }}</h3>
          <iframe [srcdoc]="side.framed" sandbox="" [title]="side.heading" referrerpolicy="no-referrer"></iframe>
        </section>
      } @empty {
        <p role="status" class="ty-soft">There are too many texts to keep all of them. Open it to see it.</p>
      }
    </div>
  `,
  styleUrl: './text-by-both.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LookByBoth {
  readonly text = input.required<LookingText>();
  /** Pages as readers see them, and as they would. */
  readonly before = input.required<Shown>();
  readonly after = input.required<Shown>();
  /** The number of the last edition. */
  readonly edition = input.required<number>();
  private readonly sanitizer = inject(DomSanitizer);
  protected readonly sides = computed(() => {
    const { html } = this.text();
    if (html === null) return [];
    return [
      { heading: `As edition ${this.edition()} has it`, framed: this.framed(this.before(), html) },
      { heading: 'By the draft', framed: this.framed(this.after(), html) },
    ];
  });

  /** Clean markup as a page shows it; the frame is sandboxed and runs nothing. */
  private framed(shown: Shown, html: string): SafeHtml | null {
    const page = framedText(shown, this.text().pageKind, html);
    return page === null ? null : this.sanitizer.bypassSecurityTrustHtml(page);
  }
}
