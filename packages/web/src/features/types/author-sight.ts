import {
  ChangeDetectionStrategy,
  Component,
  computed,
  CUSTOM_ELEMENTS_SCHEMA,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import {
  cleanHelp,
  compileRules,
  renderedText,
  parseFragment,
  resolveProfile,
  whatAuthorsCanDo,
  type ContentType,
  type Field,
  type ResolvedProfile,
} from '@typikon/core';
import { defineTypikonEditor, type EditorConfiguration } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { Api } from '../../state/api';
import { Dictionary } from '../../state/dictionary';
import { EditorSurroundings, surfaceOf } from '../../state/editor-services';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { Configured } from './configured';

/** A field as somebody sees it. */
interface SeenField {
  field: Field;
  /** Makes the editor anew where another profile or text is in it. */
  key: string;
  longHelp: string;
  /** What the rules say of themselves; empty for fields without rich text. */
  canDo: string;
  configuration: EditorConfiguration | null;
  html: string;
  profile: { id: string; name: string; statement: number | null } | null;
  /** Other profiles that may be chosen there. */
  others: string[];
}

/** A content type as its author sees it: the real editors with the real help, for any role, at any width, empty or filled. */
@Component({
  selector: 'ty-author-sight',
  imports: [Configured, MatFormFieldModule, MatInputModule, MatSelectModule],
  schemas: [CUSTOM_ELEMENTS_SCHEMA],
  templateUrl: './author-sight.html',
  styleUrl: './author-sight.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AuthorSight {
  readonly type = input.required<ContentType>();
  readonly chosen = input('');
  readonly fieldChosen = output<string>();
  protected readonly site = inject(SiteStore);
  private readonly store = inject(Store);
  private readonly api = inject(Api);
  private readonly dictionary = inject(Dictionary);
  private readonly surroundings = inject(EditorSurroundings);
  private readonly library = this.store.selectSignal(libraryFeature.selectLibrary);
  private readonly house = this.store.selectSignal(libraryFeature.selectHouse);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly documents = this.store.selectSignal(libraryFeature.selectDocuments);
  /** `role:` or `person:` with an id; empty for the first role that may write something here. */
  protected readonly who = signal('');
  protected readonly filledFrom = signal('');
  private readonly filling = signal('');
  protected readonly width = signal('');
  protected readonly open = signal<ReadonlySet<string>>(new Set());
  /** What was typed, by field. */
  private readonly typed = signal<ReadonlyMap<string, string>>(new Map());
  private readonly left = signal<ReadonlySet<string>>(new Set());

  protected readonly widths = [
    { value: '', label: 'as wide as here' },
    { value: '560px', label: '560 px' },
    { value: '390px', label: 'phone, 390 px' },
  ];
  protected readonly askedAs = computed(() => {
    const asked = this.who();
    if (asked !== '') return asked;
    const assignments = this.site.assignments();
    const writer = this.site
      .roles()
      .find(({ id }) =>
        this.type().fields.some(({ key }) => assignments.why({ roles: [id], type: this.type().id, field: key }).profile !== null),
      );
    const first = writer ?? this.site.roles()[0];
    return first === undefined ? '' : `role:${first.id}`;
  });
  private readonly roles = computed((): readonly string[] => {
    const [kind, id = ''] = this.askedAs().split(':');
    return kind === 'person' ? (this.site.people().find((person) => person.id === id)?.roles ?? []) : id === '' ? [] : [id];
  });
  /** Documents that were written with a profile that this type's fields are written with, to fill them from. */
  protected readonly fillings = computed(() => {
    const { pageKind } = this.type();
    return this.documents().filter((document) => document.pageKindId === pageKind);
  });
  private readonly resolved = computed((): ReadonlyMap<string, ResolvedProfile> => {
    const documents = new Map(this.library()?.profiles.map(({ id, document }) => [id, document]));
    const all = new Map<string, ResolvedProfile>();
    for (const id of documents.keys()) {
      const resolution = resolveProfile(id, (other) => documents.get(other));
      if (resolution.ok) all.set(id, resolution.resolved);
    }
    return all;
  });
  private readonly mainField = computed(
    () =>
      this.type().fields.find(({ kind, needed }) => kind === 'rich' && needed) ?? this.type().fields.find(({ kind }) => kind === 'rich'),
  );

  protected readonly seen = computed((): SeenField[] => {
    const [library, house, assignments, resolved, names] = [
      this.library(),
      this.house(),
      this.site.assignments(),
      this.resolved(),
      this.names(),
    ];
    const { id: type, fields, pageKind } = this.type();
    const roles = this.roles();
    const [role = ''] = roles;
    const surface = library === null ? null : surfaceOf(library, pageKind);
    return fields.map((field): SeenField => {
      const { profile: id, statement, choices } = assignments.why({ roles, type, field: field.key });
      const profile = id === null ? undefined : resolved.get(id);
      const isRich = field.kind === 'rich' && profile !== undefined && surface !== null;
      const options = house === null ? {} : { house, ...(role === '' ? {} : { role }) };
      const html = field === this.mainField() ? this.filling() : '';
      return {
        field,
        key: `${field.key} ${id ?? ''} ${role} ${html.length}`,
        longHelp: cleanHelp(field.help.long),
        canDo: isRich
          ? whatAuthorsCanDo(profile, compileRules(profile, options), field.letters)
              .map(({ sentence }) => sentence)
              .join(' ')
          : '',
        configuration: isRich
          ? {
              profile: shorter(profile),
              house,
              role,
              surface,
              services: this.surroundings.services,
              isWord: (word) => this.dictionary.knows(word),
              uploadPictures: (pictures) => this.api.storePictures(pictures),
            }
          : null,
        html,
        profile: id === null ? null : { id, name: names.get(id) ?? id, statement },
        others: choices.slice(1).map((other) => names.get(other) ?? other),
      };
    });
  });

  constructor() {
    defineTypikonEditor();
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    // The field whose settings are open is in view.
    effect(() => {
      const key = this.chosen();
      requestAnimationFrame(() => host.querySelector(`[data-field="${key}"]`)?.scrollIntoView({ block: 'nearest' }));
    });
  }

  protected fill(id: string): void {
    this.filledFrom.set(id);
    if (id === '') this.filling.set('');
    else
      this.api.document(id).subscribe({
        next: ({ html }) => {
          if (this.filledFrom() === id) this.filling.set(html);
        },
        error: () => this.filledFrom.set(''),
      });
  }

  protected toggle(key: string): void {
    this.open.update((open) => (open.has(key) ? new Set([...open].filter((other) => other !== key)) : new Set([...open, key])));
  }

  protected typeIn(key: string, value: string): void {
    this.typed.update((typed) => new Map(typed).set(key, value));
  }

  protected leave(key: string): void {
    this.left.update((left) => new Set(left).add(key));
  }

  /** How long the text of a field is, in letters that a reader sees. */
  protected length({ field, html }: SeenField): number {
    const value = this.typed().get(field.key) ?? html;
    return [...(field.kind === 'rich' ? renderedText(parseFragment(value).root).trim() : value)].length;
  }

  /** What is wrong with what stands in a field; empty for nothing. */
  protected mistake(seen: SeenField): string {
    const { field } = seen;
    const length = this.length(seen);
    if (field.needed && length === 0 && this.left().has(field.key)) return 'This is needed, and it is empty.';
    const { from = 0, to = Infinity } = field.letters;
    if (length > to) return `This is ${length - to} ${length - to === 1 ? 'letter' : 'letters'} too long.`;
    return length > 0 && length < from && this.left().has(field.key) ? `This is shorter than ${from} letters.` : '';
  }
}

/** A profile whose editor leaves room for what stands below it. */
function shorter(resolved: ResolvedProfile): ResolvedProfile {
  const { surface } = resolved.profile;
  return {
    ...resolved,
    profile: { ...resolved.profile, surface: { ...surface, height: 'fixed', heightPx: Math.min(surface.heightPx, 220) } },
  };
}
