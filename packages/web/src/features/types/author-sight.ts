import { ChangeDetectionStrategy, Component, computed, effect, ElementRef, inject, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatSelectModule } from '@angular/material/select';
import type { ContentType, Field } from '@typikon/core';
import type { EditorConfiguration } from '@typikon/editor';
import { firstValueFrom } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { SiteStore } from '../../state/site';
import { Equipment } from '../../shared/writing/equipment';
import { FieldEntry } from '../../shared/writing/field-entry';

/** A field as somebody sees it. */
interface SeenField {
  field: Field;
  /** Makes the editor anew where another profile or text is in it. */
  key: string;
  /** What the rules say of themselves; empty for fields without rich text. */
  canDo: string;
  profileHelp: string;
  where: string;
  configuration: EditorConfiguration | null;
  value: string;
  refusal: string;
  profile: { id: string; name: string; statement: number | null } | null;
  /** Other profiles that may be chosen there. */
  others: string[];
}

/** So many documents are offered to fill the fields from. */
const MOST_FILLINGS = 50;

/** A content type as its author sees it: the real editors with the real help, for any role, at any width, empty or filled. */
@Component({
  selector: 'ty-author-sight',
  imports: [MatButtonModule, FieldEntry, MatFormFieldModule, MatSelectModule],
  templateUrl: './author-sight.html',
  styleUrl: './author-sight.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class AuthorSight {
  readonly type = input.required<ContentType>();
  readonly chosen = input('');
  readonly fieldChosen = output<string>();
  protected readonly site = inject(SiteStore);
  private readonly client = inject(ContractClient);
  private readonly equipment = inject(Equipment);
  /** `role:` or `person:` with an id; empty for the first role that may write something here. */
  protected readonly who = signal('');
  protected readonly filledFrom = signal('');
  /** What stands in the fields of the document that they are filled from. */
  private readonly filling = signal<ReadonlyMap<string, string>>(new Map());
  protected readonly width = signal('');

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
  /** Stored documents of this type, to fill the fields from: those that were changed last. */
  protected readonly fillings = signal<readonly { id: string; title: string }[]>([]);
  private readonly typeId = computed(() => this.type().id);

  protected readonly seen = computed((): SeenField[] => {
    const [assignments, names, type, roles, filling] = [
      this.site.assignments(),
      this.equipment.names(),
      this.type(),
      this.roles(),
      this.filling(),
    ];
    const role = this.equipment.roleOf(roles);
    return type.fields.map((field): SeenField => {
      const { profile: id, statement, choices } = assignments.why({ roles, type: type.id, field: field.key });
      const isRich = field.kind === 'rich' && id !== null;
      const configuration = isRich ? this.equipment.configuration(id, role, type, field) : null;
      const profile = id === null ? null : { id, name: names.get(id) ?? id, statement };
      return {
        field,
        key: `${field.key} ${id ?? ''} ${role} ${this.filledFrom()}`,
        canDo: isRich ? this.equipment.canDo(id, role, field) : '',
        profileHelp: isRich ? this.equipment.help(id) : '',
        where: this.equipment.where(type, field.key),
        configuration,
        value: filling.get(field.key) ?? '',
        refusal: refusalOf(field, profile, configuration),
        profile,
        others: choices.slice(1).map((other) => names.get(other) ?? other),
      };
    });
  });

  constructor() {
    effect((onCleanup) => {
      const asked = this.client.get('/documents', { type: this.typeId(), limit: MOST_FILLINGS }, {}).subscribe({
        next: ({ body }) => this.fillings.set(body.documents),
        // Without them the fields are seen empty.
        error: () => this.fillings.set([]),
      });
      onCleanup(() => asked.unsubscribe());
    });
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    // The field whose settings are open is in view.
    effect(() => {
      const key = this.chosen();
      requestAnimationFrame(() => host.querySelector(`[data-field="${key}"]`)?.scrollIntoView({ block: 'nearest' }));
    });
  }

  protected async fill(id: string): Promise<void> {
    if (id === '') {
      this.filling.set(new Map());
      this.filledFrom.set('');
      return;
    }
    try {
      const { body } = await firstValueFrom(this.client.get('/documents/{id}', {}, { id }));
      this.filling.set(new Map(body.fields.map(({ key, value }) => [key, value])));
      this.filledFrom.set(id);
    } catch {
      this.filledFrom.set('');
    }
  }
}

/** Why nothing can be written in a field; empty where it can. */
function refusalOf({ kind }: Field, profile: SeenField['profile'], configuration: EditorConfiguration | null): string {
  if (profile === null) return 'Whoever looks at it like this may not write here.';
  return kind === 'rich' && configuration === null ? `The profile ${profile.name} has mistakes, so nothing can be written here.` : '';
}
