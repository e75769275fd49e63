import { afterNextRender, ChangeDetectionStrategy, Component, computed, ElementRef, inject, Injector, signal } from '@angular/core';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatExpansionModule } from '@angular/material/expansion';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatPaginatorModule, type PageEvent } from '@angular/material/paginator';
import { MatSelectModule } from '@angular/material/select';
import { MatTableModule } from '@angular/material/table';
import { MatDialog } from '@angular/material/dialog';
import { idFrom, isLockedOut, personSchema, RIGHTS, siteRoleSchema, withoutRole, type Person, type SiteRole } from '@typikon/core';
import { firstValueFrom } from 'rxjs';
import { SiteStore } from '../../state/site';
import { Confirm, type Question } from '../../ui/confirm';
import { SiteOpening } from '../../shared/site/site-opening';
import { SiteState } from '../../shared/site/site-state';
import { TitleLine } from '../../ui/title-line';
import { rightsInShort } from './right-words';
import { RoleForm } from './role-form';
import { inAddress } from '../../ui/in-address';

/** So many people are shown at once. */
const PAGE = 50;

/** The roles that there are, and the people who have them. */
@Component({
  selector: 'ty-people-page',
  imports: [
    MatButtonModule,
    MatExpansionModule,
    MatFormFieldModule,
    MatInputModule,
    MatPaginatorModule,
    MatSelectModule,
    MatTableModule,
    ReactiveFormsModule,
    RoleForm,
    SiteState,
    TitleLine,
    SiteOpening,
  ],
  templateUrl: './people-page.html',
  styleUrl: './people-page.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class PeoplePage {
  protected readonly site = inject(SiteStore);
  private readonly dialog = inject(MatDialog);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly columns = ['label', 'roles', 'more'];
  protected readonly newRole = new FormControl('', { nonNullable: true });
  protected readonly newPerson = new FormControl('', { nonNullable: true });
  protected readonly failure = signal('');
  protected readonly filter = inAddress('words');
  protected readonly page = signal(0);
  protected readonly pageSize = PAGE;
  /** The role that is open; empty for none. */
  protected readonly open = signal('');
  protected readonly lockedOut = computed(() => {
    const site = this.site.draft();
    return site !== null && isLockedOut(site);
  });
  protected readonly roles = computed(() => {
    const counts = new Map<string, number>();
    for (const { roles } of this.site.people()) for (const role of roles) counts.set(role, (counts.get(role) ?? 0) + 1);
    return this.site.roles().map((role) => ({ role, may: rightsInShort(role.rights), people: peopleWords(counts.get(role.id) ?? 0) }));
  });
  protected readonly found = computed(() => {
    const labels = new Map(this.site.roles().map(({ id, label }) => [id, label]));
    const wanted = this.filter().trim().toLowerCase();
    return this.site
      .people()
      .filter(({ label, roles }) => `${label} ${roles.map((id) => labels.get(id) ?? id).join(' ')}`.toLowerCase().includes(wanted));
  });
  protected readonly shown = computed(() => this.found().slice(this.page() * PAGE, (this.page() + 1) * PAGE));

  protected find(words: string): void {
    this.filter.set(words);
    this.page.set(0);
  }

  protected turn({ pageIndex }: PageEvent): void {
    this.page.set(pageIndex);
  }

  protected addRole(): void {
    const role = this.made(this.newRole, this.site.roles(), (id, label) => ({
      ...siteRoleSchema.parse({ id, label }),
      // The first one is whoever sets the site up.
      ...(this.site.roles().length === 0 ? { rights: [...RIGHTS] } : {}),
    }));
    if (role === null) return;
    this.site.change('', (site) => ({ ...site, roles: [...site.roles, role] }));
    this.open.set(role.id);
  }

  protected addPerson(): void {
    const roles = this.site.people().length === 0 ? this.administering() : [];
    const person = this.made(this.newPerson, this.site.people(), (id, label) => personSchema.parse({ id, label, roles }));
    if (person === null) return;
    this.site.change('', (site) => ({ ...site, people: [...site.people, person] }));
    this.find('');
    this.page.set(Math.floor((this.site.people().length - 1) / PAGE));
    afterNextRender(() => this.host.nativeElement.querySelector<HTMLElement>('tbody tr:last-child mat-select')?.focus(), {
      injector: this.injector,
    });
  }

  /** Whoever is the first must be able to change this again. */
  private administering(): string[] {
    const role = this.site.roles().find(({ rights }) => rights.includes('administer'));
    return role === undefined ? [] : [role.id];
  }

  /** Something new of a name that was typed; null, with the reason said, where it cannot be made. */
  private made<Of extends { id: string }>(
    name: FormControl<string>,
    others: readonly { id: string }[],
    make: (id: string, label: string) => Of,
  ): Of | null {
    const label = name.value.trim();
    const id = idFrom(label);
    this.failure.set('');
    if (id === '' || label.length > 120) {
      this.failure.set('A name needs letters in it, at most 120 of them.');
      return null;
    }
    const one = make(unusedId(id, others), label);
    name.reset();
    return one;
  }

  protected changeRole(role: SiteRole): void {
    this.site.change(`role ${role.id}`, (site) => ({ ...site, roles: site.roles.map((one) => (one.id === role.id ? role : one)) }));
  }

  protected async removeRole({ id, label }: SiteRole): Promise<void> {
    const statements = this.site.statements().filter(({ roles }) => roles !== '*' && roles.includes(id)).length;
    const people = this.site.people().filter(({ roles }) => roles.includes(id)).length;
    const data: Question = {
      title: `Take the role “${label}” away?`,
      text: `${peopleWords(people, true)} it, and ${statements === 0 ? 'no statement names it' : statements === 1 ? 'one statement names it' : `${statements} statements name it`}. A statement that names nobody else goes with it. Nothing is lost before you save.`,
      answers: [
        { value: 'no', label: 'Leave it' },
        { value: 'yes', label: 'Take it away', isMain: true },
      ],
    };
    const answer = await firstValueFrom(this.dialog.open<Confirm, Question, string>(Confirm, { data, width: '440px' }).afterClosed());
    if (answer === 'yes') this.site.change('', (site) => withoutRole(site, id));
  }

  protected rename(person: Person, field: HTMLInputElement): void {
    const label = field.value.trim();
    // Nobody is without a name: what was there stays.
    if (label === '' || label.length > 120) field.value = person.label;
    else this.changePerson({ ...person, label });
  }

  protected changePerson(person: Person): void {
    this.site.change(`person ${person.id}`, (site) => ({
      ...site,
      people: site.people.map((one) => (one.id === person.id ? person : one)),
    }));
  }

  protected removePerson({ id }: Person): void {
    this.site.change('', (site) => ({ ...site, people: site.people.filter((person) => person.id !== id) }));
  }
}

function unusedId(id: string, others: readonly { id: string }[]): string {
  const used = new Set(others.map((other) => other.id));
  let unused = id;
  for (let n = 2; used.has(unused); n++) unused = `${id}-${n}`;
  return unused;
}

function peopleWords(count: number, withVerb = false): string {
  if (count === 0) return withVerb ? 'Nobody has' : 'nobody';
  if (count === 1) return withVerb ? 'One person has' : 'one person';
  return `${count.toLocaleString('en')} people${withVerb ? ' have' : ''}`;
}
