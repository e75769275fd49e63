import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import type { LeftText } from '../../state/left';

/** Texts that releases left as they were, until somebody edits them; each can follow again. */
@Component({
  selector: 'ty-left-list',
  imports: [MatButtonModule, RouterLink],
  template: `
    <header>
      <h2 id="left-heading">Left as they are</h2>
      <span class="ty-soft">until somebody edits them</span>
    </header>
    @if (failure(); as failure) {
      <p class="ty-failure" role="alert">{{ failure }}</p>
    }
    <ul aria-labelledby="left-heading">
      @for (one of texts(); track one.document + '/' + one.field) {
        <li>
          <a [routerLink]="['/write', one.document]">{{ one.title }}</a>
          <span class="ty-soft ty-num">edition {{ one.edition }}</span>
          <button mat-button type="button" class="ty-quiet" [disabled]="isBusy()" (click)="follows.emit(one)">
            Let it follow<span class="ty-unseen"> ({{ one.title }})</span>
          </button>
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: block;
      border-top: 1px solid var(--ty-line);
    }
    header {
      display: flex;
      align-items: baseline;
      justify-content: space-between;
      padding: 12px 16px 6px;
      font-size: 12px;
    }
    h2 {
      font: 600 15px/20px var(--ty-serif);
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
    }
    li {
      padding: 5px 16px 6px;
      border-top: 1px solid var(--ty-hair);
      font-size: 13px;
      line-height: 18px;
    }
    a {
      margin-right: 6px;
      color: var(--ty-ink);
    }
    .ty-failure {
      margin: 0 16px 6px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeftList {
  readonly texts = input.required<readonly LeftText[]>();
  readonly isBusy = input(false);
  readonly failure = input('');
  readonly follows = output<LeftText>();
}
