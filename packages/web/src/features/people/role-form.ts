import { ChangeDetectionStrategy, Component, effect, inject, input, output, untracked } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { NonNullableFormBuilder, ReactiveFormsModule } from '@angular/forms';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { RIGHTS, siteRoleSchema, type SiteRole } from '@typikon/core';
import { RIGHT_WORDS } from './right-words';

/** What a role is called, and what it lets somebody do. */
@Component({
  selector: 'ty-role-form',
  imports: [MatCheckboxModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <form [formGroup]="form" (submit)="$event.preventDefault()">
      <label [for]="'role-label-' + role().id">Name</label>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <input matInput [id]="'role-label-' + role().id" formControlName="label" autocomplete="off" />
        <mat-error>It needs a name of at most 120 letters.</mat-error>
      </mat-form-field>
      <label [for]="'role-description-' + role().id">Who that is</label>
      <mat-form-field appearance="outline" subscriptSizing="dynamic">
        <textarea matInput [id]="'role-description-' + role().id" formControlName="description" rows="2"></textarea>
        <mat-error>At most 500 letters.</mat-error>
      </mat-form-field>
      <span class="label" [id]="'role-rights-' + role().id">It may</span>
      <div class="rights" role="group" [attr.aria-labelledby]="'role-rights-' + role().id" formGroupName="rights">
        @for (right of rights; track right) {
          <mat-checkbox [formControlName]="right">{{ words[right] }}</mat-checkbox>
        }
      </div>
    </form>
  `,
  styles: `
    form {
      display: grid;
      grid-template-columns: 92px minmax(0, 1fr);
      align-items: baseline;
      gap: 8px;
    }
    label,
    .label {
      color: var(--ty-soft);
      font-size: 12.5px;
    }
    .rights {
      display: grid;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class RoleForm {
  readonly role = input.required<SiteRole>();
  readonly changed = output<SiteRole>();
  protected readonly rights = RIGHTS;
  protected readonly words = RIGHT_WORDS;
  private readonly build = inject(NonNullableFormBuilder);
  protected readonly form = this.build.group({
    label: '',
    description: '',
    rights: this.build.group({ read: false, write: false, design: false, administer: false }),
  });

  constructor() {
    effect(() => {
      const role = this.role();
      untracked(() => this.show(role));
    });
    this.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => this.take());
  }

  private show(role: SiteRole): void {
    const written = this.written();
    // What is being typed is not written over by what it came to.
    if (written.success && JSON.stringify(written.data) === JSON.stringify(role)) return;
    const rights = Object.fromEntries(RIGHTS.map((right) => [right, role.rights.includes(right)]));
    this.form.patchValue({ label: role.label, description: role.description, rights }, { emitEvent: false });
  }

  private written(): ReturnType<typeof siteRoleSchema.safeParse> {
    const { label, description, rights } = this.form.getRawValue();
    return siteRoleSchema.safeParse({ id: this.role().id, label, description, rights: RIGHTS.filter((right) => rights[right]) });
  }

  private take(): void {
    const written = this.written();
    const { label, description } = this.form.controls;
    for (const control of [label, description]) control.setErrors(null);
    if (written.success) return this.changed.emit(written.data);
    for (const { path } of written.error.issues) {
      const control = path[0] === 'description' ? description : label;
      control.setErrors({ said: true });
      control.markAsTouched();
    }
  }
}
