import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { Api, type ApiFailure } from '../../state/api';

/** The site's own dictionary: words that are right here though no dictionary has them. It holds for every profile. */
@Component({
  selector: 'ty-site-words',
  imports: [MatInputModule, MatFormFieldModule, MatButtonModule],
  template: `
    <section aria-labelledby="site-words">
      <h3 id="site-words">Words of this site <span class="ty-soft">for every profile; authors add to them from the editor</span></h3>
      <ul>
        @for (word of words(); track word) {
          <li>
            {{ word
            }}<button mat-button type="button" class="ty-quiet" [attr.aria-label]="'Take out ' + word" (click)="remove(word)">×</button>
          </li>
        } @empty {
          <li class="ty-soft">none yet</li>
        }
      </ul>
      <form (submit)="$event.preventDefault(); add(field)">
        <label class="ty-unseen" for="site-word">A word to add</label>
        <mat-form-field appearance="outline" subscriptSizing="dynamic">
          <input matInput id="site-word" autocomplete="off" placeholder="A word" #field
        /></mat-form-field>
        <button mat-stroked-button type="submit">Add</button>
        <span class="failure" role="alert">{{ failure() }}</span>
      </form>
    </section>
  `,
  styles: `
    section {
      padding: 8px 20px 12px;
    }
    h3 {
      font: 500 13px/18px var(--ty-sans);
    }
    h3 .ty-soft {
      font-weight: 400;
      font-size: 12px;
    }
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 12px;
      margin: 6px 0 8px;
      padding: 0;
      list-style: none;
    }
    li {
      display: flex;
      align-items: center;
    }
    form {
      display: flex;
      align-items: center;
      gap: 8px;
    }
    mat-form-field {
      width: 160px;
    }
    .failure {
      color: var(--ty-rubric);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SiteWords {
  private readonly api = inject(Api);
  protected readonly words = signal<readonly string[]>([]);
  protected readonly failure = signal('');

  constructor() {
    this.api
      .siteWords()
      .subscribe({ next: (words) => this.words.set(words), error: ({ message }: ApiFailure) => this.failure.set(message) });
  }

  protected add(field: HTMLInputElement): void {
    const word = field.value.trim();
    if (!/^[\p{L}\p{M}'’-]{2,60}$/u.test(word)) {
      this.failure.set('One word of letters, please.');
      field.focus();
      return;
    }
    this.api.addSiteWord(word).subscribe({
      next: (words) => {
        this.words.set(words);
        this.failure.set('');
        field.value = '';
      },
      error: ({ message }: ApiFailure) => this.failure.set(message),
    });
  }

  protected remove(word: string): void {
    this.api
      .removeSiteWord(word)
      .subscribe({ next: (words) => this.words.set(words), error: ({ message }: ApiFailure) => this.failure.set(message) });
  }
}
