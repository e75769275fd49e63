import { idFrom } from '@typikon/core';
import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { Router, RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { selectArePagesAhead } from '../../state/pages';
import { Confirm, type Question } from '../../ui/confirm';
import { TitleLine } from '../../ui/title-line';
import { PageKindEditor } from './page-kind-editor';
import { StyleDrafts } from './style-drafts';
import { StylesheetEditor } from './stylesheet-editor';

/** The stylesheets of the site and its kinds of page. */
@Component({
  selector: 'ty-style-files-page',
  imports: [MatButtonModule, PageKindEditor, RouterLink, StylesheetEditor, TitleLine],
  templateUrl: './style-files-page.html',
  styleUrl: './style-files-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StyleFilesPage {
  /** The stylesheet shown, from the address. */
  readonly sheet = input<string>();
  /** The page kind shown, from the address. */
  readonly kind = input<string>();
  private readonly drafts = inject(StyleDrafts);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  /** Whether what is stored says something else than what readers see. */
  protected readonly isAhead = inject(Store).selectSignal(selectArePagesAhead);
  protected readonly sheets = this.drafts.sheetRows;
  protected readonly kinds = this.drafts.kindRows;
  protected readonly sheetId = computed(() => this.sheet() ?? (this.kind() === undefined ? this.sheets()[0]?.id : undefined));
  protected readonly notice = signal('');
  protected readonly failure = signal('');

  /** Takes files in, in the order of their names; each becomes a stylesheet that is stored once somebody says so. */
  protected async take(list: FileList | null): Promise<void> {
    const files = [...(list ?? [])].sort((a, b) => a.name.localeCompare(b.name));
    this.failure.set('');
    let first = '';
    for (const file of files) {
      const id = idFrom(file.name.replace(/\.css$/i, ''));
      if (id === '' || !/\.css$/i.test(file.name)) {
        this.failure.set(`“${file.name}” is no CSS file with a name of letters. It was not taken in.`);
        continue;
      }
      this.drafts.begin(id, await file.text());
      first ||= id;
    }
    if (first === '') return;
    this.notice.set(
      files.length === 1
        ? 'The file is in the editor. Save it once it is as you want it.'
        : `${files.length} files are in the list, none of them stored yet.`,
    );
    void this.router.navigate(['/styles/sheet', first]);
  }

  protected newSheet(): void {
    const id = this.freeId('new', (one) => this.drafts.sheet(one) !== null);
    this.drafts.begin(id, '/* What this stylesheet is for. */\n');
    void this.router.navigate(['/styles/sheet', id]);
  }

  protected newKind(): void {
    const id = this.freeId('kind', (one) => this.drafts.kind(one) !== null);
    const like = this.drafts.desk.pageKinds()[0];
    this.drafts.beginKind({
      id,
      name: 'A new kind of page',
      wrapper: like?.wrapper ?? [{ element: 'main' }],
      stylesheets: like?.stylesheets ?? [],
      contentWidthPx: like?.contentWidthPx ?? 720,
      widthsPx: like?.widthsPx ?? [1280, 768, 375],
      revision: null,
    });
    void this.router.navigate(['/styles/kind', id]);
  }

  protected remove(what: 'sheet' | 'kind', id: string): void {
    const data: Question = {
      title: what === 'sheet' ? `Remove ${id}.css?` : `Remove the page kind “${id}”?`,
      text:
        what === 'sheet'
          ? 'Its versions stay. It must not be loaded by any page kind any more.'
          : 'No document may be a page of this kind any more.',
      answers: [
        { value: 'remove', label: 'Remove it' },
        { value: 'keep', label: 'Keep it', isMain: true },
      ],
    };
    this.dialog
      .open<Confirm, Question, string>(Confirm, { data, maxWidth: '480px' })
      .afterClosed()
      .subscribe((answer) => {
        if (answer !== 'remove') return;
        this.failure.set('');
        (what === 'sheet' ? this.drafts.removeSheet(id) : this.drafts.removeKind(id)).then(
          () => void this.router.navigate(['/styles']),
          (error: Error) => this.failure.set(`Not removed. ${error.message}`),
        );
      });
  }

  private freeId(base: string, isTaken: (id: string) => boolean): string {
    let id = base;
    for (let number = 2; isTaken(id); number++) id = `${base}-${number}`;
    return id;
  }
}
