import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { Store } from '@ngrx/store';
import { selectAsReaders } from '../../state/pages';
import { framedText } from '../../shared/page/framed-text';
import type { BothResults, TouchedText } from '../../state/reach';

/** So many lost words are told one by one. */
const MOST_WORDS = 40;

/** One stored text as the last edition leaves it and as the draft would: as readers see it, or as markup. */
@Component({
  selector: 'ty-text-by-both',
  imports: [MatButtonToggleModule, RouterLink],
  template: `
    @if (failure(); as failure) {
      <p class="ty-failure" role="alert">The text cannot be shown. {{ failure }}</p>
    } @else if (shown(); as both) {
      <header>
        <p>
          <a [routerLink]="['/write', both.text.document]">{{ both.text.title }}</a>
          @if (lost(); as words) {
            <span class="bad"
              >loses {{ both.results.wordsLost.length === 1 ? 'a word' : both.results.wordsLost.length + ' words' }}:
              <em>{{ words }}</em></span
            >
          } @else {
            <span class="ty-soft">loses no word</span>
          }
        </p>
        <mat-button-toggle-group aria-label="How it is shown" hideSingleSelectionIndicator [value]="way()" (change)="way.set($event.value)">
          <mat-button-toggle value="page">On the page</mat-button-toggle>
          <mat-button-toggle value="markup">As markup</mat-button-toggle>
        </mat-button-toggle-group>
      </header>
      <div class="pair">
        @for (side of sides(); track side.heading) {
          <section [attr.aria-label]="side.heading">
            <h3>{{ side.heading }}</h3>
            @if (way() === 'page') {
              <iframe [srcdoc]="side.framed" sandbox="" [title]="side.heading" referrerpolicy="no-referrer"></iframe>
            } @else {
              <pre tabindex="0" [attr.aria-label]="side.heading">{{ side.html || '(nothing is left)' }}</pre>
            }
          </section>
        }
      </div>
    } @else {
      <p class="ty-soft" role="status">Reading the text …</p>
    }
  `,
  styleUrl: './text-by-both.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TextByBoth {
  readonly shown = input.required<{ text: TouchedText; results: BothResults } | null>();
  readonly failure = input('');
  /** What the two results are called. */
  readonly heads = input.required<readonly [string, string]>();
  protected readonly way = signal<'page' | 'markup'>('page');
  private readonly sanitizer = inject(DomSanitizer);
  private readonly library = inject(Store).selectSignal(selectAsReaders);
  protected readonly lost = computed(() => {
    const words = this.shown()?.results.wordsLost ?? [];
    const told = words.slice(0, MOST_WORDS).join(' ');
    return words.length > MOST_WORDS ? `${told} … and ${words.length - MOST_WORDS} more` : told;
  });
  protected readonly sides = computed(() => {
    const both = this.shown();
    if (both === null) return [];
    const { before, after } = both.results;
    return [
      { heading: this.heads()[0], html: before, framed: this.framed(before) },
      { heading: this.heads()[1], html: after, framed: this.framed(after) },
    ];
  });

  /** Clean markup as its page shows it; the frame is sandboxed and runs nothing. */
  private framed(html: string): SafeHtml | null {
    const page = framedText(this.library(), this.shown()?.results.pageKind ?? '', html);
    return page === null ? null : this.sanitizer.bypassSecurityTrustHtml(page);
  }
}
