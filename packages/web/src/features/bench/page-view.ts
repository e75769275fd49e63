import { ChangeDetectionStrategy, Component, type ElementRef, computed, effect, inject, viewChild } from '@angular/core';
import { Store } from '@ngrx/store';
import { benchFeature } from '../../state/bench';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';

const PAUSE_MS = 120;

/**
 * The result as readers would see it: posted to the published site's stand-in, another origin, which cleans it again with
 * the same draft, puts it into the page kind, and answers with the site's own headers.
 */
@Component({
  selector: 'ty-page-view',
  template: `
    <form #form method="post" target="ty-proof-page" [action]="action()" hidden>
      <input type="hidden" name="html" />
      <input type="hidden" name="profile" />
      <input type="hidden" name="profiles" />
      <input type="hidden" name="pageKind" />
      <input type="hidden" name="title" />
      <input type="hidden" name="role" />
    </form>
    <iframe name="ty-proof-page" title="The published page" sandbox="" referrerpolicy="no-referrer"></iframe>
  `,
  styles: `
    :host {
      display: flex;
      flex: 1;
      min-height: 0;
    }
    iframe {
      flex: 1;
      width: 100%;
      border: 0;
      background: #fff;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageView {
  private readonly store = inject(Store);
  private readonly form = viewChild.required<ElementRef<HTMLFormElement>>('form');
  private readonly siteOrigin = this.store.selectSignal(libraryFeature.selectSiteOrigin);
  private readonly proof = this.store.selectSignal(benchFeature.selectProof);
  private readonly specimen = this.store.selectSignal(benchFeature.selectSpecimen);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly role = this.store.selectSignal(workshopFeature.selectRole);
  protected readonly action = computed(() => `${this.siteOrigin()}/proof`);

  constructor() {
    effect((onCleanup) => {
      const proof = this.proof();
      const resolved = this.resolved();
      const title = this.specimen()?.name ?? '';
      if (proof === null || resolved === null) return;
      const timer = setTimeout(() => {
        this.post({
          html: proof.html,
          profile: resolved.id,
          profiles: JSON.stringify(Object.fromEntries(resolved.chain.map(({ id, document }) => [id, document]))),
          pageKind: resolved.profile.surface.pageKind,
          title,
          role: this.role(),
        });
      }, PAUSE_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }

  private post(fields: Record<string, string>): void {
    const form = this.form().nativeElement;
    form.action = this.action();
    for (const [name, value] of Object.entries(fields)) (form.elements.namedItem(name) as HTMLInputElement).value = value;
    form.submit();
  }
}
