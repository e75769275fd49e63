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
  styleUrl: './left-list.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class LeftList {
  readonly texts = input.required<readonly LeftText[]>();
  readonly isBusy = input(false);
  readonly failure = input('');
  readonly follows = output<LeftText>();
}
