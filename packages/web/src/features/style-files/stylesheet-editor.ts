import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, output, signal } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { idFrom, classesIn, cssMistakes } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import { Api } from '../../state/api';
import type { StylesheetVersion } from '../../state/types';
import { CssField } from '../../shared/markup/css-field';
import { download } from '../../ui/download';
import { StyleDrafts } from './style-drafts';

/** One stylesheet of the site: its text with mistakes at their line, where it is loaded, and its versions. */
@Component({
  selector: 'ty-stylesheet-editor',
  imports: [MatCheckboxModule, MatInputModule, MatFormFieldModule, MatButtonModule, CssField, DatePipe, RouterLink],
  templateUrl: './stylesheet-editor.html',
  styleUrl: './editors.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StylesheetEditor {
  readonly id = input.required<string>();
  /** Asks whether it may go; the page around has the dialog. */
  readonly removeAsked = output<void>();
  private readonly drafts = inject(StyleDrafts);
  private readonly api = inject(Api);
  private readonly router = inject(Router);
  protected readonly draft = computed(() => this.drafts.sheet(this.id()));
  protected readonly isChanged = computed(() => this.drafts.isSheetChanged(this.id()) || this.draft()?.revision === null);
  protected readonly mistakes = computed(() => cssMistakes(this.draft()?.css ?? ''));
  protected readonly facts = computed(() => {
    const css = this.draft()?.css ?? '';
    return `${css.split('\n').length} lines, ${classesIn(css).size} classes`;
  });
  protected readonly kinds = computed(() => {
    const draft = this.draft();
    return this.drafts.desk.pageKinds().map((kind) => {
      const at = kind.stylesheets.indexOf(this.id());
      return {
        id: kind.id,
        name: kind.name,
        isOn: draft?.kinds.includes(kind.id) === true,
        place: at === -1 ? 'would come last' : `${at + 1} of ${kind.stylesheets.length}`,
      };
    });
  });
  protected readonly note = signal('');
  protected readonly failure = signal('');
  protected readonly notice = signal('');
  protected readonly isBusy = signal(false);
  protected readonly versions = signal<readonly StylesheetVersion[]>([]);

  constructor() {
    effect(() => {
      const [id, draft] = [this.id(), this.draft()];
      const revision = draft?.revision ?? null;
      this.failure.set('');
      if (revision === null) this.versions.set([]);
      else
        void firstValueFrom(this.api.stylesheetVersions(id)).then(
          (all) => this.versions.set(all),
          () => undefined,
        );
    });
  }

  protected set(part: { css?: string; purpose?: string; media?: string }): void {
    this.notice.set('');
    this.drafts.editSheet(this.id(), part);
  }

  /** A stylesheet that is not stored yet can still be called otherwise. */
  protected rename(typed: string): void {
    const name = idFrom(typed.replace(/\.css$/i, ''));
    if (name === this.id()) return;
    if (name === '' || !this.drafts.rename(this.id(), name))
      this.failure.set(name === '' ? 'A file needs a name with letters in it.' : `There is already a stylesheet ${name}.css.`);
    else void this.router.navigate(['/styles/sheet', name]);
  }

  protected switchKind(kind: string, isOn: boolean): void {
    const on = new Set(this.draft()?.kinds);
    if (isOn) on.add(kind);
    else on.delete(kind);
    this.drafts.editSheet(this.id(), { kinds: this.kinds().flatMap(({ id }) => (on.has(id) ? [id] : [])) });
  }

  protected async save(): Promise<void> {
    await this.doing('Not saved.', async () => {
      await this.drafts.storeSheet(this.id(), this.note().trim());
      this.note.set('');
      this.notice.set('Saved. Readers get it once it is released.');
    });
  }

  protected abandon(): void {
    const isNew = this.draft()?.revision === null;
    this.drafts.forgetSheet(this.id());
    if (isNew) void this.router.navigate(['/styles']);
  }

  /** Puts the text of an older version into the editor; it is stored like any other change. */
  protected async bringBack({ revision }: StylesheetVersion): Promise<void> {
    await this.doing('The version cannot be read.', async () => {
      const css = await firstValueFrom(this.api.stylesheetVersion(this.id(), revision));
      this.drafts.editSheet(this.id(), { css });
      this.note.set(`Version ${revision} again`);
      this.notice.set(`The text of version ${revision} is in the editor. Save it to bring it back.`);
    });
  }

  protected download(): void {
    download(`${this.id()}.css`, 'text/css', this.draft()?.css ?? '');
  }

  private async doing(failed: string, act: () => Promise<void>): Promise<void> {
    if (this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    this.notice.set('');
    try {
      await act();
    } catch (error) {
      this.failure.set(`${failed} ${(error as Error).message}`);
    } finally {
      this.isBusy.set(false);
    }
  }
}
