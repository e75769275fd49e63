import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { isObject, resolveProfile, toSanitizerConfig, type Json, type JsonObject } from '@typikon/core';
import { Store } from '@ngrx/store';
import { selectRules } from '../../state/rules';
import { workshopFeature } from '../../state/workshop';
import { download } from '../../ui/download';
import { ChangesTable } from '../../shared/profile/changes-table';
import { ProfileEdit } from '../../shared/profile/edit';

/** Profile files: one out, one in with what it would change before it does, and the rules for browsers' own sanitizers. */
@Component({
  selector: 'ty-files-dialog',
  imports: [MatButtonModule, ChangesTable, MatDialogModule],
  templateUrl: './files-dialog.html',
  styleUrl: './files-dialog.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class FilesDialog {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly dialog = inject<MatDialogRef<FilesDialog>>(MatDialogRef);
  private readonly profileId = this.store.selectSignal(workshopFeature.selectProfileId);
  private readonly documents = this.store.selectSignal(workshopFeature.selectDocuments);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(selectRules);
  protected readonly draft = this.store.selectSignal(workshopFeature.selectDraft);
  protected readonly incoming = signal<{ name: string; document: JsonObject } | null>(null);
  protected readonly failures = signal<readonly string[]>([]);
  protected readonly fileName = computed(() => `${this.profileId() ?? 'profile'}.json`);
  protected readonly sanitizer = computed(() => {
    const [resolved, rules] = [this.resolved(), this.rules()];
    return resolved === null || rules === null ? null : toSanitizerConfig(resolved, rules);
  });

  protected exportProfile(): void {
    download(this.fileName(), 'application/json', `${JSON.stringify(this.draft(), null, 2)}\n`);
  }

  protected exportSanitizer(): void {
    const made = this.sanitizer();
    if (made !== null)
      download(`${this.profileId() ?? 'profile'}.sanitizer.json`, 'application/json', `${JSON.stringify(made.config, null, 2)}\n`);
  }

  protected async read(files: FileList | null): Promise<void> {
    const file = files?.[0];
    const id = this.profileId();
    this.incoming.set(null);
    this.failures.set([]);
    if (file === undefined || id === null) return;
    let document: Json;
    try {
      document = JSON.parse((await file.text()).replace(/^\ufeff/, '')) as Json;
    } catch (error) {
      this.failures.set([`${file.name} is not JSON: ${(error as Error).message}.`]);
      return;
    }
    if (!isObject(document)) {
      this.failures.set([`${file.name} holds no profile: a profile is a JSON object.`]);
      return;
    }
    const documents: Record<string, Json> = { ...this.documents(), [id]: document };
    const resolution = resolveProfile(id, (other) => documents[other]);
    if (resolution.ok) this.incoming.set({ name: file.name, document });
    else
      this.failures.set(
        resolution.problems.map(
          ({ profile, pointer, message }) => `${profile === id ? file.name : profile}${pointer === '' ? '' : ` at ${pointer}`}: ${message}`,
        ),
      );
  }

  protected take(): void {
    const incoming = this.incoming();
    if (incoming === null) return;
    this.edit.replace(incoming.document, `Taking over ${incoming.name}`);
    this.dialog.close();
  }
}
