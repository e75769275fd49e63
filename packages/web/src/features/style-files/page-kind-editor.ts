import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, output, signal } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { readTemplate, unfilledSlots } from '@typikon/core';
import { ArrowDown, ArrowUp, X } from 'lucide';
import { SiteStore } from '../../state/site';
import { Icon } from '../../ui/icon';
import { StyleDrafts, type KindDraft } from './style-drafts';
import { readWrapper, wrapperText } from './wrapper-text';

/** One kind of page: what stands around the content, its stylesheets in their order, its column, and where it is tried. */
@Component({
  selector: 'ty-page-kind-editor',
  imports: [MatSelectModule, MatButtonModule, Icon, MatFormFieldModule, MatInputModule, RouterLink],
  templateUrl: './page-kind-editor.html',
  styleUrl: './editors.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PageKindEditor {
  readonly id = input.required<string>();
  readonly removeAsked = output<void>();
  private readonly drafts = inject(StyleDrafts);
  private readonly router = inject(Router);
  private readonly site = inject(SiteStore);
  protected readonly icons = { up: ArrowUp, down: ArrowDown, off: X };
  protected readonly draft = computed(() => this.drafts.kind(this.id()));
  protected readonly isChanged = computed(() => this.drafts.isKindChanged(this.id()) || this.draft()?.revision === null);
  protected readonly files = computed(() =>
    (this.draft()?.stylesheets ?? []).map((id) => ({
      id,
      purpose: this.drafts.sheet(id)?.purpose ?? '',
      media: this.drafts.sheet(id)?.media ?? '',
    })),
  );
  protected readonly others = computed(() =>
    this.drafts.desk
      .stylesheets()
      .map(({ id }) => id)
      .filter((id) => this.draft()?.stylesheets.includes(id) === false),
  );
  private readonly texts = computed(() => this.drafts.desk.texts().filter(({ pageKindId }) => pageKindId === this.id()));
  protected readonly count = computed(() => this.texts().reduce((sum, { count }) => sum + count, 0));
  protected readonly profiles = computed(() => [...new Set(this.texts().map(({ profileId }) => profileId))]);
  protected readonly wrapper = linkedSignal(() => wrapperText(this.draft()?.wrapper ?? []));
  protected readonly wrapperFailure = computed(() =>
    readWrapper(this.wrapper()) === null
      ? 'Write main, article, section or div with their classes, from the outside in: main.page > article.body'
      : '',
  );
  protected readonly template = linkedSignal(() => this.draft()?.template ?? '');
  protected readonly templateFailure = computed(() => {
    const { problems } = readTemplate(this.template());
    return this.template().trim() === '' || problems.length === 0 ? '' : `This cannot be used: ${problems.join('; ')}.`;
  });
  /** Which slots no field fills. */
  protected readonly slotsSentence = computed(() => {
    const draft = this.draft();
    const names = draft === null || this.templateFailure() !== '' ? [] : unfilledSlots(draft, this.site.types());
    return names.length === 0 ? '' : `No field fills the ${names.length === 1 ? 'slot' : 'slots'} ${names.join(', ')}.`;
  });
  protected readonly widths = linkedSignal(() => (this.draft()?.widthsPx ?? []).join(', '));
  protected readonly failure = signal('');
  protected readonly notice = signal('');
  protected readonly isBusy = signal(false);

  protected set(part: Partial<KindDraft>): void {
    this.notice.set('');
    this.drafts.editKind(this.id(), part);
  }

  protected setWrapper(text: string): void {
    this.wrapper.set(text);
    const wrapper = readWrapper(text);
    if (wrapper !== null) this.set({ wrapper });
  }

  protected setTemplate(text: string): void {
    this.template.set(text);
    if (this.templateFailure() !== '') return;
    this.notice.set('');
    this.drafts.editTemplate(this.id(), text);
  }

  protected setWidths(text: string): void {
    const widths = text
      .split(/[\s,;]+/)
      .map(Number)
      .filter((width) => Number.isInteger(width) && width >= 200 && width <= 4000);
    this.set({ widthsPx: [...new Set(widths)].slice(0, 8) });
  }

  protected setWidth(value: number): void {
    if (Number.isInteger(value) && value >= 200 && value <= 2000) this.set({ contentWidthPx: value });
    else this.failure.set('The column is from 200 to 2000 pixels wide.');
  }

  protected move(at: number, by: number): void {
    const all = [...(this.draft()?.stylesheets ?? [])];
    const [one] = all.splice(at, 1);
    if (one !== undefined) this.set({ stylesheets: [...all.slice(0, at + by), one, ...all.slice(at + by)] });
  }

  protected takeOff(id: string): void {
    this.set({ stylesheets: (this.draft()?.stylesheets ?? []).filter((one) => one !== id) });
  }

  protected add(id: string): void {
    if (id !== '') this.set({ stylesheets: [...(this.draft()?.stylesheets ?? []), id] });
  }

  protected abandon(): void {
    const isNew = this.draft()?.revision === null;
    this.drafts.forgetKind(this.id());
    this.failure.set('');
    if (isNew) void this.router.navigate(['/styles']);
  }

  protected async save(): Promise<void> {
    if (this.isBusy()) return;
    this.isBusy.set(true);
    this.failure.set('');
    try {
      await this.drafts.storeKind(this.id());
      this.notice.set('Saved. Readers get it once it is released.');
    } catch (error) {
      this.failure.set(`Not saved. ${(error as Error).message}`);
    } finally {
      this.isBusy.set(false);
    }
  }
}
