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
  styleUrl: './asked-list.scss',
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
