import { Injectable, computed, inject, signal } from '@angular/core';
import { cssMistakes, isSameJson, type PageKind, type Stylesheet } from '@typikon/core';
import { LikenessDesk } from '../../shared/page/likeness-desk';

/** A stylesheet or a page kind as it is edited; its revision is the one from which the editing began, null for what is new. */
export interface SheetDraft extends Stylesheet {
  revision: number | null;
  /** The page kinds that load it. */
  kinds: string[];
}
export interface KindDraft extends PageKind {
  revision: number | null;
}

/** What is edited and not stored yet. It stays when another one is opened. */
@Injectable({ providedIn: 'root' })
export class StyleDrafts {
  readonly desk = inject(LikenessDesk);
  private readonly sheets = signal<ReadonlyMap<string, SheetDraft>>(new Map());
  private readonly kinds = signal<ReadonlyMap<string, KindDraft>>(new Map());

  readonly sheetRows = computed(() => {
    const stored = this.desk.stylesheets().map(({ id }) => id);
    const ids = [...stored, ...[...this.sheets().keys()].filter((id) => !stored.includes(id))];
    return ids.map((id) => {
      const draft = this.sheet(id)!;
      const places = this.desk.pageKinds().filter(({ stylesheets }) => stylesheets.includes(id)).length;
      return {
        id,
        purpose: draft.purpose,
        media: draft.media,
        places,
        isChanged: this.isSheetChanged(id),
        mistakes: cssMistakes(draft.css).length,
      };
    });
  });
  readonly kindRows = computed(() => {
    const stored = this.desk.pageKinds().map(({ id }) => id);
    const ids = [...stored, ...[...this.kinds().keys()].filter((id) => !stored.includes(id))];
    return ids.map((id) => {
      const draft = this.kind(id)!;
      const documents = this.desk
        .texts()
        .filter(({ pageKindId }) => pageKindId === id)
        .reduce((sum, { count }) => sum + count, 0);
      return { id, name: draft.name, files: draft.stylesheets.length, documents, isChanged: this.isKindChanged(id) };
    });
  });

  sheet(id: string): SheetDraft | null {
    return this.sheets().get(id) ?? this.storedSheet(id);
  }

  kind(id: string): KindDraft | null {
    return this.kinds().get(id) ?? this.desk.pageKinds().find((kind) => kind.id === id) ?? null;
  }

  isSheetChanged(id: string): boolean {
    const draft = this.sheets().get(id);
    return draft !== undefined && !isSameJson({ ...draft, revision: 0 }, { ...(this.storedSheet(id) ?? {}), revision: 0 });
  }

  isKindChanged(id: string): boolean {
    const draft = this.kinds().get(id);
    const stored = this.desk.pageKinds().find((kind) => kind.id === id);
    return draft !== undefined && !isSameJson({ ...draft, revision: 0 }, { ...stored, revision: 0 });
  }

  editSheet(id: string, part: Partial<SheetDraft>): void {
    const draft = this.sheet(id);
    if (draft !== null) this.sheets.update((all) => new Map([...all, [id, { ...draft, ...part }]]));
  }

  editKind(id: string, part: Partial<KindDraft>): void {
    const draft = this.kind(id);
    if (draft !== null) this.kinds.update((all) => new Map([...all, [id, { ...draft, ...part }]]));
  }

  /** A kind of page without a template has none. */
  editTemplate(id: string, text: string): void {
    const draft = this.kind(id);
    if (draft === null) return;
    const { template: _template, ...rest } = draft;
    this.kinds.update((all) => new Map([...all, [id, text.trim() === '' ? rest : { ...rest, template: text }]]));
  }

  /** Begins a stylesheet that is not stored yet; one that is there already gets the text as a change. */
  begin(id: string, css: string, part: Partial<SheetDraft> = {}): void {
    if (this.sheet(id) !== null) this.editSheet(id, { css, ...part });
    else this.sheets.update((all) => new Map([...all, [id, { id, purpose: '', media: '', css, revision: null, kinds: [], ...part }]]));
  }

  /** Gives another name to a stylesheet that is not stored yet; false where the name is taken. */
  rename(id: string, name: string): boolean {
    const draft = this.sheets().get(id);
    if (draft?.revision !== null || this.sheet(name) !== null) return false;
    this.sheets.update((all) => new Map([...[...all].filter(([key]) => key !== id), [name, { ...draft, id: name }]]));
    return true;
  }

  beginKind(draft: KindDraft): void {
    this.kinds.update((all) => new Map([...all, [draft.id, draft]]));
  }

  forgetSheet(id: string): void {
    this.sheets.update((all) => new Map([...all].filter(([key]) => key !== id)));
  }

  forgetKind(id: string): void {
    this.kinds.update((all) => new Map([...all].filter(([key]) => key !== id)));
  }

  /** Stores a stylesheet, and the lists of the page kinds that load it from now on or no more. Errors with a sentence. */
  async storeSheet(id: string, note: string): Promise<void> {
    const draft = this.sheet(id);
    if (draft === null) return;
    const { kinds, ...sheet } = draft;
    const pageKinds = this.desk
      .pageKinds()
      .filter((kind) => kind.stylesheets.includes(id) !== kinds.includes(kind.id))
      .map((kind) => ({
        ...kind,
        stylesheets: kinds.includes(kind.id) ? [...kind.stylesheets, id] : kind.stylesheets.filter((one) => one !== id),
      }));
    await this.desk.change({ note, stylesheets: [sheet], pageKinds });
    this.forgetSheet(id);
  }

  async storeKind(id: string): Promise<void> {
    const draft = this.kind(id);
    if (draft === null) return;
    await this.desk.change({ note: '', pageKinds: [draft] });
    this.forgetKind(id);
  }

  async removeSheet(id: string): Promise<void> {
    const stored = this.desk.stylesheets().find((sheet) => sheet.id === id);
    if (stored !== undefined) await this.desk.change({ note: '', removed: { stylesheets: [{ id, revision: stored.revision }] } });
    this.forgetSheet(id);
  }

  async removeKind(id: string): Promise<void> {
    const stored = this.desk.pageKinds().find((kind) => kind.id === id);
    if (stored !== undefined) await this.desk.change({ note: '', removed: { pageKinds: [{ id, revision: stored.revision }] } });
    this.forgetKind(id);
  }

  private storedSheet(id: string): SheetDraft | null {
    const sheet = this.desk.stylesheets().find((one) => one.id === id);
    return sheet === undefined
      ? null
      : {
          ...sheet,
          kinds: this.desk
            .pageKinds()
            .filter(({ stylesheets }) => stylesheets.includes(id))
            .map((kind) => kind.id),
        };
  }
}
