import { ChangeDetectionStrategy, Component, computed, inject, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { Store } from '@ngrx/store';
import { selectAsReaders } from '../../state/pages';
import type { Answer, Question } from '../../state/questions';
import { framedText } from '../../shared/page/framed-text';

/** What somebody wants to know of the author of a text: as it is, as it would be, and what to say. */
@Component({
  selector: 'ty-question-notice',
  imports: [MatButtonModule, MatFormFieldModule, MatInputModule],
  template: `
    <header>
      <p>
        <b>{{ asker() || 'Somebody' }} asks about “{{ fieldTitle() }}”:</b> {{ question().note || 'May it come out so?' }}
        <span class="ty-soft">The rules of {{ profileName() }} are to change.</span>
      </p>
      <button mat-stroked-button type="button" [attr.aria-expanded]="isOpen()" (click)="isOpen.set(!isOpen())">
        {{ isOpen() ? 'Hide both' : 'See both' }}
      </button>
    </header>
    @if (isOpen()) {
      <div class="pair">
        @for (side of sides(); track side.heading) {
          <section [attr.aria-label]="side.heading">
            <h2>{{ side.heading }}</h2>
            <iframe [srcdoc]="side.framed" sandbox="" [title]="side.heading" referrerpolicy="no-referrer"></iframe>
          </section>
        }
      </div>
    }
    <div class="answer">
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <input matInput #said maxlength="1000" placeholder="What you want to say (if anything)" aria-label="What you want to say" />
      </mat-form-field>
      <button mat-stroked-button type="button" [disabled]="isBusy()" (click)="answered.emit({ answer: 'fine', reply: said.value })">
        It may come out so
      </button>
      <button mat-stroked-button type="button" [disabled]="isBusy()" (click)="answered.emit({ answer: 'stays', reply: said.value })">
        It must stay
      </button>
      <button mat-stroked-button type="button" [disabled]="isBusy()" (click)="answered.emit({ answer: 'changed', reply: said.value })">
        I wrote it anew
      </button>
    </div>
    @if (failure(); as failure) {
      <p class="ty-failure" role="alert">{{ failure }}</p>
    }
  `,
  styles: `
    :host {
      display: block;
      padding: 10px 20px 12px;
      border-bottom: 1px solid var(--ty-line);
      background: var(--ty-ochre-wash);
      font-size: 13px;
    }
    header {
      display: flex;
      align-items: center;
      justify-content: space-between;
      gap: 14px;
    }
    .ty-soft {
      color: var(--ty-ink);
    }
    .pair {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(260px, 1fr));
      gap: 1px;
      margin-top: 8px;
      background: var(--ty-line);
      border: 1px solid var(--ty-line);
    }
    section {
      background: var(--ty-sheet);
    }
    h2 {
      padding: 5px 12px;
      font: 500 12px/16px var(--ty-sans);
    }
    iframe {
      display: block;
      width: 100%;
      height: 240px;
      border: 0;
      background: #fff;
    }
    .answer {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin-top: 8px;
    }
    .answer mat-form-field {
      flex: 1 1 240px;
      background: var(--ty-sheet);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class QuestionNotice {
  readonly question = input.required<Question>();
  readonly asker = input('');
  readonly fieldTitle = input.required<string>();
  readonly profileName = input.required<string>();
  readonly pageKind = input.required<string>();
  readonly isBusy = input(false);
  readonly failure = input('');
  readonly answered = output<{ answer: Answer; reply: string }>();
  protected readonly isOpen = signal(true);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly library = inject(Store).selectSignal(selectAsReaders);
  protected readonly sides = computed(() => {
    const { before, after } = this.question();
    return [
      { heading: 'As it is', framed: this.framed(before) },
      { heading: 'As it would be', framed: this.framed(after) },
    ];
  });

  /** Clean markup as its page shows it; the frame is sandboxed and runs nothing. */
  private framed(html: string): SafeHtml | null {
    const page = framedText(this.library(), this.pageKind(), html);
    return page === null ? null : this.sanitizer.bypassSecurityTrustHtml(page);
  }
}
