import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { actSentence, resolveProfile, stylesInCss, type FoundStyle, type StyleDefinition, readStyle } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';

/** A style that was chosen. */
export interface Taken {
  id: string;
  style: StyleDefinition;
}

/** Chooses styles from a stylesheet of the site, a CSS file, or another profile. */
@Component({
  selector: 'ty-styles-from-css',
  imports: [MatSelectModule, MatFormFieldModule, MatCheckboxModule, MatButtonModule, MatDialogModule],
  template: `
    <h2 mat-dialog-title>Choose styles</h2>
    <mat-dialog-content>
      <div class="sources">
        <label>
          <span>From</span>
          <mat-form-field appearance="outline" subscriptSizing="dynamic"
            ><mat-select id="styles-source" aria-label="From" [value]="source()" (valueChange)="choose($event)">
              <mat-optgroup label="A stylesheet of the site">
                @for (sheet of sheets(); track sheet.id) {
                  <mat-option [value]="'sheet:' + sheet.id">{{ sheet.id }}.css</mat-option>
                }
              </mat-optgroup>
              <mat-optgroup label="The style set of another profile">
                @for (profile of profiles(); track profile.id) {
                  <mat-option [value]="'profile:' + profile.id">{{ profile.name }}</mat-option>
                }
              </mat-optgroup>
              @if (file(); as file) {
                <mat-optgroup label="A file">
                  <mat-option value="file">{{ file.name }}</mat-option>
                </mat-optgroup>
              }
            </mat-select></mat-form-field
          >
        </label>
        <input #files type="file" accept=".css,text/css" hidden (change)="read(files.files); files.value = ''" />
        <button mat-stroked-button type="button" (click)="files.click()">A CSS file…</button>
      </div>
      <p class="ty-soft">{{ told() }}</p>
      <ul>
        @for (row of rows(); track row.style.selector) {
          <li>
            <mat-checkbox [checked]="chosen().has(row.style.selector)" [disabled]="row.isThere" (change)="toggle(row.style.selector)"
              ><b>{{ row.style.label }}</b
              >&ngsp;<code>{{ row.style.selector }}</code>
              <small class="ty-soft">{{ row.isThere ? 'The profile has it already.' : row.sentence }}</small></mat-checkbox
            >
          </li>
        } @empty {
          <li class="ty-soft">Nothing in it can be applied to content.</li>
        }
      </ul>
    </mat-dialog-content>
    <mat-dialog-actions>
      <button mat-stroked-button type="button" mat-dialog-close>Cancel</button>
      <button mat-flat-button type="button" class="go" [disabled]="chosen().size === 0" (click)="take()">
        {{ chosen().size === 0 ? 'Take them' : chosen().size === 1 ? 'Take one style' : 'Take ' + chosen().size + ' styles' }}
      </button>
    </mat-dialog-actions>
  `,
  styles: `
    .sources {
      display: flex;
      align-items: end;
      gap: 10px;
    }
    .sources label {
      display: flex;
      flex-direction: column;
      gap: 2px;
      font-size: 12px;
    }
    p {
      padding: 8px 0 4px;
      font-size: 13px;
    }
    ul {
      margin: 0;
      padding: 0;
      list-style: none;
      font-size: 13px;
    }
    li {
      padding: 5px 0;
      border-top: 1px solid var(--ty-hair);
      color: var(--ty-ink);
    }
    b {
      margin-right: 8px;
      font-weight: 600;
    }
    small {
      display: block;
      padding-left: 22px;
      font-size: 12px;
    }
    mat-dialog-actions {
      gap: 8px;
      padding: 8px 24px 18px;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StylesFromCss {
  private readonly store = inject(Store);
  private readonly dialog = inject<MatDialogRef<StylesFromCss, readonly Taken[]>>(MatDialogRef);
  /** The selectors that the profile has already. */
  private readonly there = inject<ReadonlySet<string>>(MAT_DIALOG_DATA);
  protected readonly sheets = this.store.selectSignal(libraryFeature.selectStylesheets);
  private readonly kinds = this.store.selectSignal(libraryFeature.selectPageKinds);
  private readonly all = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly profiles = computed(() =>
    this.all()
      .filter(({ document }) => Object.keys((document['styles'] ?? {}) as object).length > 0)
      .map((profile) => ({ id: profile.id, name: nameOf(profile) })),
  );
  protected readonly file = signal<{ name: string; css: string } | null>(null);
  protected readonly source = linkedSignal(
    () => `sheet:${this.sheets().find(({ id }) => id === 'site')?.id ?? this.sheets()[0]?.id ?? ''}`,
  );
  private readonly found = computed((): FoundStyle[] => {
    const source = this.source();
    const frame = new Set(this.kinds().flatMap(({ wrapper }) => wrapper.flatMap(({ className = '' }) => className.split(/\s+/))));
    if (source.startsWith('profile:')) return this.stylesOf(source.slice('profile:'.length));
    const css = source === 'file' ? (this.file()?.css ?? '') : (this.sheets().find(({ id }) => `sheet:${id}` === source)?.css ?? '');
    return stylesInCss(css, frame);
  });
  protected readonly rows = computed(() =>
    this.found().map((found) => ({ ...found, sentence: actSentence(found.act), isThere: this.there.has(found.style.selector) })),
  );
  protected readonly told = computed(() => {
    const named = this.found().filter(({ isNamed }) => isNamed).length;
    return this.source().startsWith('profile:')
      ? 'They are copied; a later change there does not reach this profile.'
      : named > 0
        ? `${named} are named by comments in it; the others are classes that make sense on content.`
        : 'Classes in it that make sense on content. Their labels are made from their names.';
  });
  protected readonly chosen = linkedSignal<FoundStyle[], ReadonlySet<string>>({
    source: this.found,
    // What comments name is a style for certain.
    computation: (found) =>
      new Set(found.filter(({ isNamed, style }) => isNamed && !this.there.has(style.selector)).map(({ style }) => style.selector)),
  });

  protected choose(source: string): void {
    this.source.set(source);
  }

  protected async read(list: FileList | null): Promise<void> {
    const file = list?.[0];
    if (file === undefined) return;
    this.file.set({ name: file.name, css: await file.text() });
    this.source.set('file');
  }

  protected toggle(selector: string): void {
    this.chosen.update((chosen) => {
      const next = new Set(chosen);
      if (!next.delete(selector)) next.add(selector);
      return next;
    });
  }

  protected take(): void {
    this.dialog.close(this.found().filter(({ style }) => this.chosen().has(style.selector)));
  }

  private stylesOf(id: string): FoundStyle[] {
    const documents = new Map(this.all().map((profile) => [profile.id, profile.document]));
    const resolution = resolveProfile(id, (other) => documents.get(other));
    if (!resolution.ok) return [];
    return Object.entries(resolution.resolved.profile.styles).flatMap(([key, style]) => {
      const read = readStyle(style.selector);
      return read.ok ? [{ id: key, style, act: read.act, isNamed: false, line: 0 }] : [];
    });
  }
}
