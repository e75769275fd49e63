import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { Router, RouterLink } from '@angular/router';
import { fieldPlaces } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { TitleLine } from '../../ui/title-line';

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
  imports: [MatButtonModule, MatButtonToggleModule, RouterLink, TitleLine],
  templateUrl: './site.html',
  styleUrl: './site.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Site {
  /** The id of the document shown, from the address. */
  readonly id = input<string>();
  /** The id of a kind of page, from the address; the document's own page where there is none. */
  readonly on = input<string>();
  private readonly store = inject(Store);
  private readonly site = inject(SiteStore);
  private readonly router = inject(Router);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly documents = this.store.selectSignal(libraryFeature.selectPages);
  private readonly kindList = this.store.selectSignal(libraryFeature.selectPageKinds);
  private readonly pageKinds = computed(() => new Map(this.kindList().map((kind) => [kind.id, kind])));
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  protected readonly siteOrigin = this.store.selectSignal(libraryFeature.selectSiteOrigin);
  protected readonly document = computed(() => this.documents().find(({ id }) => id === this.id()) ?? this.documents()[0] ?? null);
  protected readonly total = computed(() => this.documents().length);
  protected readonly profile = computed(() => this.profiles().find(({ id }) => id === this.document()?.profileId) ?? null);
  protected readonly kinds = computed(() =>
    [...new Set(this.documents().map(({ contentType }) => contentType))]
      .sort()
      .map((name) => ({ name, documents: this.documents().filter(({ contentType }) => contentType === name) })),
  );
  private readonly type = computed(() => this.site.saved()?.types.find(({ id }) => id === this.document()?.type) ?? null);
  private readonly where = computed(() => {
    const type = this.type();
    return type === null ? null : fieldPlaces(type, this.pageKinds());
  });
  /** The document's own page first, then every other that prints something of it. */
  protected readonly places = computed((): Place[] => {
    const [type, where] = [this.type(), this.where()];
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
    const [type, where] = [this.type(), this.where()];
    return type?.fields.filter(({ key }) => where?.get(key)?.length === 0).map(({ title }) => title) ?? [];
  });
  protected readonly url = computed(() => {
    const [document, place] = [this.document(), this.place()];
    // The frame is not begun before it is known which page it is to show.
    if (document === null || !['ready', 'failed'].includes(this.site.status())) return '';
    const on = place === null || place.id === this.type()?.pageKind ? '' : `?on=${encodeURIComponent(place.id)}`;
    return `${this.siteOrigin()}/documents/${encodeURIComponent(document.id)}${on}`;
  });
  /** Made of the site's own origin and ids, all from the server; the frame is sandboxed. */
  protected readonly address = computed(() => (this.url() === '' ? null : this.sanitizer.bypassSecurityTrustResourceUrl(this.url())));

  protected show(on: string): void {
    void this.router.navigate([], { queryParams: { on }, queryParamsHandling: 'merge' });
  }
}
