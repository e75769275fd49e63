import { ChangeDetectionStrategy, Component, input } from '@angular/core';
import { RouterLink } from '@angular/router';

/** The line above every sheet: where one is, what it is called, how it stands, and what can be done with it. */
@Component({
  selector: 'ty-title-line',
  imports: [RouterLink],
  template: `
    <div class="names">
      <p class="path">
        @for (part of path(); track part.text) {
          @if (part.link) {
            <a [routerLink]="part.link">{{ part.text }}</a>
          } @else {
            <span>{{ part.text }}</span>
          }
          @if (!$last) {
            <span aria-hidden="true"> › </span>
          }
        }
      </p>
      <h1 [title]="heading()">{{ heading() }}</h1>
    </div>
    <ng-content select="[state]" />
    <div class="actions"><ng-content /></div>
  `,
  styles: `
    :host {
      display: flex;
      align-items: center;
      gap: 14px;
      height: 60px;
      padding: 0 16px 0 20px;
      border-bottom: 1px solid var(--ty-line);
      flex: none;
    }
    .names {
      min-width: 0;
    }
    h1 {
      font: 600 21px/28px var(--ty-serif);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .path {
      font-size: 12px;
      line-height: 16px;
      color: var(--ty-soft);
      white-space: nowrap;
      overflow: hidden;
      text-overflow: ellipsis;
    }
    .path a {
      color: inherit;
    }
    .actions {
      display: flex;
      align-items: center;
      gap: 8px;
      margin-left: auto;
      flex: none;
    }
    @media (width <= 640px) {
      :host {
        flex-wrap: wrap;
        height: auto;
        padding-block: 8px;
      }
      .actions {
        flex: 1 1 auto;
        flex-wrap: wrap;
        min-width: 0;
      }
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TitleLine {
  readonly heading = input.required<string>();
  readonly path = input<readonly { text: string; link?: string }[]>([]);
}
