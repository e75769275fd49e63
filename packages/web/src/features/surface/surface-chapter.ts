import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { surfaceSchema } from '@typikon/core';
import { Store } from '@ngrx/store';
import { ProfileSettings } from '../../shared/form/profile-settings';
import { SettingsForm } from '../../shared/form/settings-form';
import { SettingsSource, SPECIAL_EDITORS } from '../../shared/form/settings-source';
import { libraryFeature } from '../../state/library';
import { EditingCss } from './editing-css';
import { SiteWords } from './site-words';

/** §5 Surface: the area in which the author types: its look, its size, its keys, its dictionary. */
@Component({
  selector: 'ty-surface-chapter',
  imports: [SettingsForm, SiteWords],
  template: `
    <ty-settings-form [schema]="schema" [at]="['surface']" prefix="surface-" chapter="5" [choices]="choices()" />
    <ty-site-words />
  `,
  styles: `
    :host {
      display: block;
      flex: 1;
      min-height: 0;
      overflow: auto;
      padding-bottom: 24px;
    }
  `,
  providers: [
    { provide: SettingsSource, useExisting: ProfileSettings },
    { provide: SPECIAL_EDITORS, useValue: { css: EditingCss } },
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SurfaceChapter {
  protected readonly schema = surfaceSchema;
  private readonly pageKinds = inject(Store).selectSignal(libraryFeature.selectPageKinds);
  protected readonly choices = computed(() => ({
    'page-kind': this.pageKinds().map(({ id, name, contentWidthPx }) => [id, `${name}, ${contentWidthPx} px wide`] as const),
  }));
}
