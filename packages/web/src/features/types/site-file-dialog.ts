import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { changesOfSite, readSite, type Site, type SiteChange } from '@typikon/core';
import { SiteStore } from '../../state/site';
import { download } from '../../ui/download';

/** What is told of a kind of change. */
const KINDS: Readonly<Record<SiteChange['what'], { mark: string; word: string }>> = {
  gone: { mark: '−', word: 'goes' },
  new: { mark: '+', word: 'new' },
  changed: { mark: '≠', word: 'otherwise' },
  moved: { mark: '↕', word: 'in another order' },
};
const ORDER: readonly SiteChange['what'][] = ['gone', 'new', 'changed', 'moved'];

/** A larger file is not a site document that somebody made. */
const MOST_BYTES = 20_000_000;
/** So many mistakes of a file are told. */
const MOST_MISTAKES = 8;

/** The site document as a file: one out, one in with what it would change before it does. Closes with nothing. */
@Component({
  selector: 'ty-site-file-dialog',
  imports: [MatButtonModule, MatButtonToggleModule, MatDialogModule],
  templateUrl: './site-file-dialog.html',
  styleUrl: './site-file-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SiteFileDialog {
  protected readonly site = inject(SiteStore);
  private readonly opened = inject<MatDialogRef<SiteFileDialog>>(MatDialogRef);
  protected readonly incoming = signal<{ name: string; site: Site } | null>(null);
  protected readonly mistakes = signal<readonly string[]>([]);
  protected readonly showing = signal<SiteChange['what'] | 'all'>('all');
  private readonly changes = computed((): readonly SiteChange[] => {
    const [draft, incoming] = [this.site.draft(), this.incoming()];
    return draft === null || incoming === null ? [] : changesOfSite(draft, incoming.site);
  });
  protected readonly count = computed(() => this.changes().length);
  protected readonly kinds = computed(() =>
    ORDER.flatMap((what) => {
      const count = this.changes().filter((change) => change.what === what).length;
      return count === 0 ? [] : [{ what, count, ...KINDS[what] }];
    }),
  );
  protected readonly shown = computed(() => {
    const showing = this.showing();
    return this.changes()
      .filter(({ what }) => showing === 'all' || what === showing)
      .map((change) => ({ ...change, ...KINDS[change.what] }));
  });

  protected save(): void {
    download('site.json', 'application/json', `${JSON.stringify(this.site.draft(), null, 2)}\n`);
  }

  protected async read(field: HTMLInputElement): Promise<void> {
    const file = field.files?.[0];
    if (file === undefined) return;
    this.incoming.set(null);
    this.showing.set('all');
    const mistakes = await this.take(file);
    this.mistakes.set(mistakes);
    // The same file, once it is mended, can be opened again.
    field.value = '';
  }

  /** @returns what is wrong with the file */
  private async take(file: File): Promise<string[]> {
    if (file.size > MOST_BYTES)
      return [`${file.name} has ${Math.ceil(file.size / 1_000_000)} MB; a site document has at most ${MOST_BYTES / 1_000_000}.`];
    let document: unknown;
    try {
      document = JSON.parse((await file.text()).replace(/^\ufeff/, ''));
    } catch (error) {
      return [`${file.name} is not JSON: ${(error as Error).message}.`];
    }
    const read = readSite(document);
    if (read.ok) {
      this.incoming.set({ name: file.name, site: read.site });
      return [];
    }
    const told = read.problems.slice(0, MOST_MISTAKES).map(({ pointer, message }) => `${file.name}, ${pointer || 'the whole'} ${message}.`);
    const more = read.problems.length - told.length;
    return more > 0 ? [...told, `${more} more mistakes.`] : told;
  }

  protected takeOver(): void {
    const incoming = this.incoming();
    if (incoming === null) return;
    this.site.change('', () => incoming.site);
    this.opened.close();
  }
}
