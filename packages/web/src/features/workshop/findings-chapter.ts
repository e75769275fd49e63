import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { CHECKS, fromPointer, type Finding } from '@typikon/core';
import { Store } from '@ngrx/store';
import { LibraryActions, libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';
import { goTo } from './go-to';

const WORDS: Readonly<Record<Finding['severity'], { label: string; gloss: string; sign: string }>> = {
  error: { label: 'Wrong', gloss: 'authors or readers will meet it', sign: '✕' },
  warning: { label: 'Needs a look', gloss: 'it may be meant, and often is not', sign: '≈' },
  note: { label: 'Notes', gloss: 'nothing breaks', sign: '·' },
};

/** Everything that the checks find in the draft: what it means, which rule it is about, and a fix where one is safe. */
@Component({
  selector: 'ty-findings-chapter',
  imports: [MatButtonModule],
  template: `
    <p class="bar ty-soft" role="status" [attr.aria-busy]="!isTested()">
      {{ !isTested() ? 'Testing …' : total() === 0 ? '' : total() === 1 ? 'One finding.' : total() + ' findings.' }} {{ checks }} checks run
      on every change of the draft.
    </p>
    @if (countFailure(); as failure) {
      <p class="bar" role="alert">
        The stored documents could not be counted, so what they hold is not tested. {{ failure }}
        <button mat-button type="button" (click)="count()">Try again</button>
      </p>
    }
    <div class="scroll">
      @for (group of groups(); track group.severity) {
        <section [attr.aria-labelledby]="'findings-' + group.severity">
          <h2 [id]="'findings-' + group.severity">
            {{ group.label }} <span class="ty-soft">{{ group.gloss }}</span>
          </h2>
          <ul>
            @for (finding of group.findings; track finding.pointer + finding.sentence) {
              <li [attr.data-check]="finding.check">
                <span class="sign" [class]="group.severity" aria-hidden="true">{{ group.sign }}</span>
                <p>
                  {{ finding.sentence }}
                  <button mat-button type="button" class="ty-cite ty-plain" (click)="open(finding)">{{ finding.citation }}</button>
                </p>
                @if (finding.fix; as fix) {
                  <button
                    mat-stroked-button
                    type="button"
                    [disabled]="!isTested()"
                    disabledInteractive
                    (click)="isTested() && mend(finding)"
                  >
                    {{ fix.label }}
                  </button>
                }
              </li>
            }
          </ul>
        </section>
      } @empty {
        <p class="none ty-soft" [hidden]="!isTested()">Nothing is wrong with this profile, as far as the checks can tell.</p>
      }
    </div>
  `,
  styleUrl: './findings-chapter.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FindingsChapter {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly findings = this.store.selectSignal(workshopFeature.selectFindings);
  protected readonly isTested = this.store.selectSignal(workshopFeature.selectIsTested);
  protected readonly countFailure = this.store.selectSignal(libraryFeature.selectCensusFailure);
  protected readonly checks = CHECKS.length;
  protected readonly total = computed(() => this.findings().length);
  protected readonly groups = computed(() =>
    (['error', 'warning', 'note'] as const)
      .map((severity) => ({
        severity,
        ...WORDS[severity],
        findings: this.findings()
          .filter((finding) => finding.severity === severity)
          .map((finding) => ({ ...finding, citation: citationOf(finding.pointer) })),
      }))
      .filter(({ findings }) => findings.length > 0),
  );

  protected count(): void {
    this.store.dispatch(LibraryActions.censusRequested());
  }

  /** Opens the rule that a finding is about. */
  protected open({ pointer }: Finding): void {
    goTo(this.store, pointer);
  }

  protected mend({ fix }: Finding): void {
    if (fix !== undefined) this.edit.patch(fix.patch, fix.label);
  }
}

/** A pointer as a citation: "§2 Markup, class on p". */
export function citationOf(pointer: string): string {
  const [section, kind, first, part, name, ...rest] = fromPointer(pointer);
  if (section === 'toolbar') return `§1 Toolbar${first === undefined ? '' : `, ${first}`}`;
  if (section === 'surface') return `§5 Surface${kind === undefined ? '' : `, ${kind}`}`;
  if (section === 'styles') return '§4 Styles';
  if (section !== 'markup') return section === undefined ? 'the profile' : section;
  if (kind !== 'elements') return `§2 Markup, ${[kind, first, part].filter((key) => key !== undefined).join(' ')}`;
  const property = rest[rest.length - 1];
  if (name === undefined) return `§2 Markup, ${first ?? 'elements'}`;
  return `§2 Markup, ${property !== undefined && rest.includes('properties') ? property : name} on ${first ?? ''}`;
}
