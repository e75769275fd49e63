import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatSelectModule } from '@angular/material/select';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { SHORTCUTS } from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { selectRules } from '../../state/rules';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';
import { settingOrigin } from '../../shared/profile/origin';

/** Marks that make formatting while the author types, each on or off, and what becomes of narrow toolbars. */
@Component({
  selector: 'ty-typed-marks',
  imports: [MatSelectModule, MatFormFieldModule, MatCheckboxModule],
  template: `
    <p class="intro ty-soft">What authors may type instead of pressing a button. They find the list under “Keyboard help”.</p>
    @for (row of rows(); track row.id) {
      <div class="line" [class.bad]="row.isOn && row.lacks" [attr.data-shortcut]="row.id">
        <mat-checkbox [checked]="row.isOn" (change)="set(row.id, $event.checked)"
          ><code>{{ row.typed }}</code></mat-checkbox
        >
        <span>
          makes {{ row.makes }}
          @if (row.lacks) {
            <span class="lacks">but the rules keep none of {{ row.lacks }}</span>
          }
        </span>
        <span class="from" [class.here]="row.isHere">{{ row.setBy }}</span>
      </div>
    }
    <h2>Where there is no room</h2>
    <div class="line">
      <label for="narrow">Buttons that find no room</label>
      <mat-form-field appearance="outline" subscriptSizing="dynamic"
        ><mat-select id="narrow" aria-label="Buttons that find no room" [value]="narrow()" (valueChange)="setNarrow($event)">
          <mat-option value="wrap">go to the next row</mat-option>
          <mat-option value="more">go under “More”, the last group first</mat-option>
        </mat-select></mat-form-field
      >
      <span class="from"></span>
    </div>
  `,
  styles: `
    :host {
      display: block;
      flex: 1;
      min-height: 0;
      overflow: auto;
      font-size: 13px;
    }
    .intro {
      padding: 10px 20px;
    }
    h2 {
      padding: 16px 20px 6px;
      font: 600 13px/18px var(--ty-serif);
    }
    .line {
      display: grid;
      grid-template-columns: 220px minmax(0, 1fr) 84px;
      align-items: center;
      gap: 12px;
      padding: 4px 16px 4px 20px;
      border-bottom: 1px solid var(--ty-hair);
    }
    label {
      display: flex;
      align-items: center;
      gap: 7px;
    }
    .bad {
      background: var(--ty-rubric-wash);
    }
    .lacks {
      color: var(--ty-rubric);
    }
    .from {
      color: var(--ty-soft);
      font-size: 12px;
    }
    .here {
      color: var(--ty-ink);
      font-weight: 500;
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TypedMarks {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(selectRules);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly narrow = computed(() => this.resolved()?.profile.toolbar.narrow ?? 'wrap');
  protected readonly rows = computed(() => {
    const [resolved, rules] = [this.resolved(), this.rules()];
    if (resolved === null || rules === null) return [];
    return SHORTCUTS.map(({ id, typed, makes, elements }) => {
      const isKept =
        elements.length === 0 ||
        elements.some((element) => rules.element(element).outcome === 'keep' && rules.element(element).name === element);
      return {
        id,
        typed,
        makes,
        isOn: resolved.profile.toolbar.shortcuts[id] === true,
        lacks: isKept ? '' : elements.join(', '),
        ...settingOrigin(resolved, ['toolbar', 'shortcuts', id], this.names()),
      };
    });
  });

  protected set(id: string, isOn: boolean): void {
    this.edit.set(['toolbar', 'shortcuts', id], isOn, `${isOn ? 'Switching on' : 'Switching off'} a mark while typing`);
  }

  protected setNarrow(value: string): void {
    this.edit.set(['toolbar', 'narrow'], value, 'Buttons that find no room');
  }
}
