import { ChangeDetectionStrategy, Component, computed, inject, linkedSignal, signal } from '@angular/core';
import { MatTableModule } from '@angular/material/table';
import { MatSelectModule } from '@angular/material/select';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { RouterLink } from '@angular/router';
import {
  idFrom,
  actSentence,
  compileRules,
  declarationsIn,
  lessonsOf,
  looksOn,
  lostOf,
  patchToLearn,
  readStyle,
  refusalSentence,
  sampleOf,
  stylesAsCss,
  type JsonObject,
  type StyleDefinition,
} from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { selectPages, selectRules } from '../../state/rules';
import { workshopFeature } from '../../state/workshop';
import { frameHtml } from '../../shared/page/frame-html';
import { PageFrame } from '../../shared/page/page-frame';
import { download } from '../../ui/download';
import { ProfileEdit } from '../../shared/profile/edit';
import { settingOrigin } from '../../shared/profile/origin';
import { StyleLook } from './style-look';
import { StylesFromCss, type Taken } from './styles-from-css';

/** §4 Styles: the named styles that authors may apply, what applying them does, and what they look like on each page. */
@Component({
  selector: 'ty-styles-chapter',
  imports: [MatTableModule, MatSelectModule, MatInputModule, MatFormFieldModule, MatButtonModule, PageFrame, RouterLink, StyleLook],
  templateUrl: './styles-chapter.html',
  styleUrl: './styles-chapter.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class StylesChapter {
  protected readonly columns = ['look', 'selector', 'group', 'state', 'setBy'];
  protected readonly same = (_: number, row: { id: string }): string => row.id;
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly dialog = inject(MatDialog);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(selectRules);
  private readonly options = this.store.selectSignal(workshopFeature.selectOptions);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly pages = this.store.selectSignal(selectPages);
  private readonly siteOrigin = this.store.selectSignal(libraryFeature.selectSiteOrigin);
  protected readonly failure = signal('');
  protected readonly isAdding = signal(false);
  protected readonly newLabel = signal('');
  protected readonly newSelector = signal('');

  protected readonly rows = computed(() => {
    const resolved = this.resolved();
    const rules = this.rules();
    if (resolved === null || rules === null) return [];
    return Object.entries(resolved.profile.styles).map(([id, style]) => {
      const read = readStyle(style.selector);
      const looks = read.ok ? this.pages().map((page) => ({ page: page.name, look: looksOn(page).of(read.act) })) : [];
      const missing = looks.filter(({ look }) => look.rules.length === 0).map(({ page }) => page);
      const lost = read.ok ? lostOf(read.act, rules) : [];
      return {
        id,
        style,
        read,
        looks,
        lost,
        changes: looks[0]?.look.changes ?? [],
        state: !read.ok
          ? 'cannot be applied'
          : lost.length > 0
            ? 'its markup is removed'
            : missing.length > 0
              ? `no rule on ${missing.join(', ')}`
              : '',
        isBad: !read.ok || lost.length > 0,
        ...settingOrigin(resolved, ['styles', id], this.names()),
      };
    });
  });
  /** Styles of a parent that this profile takes off its menu. */
  protected readonly takenOff = computed(() => {
    const own = this.resolved()?.chain.find(({ id }) => id === this.resolved()?.id)?.document['styles'];
    return Object.entries((own ?? {}) as JsonObject).flatMap(([id, style]) => (style === null ? [id] : []));
  });
  protected readonly groups = computed(() => [...new Set(this.rows().flatMap(({ style }) => style.group ?? []))]);
  protected readonly chosenId = linkedSignal<string[], string>({
    source: () => this.rows().map(({ id }) => id),
    computation: (ids, previous) => (previous !== undefined && ids.includes(previous.value) ? previous.value : (ids[0] ?? '')),
  });
  protected readonly chosen = computed(() => this.rows().find(({ id }) => id === this.chosenId()) ?? null);
  protected readonly sentence = computed(() => {
    const read = this.chosen()?.read;
    return read === undefined ? '' : read.ok ? actSentence(read.act) : refusalSentence(read.refusal);
  });
  /** What a selector that is being typed would do. */
  protected readonly newSentence = computed(() => {
    const selector = this.newSelector().trim();
    if (selector === '') return 'An element turns the block into it; an element with a class gives it both; a class alone marks words.';
    const read = readStyle(selector);
    return read.ok ? actSentence(read.act) : refusalSentence(read.refusal);
  });
  protected readonly pageName = linkedSignal(() => this.pages()[0]?.name ?? '');
  protected readonly sample = computed(() => {
    const chosen = this.chosen();
    const page = this.pages().find(({ name }) => name === this.pageName());
    if (chosen === null || !chosen.read.ok || page === undefined) return null;
    const { before, after } = sampleOf(chosen.read.act);
    const setting = { sheets: page.sheets, wrapper: page.wrapper, columnPx: null };
    return {
      before: frameHtml(setting, before, null, this.siteOrigin()),
      after: frameHtml(setting, after, null, this.siteOrigin()),
      markup: after,
    };
  });

  protected set(key: keyof StyleDefinition, typed: string, label: string): void {
    const id = this.chosenId();
    const value = typed.trim();
    this.failure.set('');
    if (key === 'within') {
      const names = value
        .toLowerCase()
        .split(/[\s,]+/)
        .filter((name) => name !== '');
      if (names.some((name) => !/^[a-z][a-z0-9-]*$/.test(name))) this.failure.set('Name elements, such as td, th.');
      else if (names.length === 0) this.clear(id, key, label);
      else this.edit.set(['styles', id, key], names, label);
      return;
    }
    if (value === '' && (key === 'label' || key === 'selector')) {
      this.failure.set(key === 'label' ? 'A style needs a label for its entry in the menu.' : 'A style needs a selector.');
      return;
    }
    if (value === '') this.clear(id, key, label);
    else this.edit.set(['styles', id, key], value, label);
  }

  /** Takes a setting away, also where a parent has it. */
  private clear(id: string, key: string, label: string): void {
    this.edit.set(['styles', id, key], undefined, label);
  }

  protected add(event: Event): void {
    event.preventDefault();
    const selector = this.newSelector().trim();
    const read = readStyle(selector);
    const label = this.newLabel().trim();
    if (!read.ok) {
      this.failure.set(refusalSentence(read.refusal));
      return;
    }
    if (label === '') {
      this.failure.set('A style needs a label for its entry in the menu.');
      return;
    }
    this.failure.set('');
    const id = this.freeId(idFrom(label) || 'style');
    this.edit.set(['styles', id], { label, selector }, `The style “${label}”`);
    this.chosenId.set(id);
    this.newLabel.set('');
    this.newSelector.set('');
    this.isAdding.set(false);
  }

  protected remove(id: string): void {
    const row = this.rows().find((one) => one.id === id);
    if (row !== undefined) this.edit.set(['styles', id], undefined, `Without the style “${row.style.label}”`);
  }

  protected follow(id: string): void {
    this.edit.reset(['styles', id], 'Following the parent again');
  }

  /** Allows what the rules take of a style, by the smallest rules. */
  protected allow(): void {
    const [chosen, resolved] = [this.chosen(), this.resolved()];
    if (chosen?.read.ok !== true || resolved === null) return;
    const { after } = sampleOf(chosen.read.act);
    const options = this.options();
    const { lessons } = lessonsOf(after, resolved, options);
    const patch = patchToLearn(after, resolved, new Set(lessons.map(({ id }) => id)), options);
    const mended = compileRules(resolved, options);
    if (Object.keys(patch).length === 0) {
      this.failure.set(`The house limits do not let it through: ${lostOf(chosen.read.act, mended).join(' and ')}.`);
      return;
    }
    this.edit.patch(patch, `Allowing “${chosen.style.label}”`);
  }

  /** Chooses styles from a stylesheet, a file or another profile. */
  protected fromCss(): void {
    this.dialog
      .open<StylesFromCss, ReadonlySet<string>, readonly Taken[]>(StylesFromCss, {
        data: new Set(this.rows().map(({ style }) => style.selector)),
        width: '760px',
        maxWidth: '94vw',
        maxHeight: '92vh',
      })
      .afterClosed()
      .subscribe((taken) => {
        if (taken === undefined || taken.length === 0) return;
        const styles: JsonObject = {};
        for (const { id, style } of taken) {
          let free = this.freeId(id);
          for (let number = 2; Object.hasOwn(styles, free); number++) free = `${id}-${number}`;
          styles[free] = JSON.parse(JSON.stringify(style)) as JsonObject;
        }
        this.edit.patch({ styles }, taken.length === 1 ? `The style “${taken[0]!.style.label}”` : `${taken.length} styles`);
      });
  }

  /** The style set as CSS, with what the page's stylesheets say of each style. */
  protected download(): void {
    const resolved = this.resolved();
    if (resolved === null) return;
    const css = this.pages()
      .flatMap(({ sheets }) => sheets.map((sheet) => sheet.css))
      .join('\n');
    const text = stylesAsCss(resolved.profile.styles, declarationsIn(css));
    download(`${resolved.id}-styles.css`, 'text/css', text);
  }

  private freeId(id: string): string {
    const taken = new Set(this.rows().map((row) => row.id));
    let free = id;
    for (let number = 2; taken.has(free); number++) free = `${id}-${number}`;
    return free;
  }
}
