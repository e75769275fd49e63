import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { DomSanitizer } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { TitleLine } from '../../ui/title-line';

/** The published site's stand-in: its documents, and each as readers see it. */
@Component({
  selector: 'ty-site',
  imports: [RouterLink, TitleLine],
  templateUrl: './site.html',
  styleUrl: './site.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Site {
  /** The id of the document shown, from the address. */
  readonly id = input<string>();
  private readonly store = inject(Store);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly documents = this.store.selectSignal(libraryFeature.selectPages);
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
  /** Made of the site's own origin and a document's id, both from the server; the frame is sandboxed. */
  protected readonly address = computed(() => {
    const document = this.document();
    return document === null
      ? null
      : this.sanitizer.bypassSecurityTrustResourceUrl(`${this.siteOrigin()}/documents/${encodeURIComponent(document.id)}`);
  });
}
