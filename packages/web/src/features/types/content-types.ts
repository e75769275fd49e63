import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatMenuModule } from '@angular/material/menu';
import { MatTableModule } from '@angular/material/table';
import { Router, RouterLink } from '@angular/router';
import { withoutType, type ContentType } from '@typikon/core';
import { Store } from '@ngrx/store';
import { firstValueFrom } from 'rxjs';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { ContractClient } from '../../state/contract-client';
import { Confirm, type Question } from '../../ui/confirm';
import { TitleLine } from '../../ui/title-line';
import { TypeIcon } from '../../ui/type-icon';
import { SiteOpening } from '../../shared/site/site-opening';
import { SiteState } from '../../shared/site/site-state';
import { GiveDialog, type GiveQuestion } from './give-dialog';
import { SiteFileDialog } from './site-file-dialog';
import { TypeDialog, type TypeQuestion } from './type-dialog';
import { inAddress } from '../../ui/in-address';

type UseOfType = GiveQuestion['use'];

/** The kinds of content that there are: what each is made of, where it is published, and who writes it. */
@Component({
  selector: 'ty-content-types',
  imports: [
    MatButtonModule,
    MatFormFieldModule,
    MatInputModule,
    MatMenuModule,
    MatTableModule,
    RouterLink,
    SiteState,
    TitleLine,
    TypeIcon,
    SiteOpening,
  ],
  templateUrl: './content-types.html',
  styleUrl: './content-types.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ContentTypes {
  protected readonly site = inject(SiteStore);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly client = inject(ContractClient);
  private readonly kinds = inject(Store).selectSignal(libraryFeature.selectPageKinds);
  protected readonly filter = inAddress('words');
  protected readonly columns = ['label', 'fields', 'kind', 'writers', 'more'];
  /** A row stays the same, with a menu that is open on it, while counts come in. */
  protected readonly same = (_: number, row: { type: ContentType }): string => row.type.id;
  protected readonly rows = computed(() => {
    const kinds = new Map(this.kinds().map(({ id, name }) => [id, name]));
    const assignments = this.site.assignments();
    const wanted = this.filter().trim().toLowerCase();
    return this.site
      .types()
      .map((type, at) => ({
        type,
        at,
        fields: type.fields.map(({ title }) => title).join(', '),
        kind: kinds.get(type.pageKind) ?? type.pageKind,
        writers: this.site
          .roles()
          .filter(({ id }) => type.fields.some(({ key }) => assignments.why({ roles: [id], type: type.id, field: key }).profile !== null))
          .map(({ label }) => label),
      }))
      .filter(({ type, fields }) => `${type.label} ${type.description} ${fields}`.toLowerCase().includes(wanted));
  });

  protected async make(from: ContentType | null): Promise<void> {
    const data: TypeQuestion = { from };
    const made = await firstValueFrom(
      this.dialog.open<TypeDialog, TypeQuestion, ContentType>(TypeDialog, { data, width: '480px' }).afterClosed(),
    );
    if (made === undefined) return;
    this.site.change('', (site) => ({ ...site, types: [...site.types, made] }));
    await this.router.navigate(['/types', made.id]);
  }

  protected move(at: number, by: number): void {
    this.site.change('', (site) => {
      const types = [...site.types];
      const [type] = types.splice(at, 1);
      types.splice(at + by, 0, type!);
      return { ...site, types };
    });
  }

  protected openFiles(): void {
    this.dialog.open(SiteFileDialog, { width: '720px', maxWidth: '94vw', autoFocus: 'first-heading' });
  }

  /** Takes a type away, with what statements say of it; what becomes of its documents is asked first. */
  protected async remove(type: ContentType): Promise<void> {
    const { id } = type;
    const use = await this.useOf(id);
    const isWanted = typeof use !== 'string' && use.documents > 0 ? await this.giveAway(type, use) : await this.confirm(type, use);
    if (!isWanted) return;
    this.site.change('', (site) => withoutType(site, id));
  }

  /** @returns why it is not known where it is not */
  private async useOf(type: string): Promise<UseOfType | string> {
    if (this.site.held()?.types.some(({ id }) => id === type) !== true) return { documents: 0, fields: [] };
    try {
      return (await firstValueFrom(this.client.get('/types/{type}/use', {}, { type }))).body;
    } catch (error) {
      return (error as Error).message;
    }
  }

  /** @returns whether none of its documents is of it any more */
  private async giveAway(type: ContentType, use: UseOfType): Promise<boolean> {
    const saved = this.site.held()?.types ?? [];
    const data: GiveQuestion = {
      type: saved.find(({ id }) => id === type.id) ?? type,
      others: saved.filter(({ id }) => id !== type.id),
      use,
    };
    const options = { data, width: '620px', maxWidth: '94vw', autoFocus: 'first-tabbable' };
    return (await firstValueFrom(this.dialog.open<GiveDialog, GiveQuestion, boolean>(GiveDialog, options).afterClosed())) === true;
  }

  private async confirm({ label, fields }: ContentType, use: UseOfType | string): Promise<boolean> {
    const known =
      typeof use === 'string' ? `Its documents could not be counted: ${use} While there are any, it cannot go.` : 'No document is of it.';
    const data: Question = {
      title: `Take “${label}” away?`,
      text: `${known} Its ${fields.length === 1 ? 'field goes' : `${fields.length} fields go`} with it, and who writes them. Nothing is lost before you save.`,
      answers: [
        { value: 'no', label: 'Leave it' },
        { value: 'yes', label: 'Take it away', isMain: true },
      ],
    };
    return (await firstValueFrom(this.dialog.open<Confirm, Question, string>(Confirm, { data, width: '440px' }).afterClosed())) === 'yes';
  }
}
