import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import { MatDialog } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import { DomSanitizer, type SafeHtml } from '@angular/platform-browser';
import { RouterLink } from '@angular/router';
import { textChanges, type TextChange } from '@typikon/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { Acting } from '../../state/acting';
import { libraryFeature } from '../../state/library';
import { selectAsReaders } from '../../state/pages';
import { SiteStore } from '../../state/site';
import { framedText } from '../../shared/page/framed-text';
import { Confirm, type Question } from '../../ui/confirm';
import { TextChanges } from '../../ui/text-changes';
import { TitleLine } from '../../ui/title-line';
import { HOW } from './past-words';
import { VersionsStore, type ToldVersion } from './versions-store';

type Way = 'words' | 'source' | 'page';

/** A field as it stood in two versions. */
interface FieldThen {
  key: string;
  title: string;
  /** What is said of it beside its texts; empty for nothing. */
  note: string;
  changes: TextChange[] | null;
  before: string;
  after: string;
  /** As its page shows both; null for what is no rich text. */
  framed: { before: SafeHtml | null; after: SafeHtml | null } | null;
}

/** The versions of a document that were ever stored: who, when, by which edition; two of them compared, and the way back. */
@Component({
  selector: 'ty-versions-page',
  imports: [DatePipe, MatButtonModule, MatButtonToggleModule, MatFormFieldModule, MatSelectModule, RouterLink, TextChanges, TitleLine],
  providers: [VersionsStore],
  templateUrl: './versions-page.html',
  styleUrl: './versions-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class VersionsPage {
  /** The document's id, a version of it and the one that it is held against, from the address. */
  readonly id = input.required<string>();
  readonly version = input<string>();
  readonly against = input<string>();
  protected readonly past = inject(VersionsStore);
  private readonly site = inject(SiteStore);
  private readonly acting = inject(Acting);
  private readonly dialog = inject(MatDialog);
  private readonly sanitizer = inject(DomSanitizer);
  private readonly store = inject(Store);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  private readonly library = this.store.selectSignal(selectAsReaders);
  protected readonly way = signal<Way>('words');
  private readonly people = computed(() => new Map(this.acting.people().map(({ id, label }) => [id, label])));
  private readonly type = computed(() => this.site.held()?.types.find(({ id }) => id === this.past.document()?.type) ?? null);
  private readonly titles = computed(() => new Map(this.type()?.fields.map(({ key, title }) => [key, title])));
  protected readonly path = computed(() => {
    const document = this.past.document();
    return [{ text: 'Documents', link: '/write' }, ...(document === null ? [] : [{ text: document.title, link: `/write/${document.id}` }])];
  });
  protected readonly rows = computed(() =>
    this.past.versions().map((version, at) => ({
      version,
      ...this.told(version),
      isLast: at === 0,
      // Where readers see the last one, nothing has to be said.
      isPublic: at > 0 && version.revision === this.past.document()?.publicRevision,
    })),
  );
  protected readonly others = computed(() => this.past.versions().filter(({ revision }) => revision !== this.past.shown()));

  /** Every field that is other in the later of the two versions. */
  protected readonly fields = computed((): FieldThen[] | null => {
    const [later, earlier] = [this.past.later(), this.past.earlier()];
    if (later === null || (earlier === null && this.past.against() !== null)) return null;
    const keys = [...new Set([...later.fields, ...(earlier?.fields ?? [])].map(({ key }) => key))];
    const order = new Map(this.type()?.fields.map(({ key }, at) => [key, at]));
    keys.sort((one, other) => (order.get(one) ?? keys.length) - (order.get(other) ?? keys.length));
    return keys.flatMap((key) =>
      this.fieldThen(
        key,
        earlier?.fields.find((field) => field.key === key),
        later.fields.find((field) => field.key === key),
      ),
    );
  });
  protected readonly same = computed(() => {
    const [later, fields] = [this.past.later(), this.fields()];
    if (later === null || fields === null) return '';
    const changed = new Set(fields.map(({ key }) => key));
    return later.fields.flatMap(({ key }) => (changed.has(key) ? [] : [this.titles().get(key) ?? key])).join(', ');
  });

  constructor() {
    if (!this.acting.isKnown()) void this.acting.load();
    effect(() => {
      const id = this.id();
      const [wanted, held] = [this.version, this.against].map((named) => Number(untracked(named)) || null);
      untracked(() => void this.past.load(id, wanted, held ?? undefined));
    });
  }

  private told({ fields, how, savedBy }: ToldVersion): { by: string; what: string; editions: string } {
    const changed = fields.filter(({ isChanged }) => isChanged).map(({ key }) => this.titles().get(key) ?? key);
    const editions = fields
      .filter(({ isChanged, profile }) => isChanged && profile !== null)
      .map(({ profile, edition }) => `${this.names().get(profile!) ?? profile!}${edition === null ? '' : `, edition ${edition}`}`);
    return {
      by: this.people().get(savedBy) ?? savedBy,
      what: `${HOW[how]}${changed.length === 0 ? '' : `: ${changed.join(', ')}`}`,
      editions: [...new Set(editions)].join('; '),
    };
  }

  private fieldThen(key: string, was: Stood | undefined, is: Stood | undefined): FieldThen[] {
    const [before, after] = [was?.value ?? '', is?.value ?? ''];
    const moved = was !== undefined && is !== undefined && was.profile !== is.profile;
    if (before === after && !moved) return [];
    const isRich = (is ?? was)?.profile !== null;
    const way = this.way();
    const name = (id: string | null): string => (id === null ? '' : (this.names().get(id) ?? id));
    const note = moved
      ? `Moved from ${name(was.profile)} to ${name(is.profile)}.`
      : is === undefined
        ? 'It held something before.'
        : was === undefined && this.past.against() !== null
          ? 'It was empty before.'
          : '';
    return [
      {
        key,
        title: this.titles().get(key) ?? key,
        note,
        changes:
          way === 'page' && isRich
            ? null
            : isRich
              ? textChanges(before, after, way === 'source' ? 'source' : 'words')
              : plain(before, after),
        before,
        after,
        framed: isRich && way === 'page' ? { before: this.framed(before), after: this.framed(after) } : null,
      },
    ];
  }

  /** The frame is sandboxed and runs nothing. */
  private framed(html: string): SafeHtml | null {
    const page = framedText(this.library(), this.past.document()?.pageKind ?? '', html);
    return page === null ? null : this.sanitizer.bypassSecurityTrustHtml(page);
  }

  protected async goBack(revision: number): Promise<void> {
    const data: Question = {
      title: `Take “${this.past.document()?.title ?? ''}” back to version ${revision}?`,
      text: `What stood in its fields then is stored again, as a new version; what stands there now stays among the versions. By stricter rules than then, some of it may be left out: that is told, too.`,
      answers: [
        { value: 'stay', label: 'Leave it' },
        { value: 'back', label: 'Take it back', isMain: true },
      ],
    };
    const answer = await firstValueFrom(this.dialog.open<Confirm, Question, string>(Confirm, { data, width: '480px' }).afterClosed());
    if (answer === 'back') await this.past.goBack(revision);
  }
}

interface Stood {
  key: string;
  value: string;
  profile: string | null;
}

/** Plain text is short, and told whole. */
const plain = (before: string, after: string): TextChange[] => [
  ...(before === '' ? [] : [{ kind: 'gone' as const, text: `${before} ` }]),
  ...(after === '' ? [] : [{ kind: 'new' as const, text: after }]),
];
