import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { Acting } from '../../state/acting';

/** The badge of whoever acts; another one can be put on. */
@Component({
  selector: 'ty-name-badge',
  imports: [MatButtonModule, MatMenuModule],
  template: `
    @if (acting.person(); as person) {
      <button mat-button type="button" class="badge ty-plain" [matMenuTriggerFor]="menu">
        <span class="hole" aria-hidden="true"></span>
        <span class="name">{{ person.label }}</span>
        <span class="role">{{ role() }}</span>
        <span class="ty-unseen"> acts. Choose who does.</span>
      </button>
      <mat-menu #menu="matMenu">
        @for (one of acting.people(); track one.id) {
          <button
            mat-menu-item
            type="button"
            role="menuitemradio"
            [attr.aria-checked]="one.id === person.id"
            (click)="acting.choose(one.id)"
          >
            {{ one.label }}<span class="ty-soft">&nbsp; {{ rolesOf(one) }}</span>
          </button>
        }
      </mat-menu>
    }
  `,
  styles: `
    .badge {
      display: grid;
      justify-content: center;
      justify-items: center;
      text-align: center;
      gap: 1px;
      width: 68px;
      margin: 0 auto 12px;
      padding: 4px 2px 6px;
      overflow-wrap: anywhere;
      border: 1px solid var(--ty-line);
      border-radius: 3px;
      background: var(--ty-sheet);
      color: var(--ty-ink);
      font: 11px/14px var(--ty-sans);
      cursor: pointer;
    }
    .badge:hover {
      border-color: var(--ty-field);
    }
    .hole {
      width: 14px;
      height: 3px;
      margin-bottom: 2px;
      border-radius: 2px;
      background: var(--ty-line);
    }
    .name {
      font-weight: 600;
    }
    .role {
      font-size: 10.5px;
      color: var(--ty-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class NameBadge {
  protected readonly acting = inject(Acting);
  protected readonly role = computed(() => this.acting.person()?.roles[0]?.label ?? '');

  protected rolesOf({ roles }: { roles: readonly { label: string }[] }): string {
    return roles.map(({ label }) => label).join(', ');
  }
}
