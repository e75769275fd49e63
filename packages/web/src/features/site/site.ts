import { ChangeDetectionStrategy, Component, computed, effect, inject, input, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { DomSanitizer } from '@angular/platform-browser';
import { Router, RouterLink } from '@angular/router';
import { fieldPlaces } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { notSeen } from '../../shared/page/not-seen';
import { TitleLine } from '../../ui/title-line';
import { TypeIcon } from '../../ui/type-icon';
import { typedWords } from '../../ui/typed-words';
import { PagesStore } from './pages-store';

/** So many fields that show nowhere are named. */
const MOST_UNSEEN = 3;

/** A kind of page on which something of a document shows. */
interface Place {
  id: string;
  label: string;
  /** The titles of the fields that show there. */
  fields: string[];
}

/** The published site's stand-in: its documents, and each as readers see it, everywhere it shows. */
@Component({
  selector: 'ty-site',
  imports: [MatButtonModule, MatButtonToggleModule, MatFormFieldModule, MatInputModule, MatSelectModule, RouterLink, TitleLine, TypeIcon],
  providers: [PagesStore],
  templateUrl: './site.html',
  styleUrl: './site.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Site {
  /** The id of the document shown, from the address. */
  readonly id = input<string>();
  /** The id of a kind of page, from the address; the document's own page where there is none. */
  readonly on = input<string>();
  /** What the list is looked through for, from the address. */
  readonly words = input<string>();
  readonly type = input<string>();
  protected readonly pages = inject(PagesStore);
  protected readonly site = inject(SiteStore);
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly kindList = this.store.selectSignal(libraryFeature.selectPageKinds);
  private readonly pageKinds = computed(() => new Map(this.kindList().map((kind) => [kind.id, kind])));
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly siteOrigin = this.store.selectSignal(libraryFeature.selectSiteOrigin);
  protected readonly typed = typedWords(this.words, (words) => this.ask({ words: words || null }));

  protected readonly types = computed(() => new Map(this.site.held()?.types.map((type) => [type.id, type])));
  /** The document that is asked for, or else the first that is listed. */
  protected readonly shownId = computed(() => this.id() ?? this.pages.pages()[0]?.id ?? '');
  protected readonly document = computed(() => {
    const opened = this.pages.opened();
    return opened?.id === this.shownId() ? opened : null;
  });
  protected readonly profiles = computed(() => {
    const ids = new Set(this.document()?.fields.flatMap(({ profile }) => profile ?? []));
    return [...ids].map((id) => ({ id, name: this.names().get(id) ?? id }));
  });
  private readonly documentType = computed(() => this.types().get(this.document()?.type ?? '') ?? null);
  private readonly where = computed(() => {
    const type = this.documentType();
    return type === null ? null : fieldPlaces(type, this.pageKinds());
  });
  /** The document's own page first, then every other that prints something of it. */
  protected readonly places = computed((): Place[] => {
    const [type, where] = [this.documentType(), this.where()];
    if (type === null || where === null) return [];
    const places = new Map<string, Place>();
    for (const field of type.fields)
      for (const { pageKind, name, isOwnPage } of where.get(field.key) ?? []) {
        const label = isOwnPage ? `Its own page, ${name}` : name;
        const place = places.get(pageKind) ?? { id: pageKind, label, fields: [] };
        place.fields.push(field.title);
        places.set(pageKind, place);
      }
    const own = (id: string): number => Number(id !== type.pageKind);
    return [...places.values()].sort((one, other) => own(one.id) - own(other.id));
  });
  protected readonly place = computed(() => this.places().find(({ id }) => id === this.on()) ?? this.places()[0] ?? null);
  /** Fields that show nowhere. */
  protected readonly unseen = computed(() => {
    const [type, where] = [this.documentType(), this.where()];
    return type?.fields.filter(({ key }) => where?.get(key)?.length === 0).map(({ title }) => title) ?? [];
  });
  protected readonly unseenWords = computed(() => {
    const all = this.unseen();
    const more = all.length - MOST_UNSEEN;
    return more > 0 ? `${all.slice(0, MOST_UNSEEN).join(', ')} and ${more} more` : all.join(', ');
  });
  protected readonly url = computed(() => {
    const [document, place] = [this.document(), this.place()];
    // The frame is not begun before it is known which page it is to show.
    if (document?.publicRevision == null || this.siteOrigin() === '' || !['ready', 'failed'].includes(this.site.status())) return '';
    const on = place === null || place.id === this.documentType()?.pageKind ? '' : `?on=${encodeURIComponent(place.id)}`;
    return `${this.siteOrigin()}/documents/${encodeURIComponent(document.id)}${on}`;
  });
  /** What is written and not public, in a sentence. */
  protected readonly unseenVersion = computed(() => {
    const document = this.document();
    if (document === null || document.publicRevision === document.revision) return '';
    return document.publicRevision === null
      ? 'Readers do not see this page yet: nobody has approved it.'
      : `This is version ${document.publicRevision}. Version ${document.revision} is written, and not public.`;
  });
  protected readonly notSeen = notSeen;
  /** Made of the site's own origin and ids, all from the server; the frame is sandboxed. */
  protected readonly address = computed(() => (this.url() === '' ? null : this.sanitizer.bypassSecurityTrustResourceUrl(this.url())));

  constructor() {
    effect(() => {
      const [words, type] = [this.words() ?? '', this.type() ?? ''];
      untracked(() => void this.pages.find(words, type));
    });
    effect(() => {
      const id = this.shownId();
      if (id !== '') untracked(() => void this.pages.open(id));
    });
  }

  protected ask(queryParams: { words?: string | null; type?: string | null; on?: string | null }): void {
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: !('on' in queryParams) });
  }
}
