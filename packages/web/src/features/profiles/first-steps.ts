import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';

/** What a site needs before somebody can write: the four things to begin with, and which of them are there. */
@Component({
  selector: 'ty-first-steps',
  imports: [MatButtonModule],
  template: `
    <h2>Four things to begin with</h2>
    <ol>
      @for (step of steps(); track step.title) {
        <li [class.done]="step.isDone">
          <span class="number ty-num" aria-hidden="true">{{ step.isDone ? '✓' : $index + 1 }}</span>
          <div>
            <h3>
              {{ step.title }}
              @if (step.isDone) {
                <span class="ty-unseen"> is there</span>
              }
            </h3>
            <p class="ty-soft">{{ step.text }}</p>
          </div>
          @if (step.isDone && step.link === '/profiles') {
            <span></span>
          } @else if (step === next()) {
            <button mat-flat-button type="button" (click)="go(step.link)">{{ step.action }}</button>
          } @else {
            <button mat-stroked-button type="button" (click)="go(step.link)">{{ step.isDone ? 'Look at it' : step.action }}</button>
          }
        </li>
      }
    </ol>
  `,
  styles: `
    :host {
      display: block;
      max-width: 760px;
      padding: 22px 20px 26px;
    }
    h2 {
      margin-bottom: 10px;
      font: 600 17px/24px var(--ty-serif);
    }
    ol {
      margin: 0;
      padding: 0;
      border-top: 1px solid var(--ty-line);
      list-style: none;
    }
    li {
      display: grid;
      grid-template-columns: 28px minmax(0, 1fr) auto;
      align-items: center;
      gap: 12px;
      padding: 12px 0;
      border-bottom: 1px solid var(--ty-hair);
    }
    .number {
      color: var(--ty-rubric);
      font: 600 19px/24px var(--ty-serif);
      text-align: center;
    }
    .done .number {
      color: var(--ty-verdigris);
    }
    h3 {
      font-size: 14px;
      font-weight: 600;
      line-height: 20px;
    }
    p {
      font-size: 13px;
      line-height: 19px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FirstSteps {
  /** A profile is wanted. */
  readonly wanted = output();
  private readonly router = inject(Router);
  private readonly site = inject(SiteStore);
  private readonly store = inject(Store);
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  private readonly kinds = this.store.selectSignal(libraryFeature.selectPageKinds);
  protected readonly steps = computed(() => [
    {
      title: 'A profile',
      text: 'What authors may write, what becomes of what they paste, and which buttons they have. Begin from a set of rules or from a sample.',
      action: 'Make a profile',
      isDone: this.profiles().length > 0,
      link: '/profiles',
    },
    {
      title: 'How the site looks',
      text: 'Its stylesheets and the kinds of page that it has: with them you see texts as readers do, and styles that no stylesheet has are found.',
      action: 'Take in the stylesheets',
      isDone: this.kinds().length > 0,
      link: '/styles',
    },
    {
      title: 'What there is to write',
      text: 'Content types with their fields, and the help that stands beside each.',
      action: 'Make a content type',
      isDone: this.site.types().length > 0,
      link: '/types',
    },
    {
      title: 'Who writes it',
      text: 'Roles and people, and a statement that says who writes where with which profile.',
      action: 'Say who writes',
      isDone: this.site.statements().length > 0,
      link: this.site.roles().length > 0 ? '/writing' : '/writing/people',
    },
  ]);
  protected readonly next = computed(() => this.steps().find(({ isDone }) => !isDone));

  protected go(link: string): void {
    if (link === '/profiles') this.wanted.emit();
    else void this.router.navigateByUrl(link);
  }
}
