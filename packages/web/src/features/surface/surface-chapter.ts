import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatSelectModule } from '@angular/material/select';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { surfaceSchema, valueAt, type Json, type JsonObject } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';
import { settingOrigin } from '../../shared/profile/origin';
import { CssField } from '../../shared/markup/css-field';
import { SiteWords } from './site-words';

interface Line {
  keys: readonly string[];
  label: string;
  kind: 'choice' | 'number' | 'numbers' | 'flag';
  options?: readonly (readonly [value: string, words: string])[];
  hint?: string;
  /** Whether the line says anything with the other settings as they are. */
  isShown?: (surface: ReturnType<typeof surfaceSchema.parse>) => boolean;
}

const choice = (keys: string, label: string, options: NonNullable<Line['options']>): Line => ({
  keys: keys.split('.'),
  label,
  kind: 'choice',
  options,
});

const GROUPS: readonly { name: string; gloss: string; lines: readonly Line[] }[] = [
  {
    name: 'What it looks like',
    gloss: 'so that authors see what readers will',
    lines: [
      choice('stylesheets', 'The text stands on', [
        ['page', 'the stylesheets of the page'],
        ['editing', 'an editing stylesheet of its own'],
        ['both', 'the page’s, then one of its own'],
      ]),
      {
        keys: ['widthsPx'],
        label: 'Narrower widths that authors can try, in pixels',
        kind: 'numbers',
        hint: 'whole numbers from 200 to 3000, such as 390 560',
      },
    ],
  },
  {
    name: 'Size',
    gloss: 'of the field',
    lines: [
      choice('height', 'Height', [
        ['fixed', 'always the same'],
        ['growing', 'grows with the text'],
        ['between', 'grows up to a limit'],
      ]),
      { keys: ['heightPx'], label: 'Height, or least height, in pixels', kind: 'number', hint: 'a whole number from 60 to 2000' },
      {
        keys: ['tallestPx'],
        label: 'Greatest height in pixels',
        kind: 'number',
        hint: 'a whole number from 60 to 4000',
        isShown: ({ height }) => height === 'between',
      },
      choice('bar', 'The buttons are', [
        ['top', 'above the text'],
        ['bottom', 'below the text'],
        ['selection', 'beside what is selected'],
      ]),
    ],
  },
  {
    name: 'Keys',
    gloss: 'what they do in the text',
    lines: [
      choice('enter', 'Enter begins', [
        ['paragraph', 'a paragraph: p'],
        ['break', 'a line: br'],
        ['block', 'a block: div'],
      ]),
      choice('shiftEnter', 'Shift and Enter begin', [
        ['break', 'a line: br'],
        ['paragraph', 'a paragraph: p'],
        ['nothing', 'nothing'],
      ]),
      choice('tab', 'Tab', [
        ['leave', 'leaves the text, but in tables'],
        ['indent', 'sets in, in lists one step deeper'],
        ['spaces', 'puts in hard spaces, in lists deeper'],
      ]),
    ],
  },
  {
    name: 'Spelling',
    gloss: 'words that no dictionary has are marked while the author writes',
    lines: [
      choice('spelling.language', 'Dictionary', [
        ['en-GB', 'British English'],
        ['none', 'none'],
      ]),
      { keys: ['spelling', 'atOnce'], label: 'Words are marked from the beginning', kind: 'flag' },
    ],
  },
];

/** §5 Surface: the area in which the author types: its look, its size, its keys, its dictionary. */
@Component({
  selector: 'ty-surface-chapter',
  imports: [MatCheckboxModule, MatSelectModule, MatInputModule, MatFormFieldModule, MatButtonModule, CssField, SiteWords],
  templateUrl: './surface-chapter.html',
  styleUrl: './surface-chapter.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class SurfaceChapter {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly pageKinds = this.store.selectSignal(libraryFeature.selectPageKinds);
  protected readonly failure = signal('');
  protected readonly surface = computed(() => this.resolved()?.profile.surface ?? null);
  protected readonly groups = computed(() => {
    const resolved = this.resolved();
    if (resolved === null) return [];
    const { surface } = resolved.profile;
    const document = JSON.parse(JSON.stringify(surface)) as JsonObject;
    const kinds = choice(
      'pageKind',
      'The page kind whose look and width it has',
      this.pageKinds().map(({ id, name, contentWidthPx }): [string, string] => [id, `${name}, ${contentWidthPx} px wide`]),
    );
    return GROUPS.map((group, index) => ({
      ...group,
      number: index + 1,
      lines: (index === 0 ? [kinds, ...group.lines] : group.lines)
        .filter(({ isShown }) => isShown?.(surface) !== false)
        .map((line) => {
          const value = valueAt(document, line.keys);
          return {
            ...line,
            id: `surface-${line.keys.join('-')}`,
            value: (Array.isArray(value) ? value : [value]).map((one) => String(one as string | number | boolean)).join(' '),
            ...settingOrigin(resolved, ['surface', ...line.keys], this.names()),
          };
        }),
    }));
  });

  protected take(line: Line, typed: string | boolean): void {
    const numbers =
      typeof typed === 'string'
        ? typed
            .split(/[\s,]+/)
            .filter((word) => word !== '')
            .map(Number)
        : [];
    const value: Json =
      typeof typed === 'boolean' ? typed : line.kind === 'number' ? Number(typed) : line.kind === 'numbers' ? numbers : typed;
    const probe = line.keys.reduceRight<Json>((inner, key) => ({ [key]: inner }), value);
    if (!surfaceSchema.safeParse(probe).success || (line.kind === 'number' && String(typed).trim() === '')) {
      this.failure.set(`${line.label}: it must be ${line.hint ?? 'one of the list'}.`);
      return;
    }
    this.failure.set('');
    this.edit.set(['surface', ...line.keys], value, line.label);
  }

  protected follow(line: Line): void {
    this.failure.set('');
    this.edit.reset(['surface', ...line.keys], `Following the parent: ${line.label}`);
  }

  protected setCss(css: string): void {
    this.edit.set(['surface', 'editingCss'], css, 'The editing stylesheet');
  }
}
