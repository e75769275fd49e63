import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { RouterLink } from '@angular/router';
import { Acting } from '../../state/acting';
import { ANSWERS, type Question } from '../../state/questions';

/** What authors were asked about texts of a profile, and what they say. */
@Component({
  selector: 'ty-asked-list',
  imports: [RouterLink],
  template: `
    <header>
      <h2 id="asked-heading">Asked of authors</h2>
      <span class="ty-soft ty-num">{{ open() === 0 ? 'all answered' : open() + ' without an answer' }}</span>
    </header>
    <ul aria-labelledby="asked-heading">
      @for (row of rows(); track row.question.id) {
        <li>
          <p>
            <a [routerLink]="['/write', row.question.document]">{{ row.question.title }}</a>
            <span class="ty-soft">{{ row.person }}: </span>
            <span [class.bad]="row.question.answer === 'stays'" [class.ty-soft]="row.question.answer === ''">{{ row.answer }}</span>
          </p>
          @if (row.question.reply) {
            <p>
              <em>“{{ row.question.reply }}”</em>
            </p>
          }
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
      padding: 6px 16px 7px;
      border-top: 1px solid var(--ty-hair);
      font-size: 13px;
      line-height: 18px;
    }
    a {
      margin-right: 6px;
      color: var(--ty-ink);
    }
    .bad {
      color: var(--ty-rubric);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AskedList {
  readonly questions = input.required<readonly Question[]>();
  private readonly acting = inject(Acting);
  protected readonly open = computed(() => this.questions().filter(({ answer }) => answer === '').length);
  protected readonly rows = computed(() => {
    const people = new Map(this.acting.people().map(({ id, label }) => [id, label]));
    return this.questions().map((question) => ({
      question,
      person: people.get(question.answeredBy || question.person) ?? 'anybody',
      answer: ANSWERS[question.answer],
    }));
  });
}
