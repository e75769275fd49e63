import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatMenuModule } from '@angular/material/menu';
import { MatSelectModule } from '@angular/material/select';
import { MatSortModule, type Sort } from '@angular/material/sort';
import { MatTableModule } from '@angular/material/table';
import { Router, RouterLink } from '@angular/router';
import type { ContentType } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import { Acting } from '../../state/acting';
import type { AnswerOf } from '../../state/contract';
import { ContractClient } from '../../state/contract-client';
import { SiteStore } from '../../state/site';
import { SiteOpening } from '../../shared/site/site-opening';
import { TitleLine } from '../../ui/title-line';
import { TypeIcon } from '../../ui/type-icon';
import { QuestionsStore } from '../../state/questions';
import { notSeen } from '../../shared/page/not-seen';
import { typedWords } from '../../ui/typed-words';
import { Equipment } from '../../shared/writing/equipment';
import { NewDocument, type NewDocumentQuestion } from './new-document';

type Listed = AnswerOf<'get', '/documents'>;

const PAGE = 50;

/** Documents of the site: found by words, type, person and profile, in pages; and new ones. */
@Component({
  selector: 'ty-documents-page',
  imports: [
    DatePipe,
    MatButtonModule,
    MatFormFieldModule,
    MatInputModule,
    MatMenuModule,
    MatSelectModule,
    MatSortModule,
    MatTableModule,
    RouterLink,
    TitleLine,
    TypeIcon,
    SiteOpening,
  ],
  templateUrl: './documents-page.html',
  providers: [QuestionsStore],
  styleUrl: './documents-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class DocumentsPage {
  /** From the address, all of them. */
  readonly words = input<string>();
  readonly type = input<string>();
  readonly by = input<string>();
  readonly profile = input<string>();
  readonly public = input<string>();
  readonly sort = input<string>();
  readonly order = input<string>();
  /** What the pages before this one ended with, with strokes between them. */
  readonly behind = input<string>();
  protected readonly site = inject(SiteStore);
  protected readonly acting = inject(Acting);
  private readonly client = inject(ContractClient);
  private readonly questions = inject(QuestionsStore);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  protected readonly names = inject(Equipment).names;
  protected readonly columns = ['title', 'type', 'profiles', 'changed'];
  protected readonly found = signal<Listed | null>(null);
  protected readonly next = signal<string | null>(null);
  protected readonly failure = signal('');
  protected readonly typed = typedWords(this.words, (words) => this.ask({ words }));

  protected readonly before = computed(() => (this.behind() ?? '').split('/').filter((id) => id !== ''));
  /** The place of the first one that is shown, among all that were found: of what is there, not of what was just asked for. */
  protected readonly first = signal(1);
  protected readonly isAsking = signal(true);
  protected readonly people = computed(() => new Map(this.site.people().map(({ id, label }) => [id, label])));
  protected readonly types = computed(() => new Map((this.site.held()?.types ?? []).map((type) => [type.id, type])));
  protected readonly profiles = computed(() => [...this.names()].map(([id, name]) => ({ id, name })));
  protected readonly isFiltered = computed(() =>
    [this.words(), this.type(), this.by(), this.profile(), this.public()].some((value) => (value ?? '') !== ''),
  );
  /** The types of which whoever acts writes something. */
  protected readonly writable = computed((): ContentType[] => {
    const [assignments, roles, person] = [this.site.heldAssignments(), this.acting.roles(), this.acting.person()];
    const types = this.site.held()?.types ?? [];
    if (person === null) return [...types];
    return types.filter(({ id: type, fields }) =>
      fields.some(({ key }) => assignments.why({ roles: [...roles], type, field: key }).profile !== null),
    );
  });

  /** What whoever acts is asked about their texts. */
  protected readonly asked = computed(() => (this.acting.person() === null ? [] : this.questions.questions()));

  constructor() {
    if (this.acting.person() === null) void this.acting.load();
    effect(() => {
      const person = this.acting.person()?.id;
      if (person !== undefined) untracked(() => void this.questions.load({ person }, true));
    });
    effect((onCleanup) => {
      const query = {
        limit: PAGE,
        words: this.words(),
        type: this.type(),
        by: this.by(),
        profile: this.profile(),
        public: this.public() === 'asked' ? ('asked' as const) : this.public() === 'not' ? ('not' as const) : undefined,
        sort: this.sort() === 'title' ? ('title' as const) : ('changed' as const),
        order: this.order() === 'asc' ? ('asc' as const) : this.order() === 'desc' ? ('desc' as const) : undefined,
        after: this.before().at(-1),
      };
      const first = this.before().length * PAGE + 1;
      this.isAsking.set(true);
      const asked = this.client.get('/documents', query, {}).subscribe({
        next: ({ body, next }) => {
          this.found.set(body);
          this.next.set(next);
          this.first.set(first);
          this.isAsking.set(false);
          this.failure.set('');
        },
        error: ({ message }: Error) => {
          this.failure.set(message);
          this.isAsking.set(false);
        },
      });
      onCleanup(() => asked.unsubscribe());
    });
  }

  protected row(document: Listed['documents'][number]) {
    return {
      type: this.types().get(document.type) ?? null,
      by: this.people().get(document.changedBy) ?? document.changedBy,
      profiles: document.profiles.map((id) => this.names().get(id) ?? id).join(', '),
      unseen: notSeen(document),
    };
  }

  /** Another question begins with its first page. */
  protected ask(change: Record<string, string | null>): void {
    const queryParams = Object.fromEntries(Object.entries({ behind: null, ...change }).map(([name, value]) => [name, value || null]));
    void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: !('behind' in change) });
  }

  protected sortBy({ active, direction }: Sort): void {
    this.ask({ sort: direction === '' ? null : active, order: direction === '' ? null : direction });
  }

  protected forward(): void {
    const next = this.next();
    if (next !== null) this.ask({ behind: [...this.before(), next].join('/') });
  }

  protected back(): void {
    this.ask({ behind: this.before().slice(0, -1).join('/') });
  }

  protected async make(type: ContentType): Promise<void> {
    const data: NewDocumentQuestion = { type };
    const id = await firstValueFrom(
      this.dialog.open<NewDocument, NewDocumentQuestion, string>(NewDocument, { data, width: '460px' }).afterClosed(),
    );
    if (id !== undefined) await this.router.navigate(['/write', id]);
  }
}
