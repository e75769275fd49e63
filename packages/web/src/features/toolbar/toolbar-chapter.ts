import { CdkDrag, CdkDropList, CdkDropListGroup, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { BUTTONS, PURPOSES, type ButtonId, type Purpose } from '@typikon/core';
import { EDITOR_BUTTONS } from '@typikon/editor';
import { Icon } from '../../ui/icon';
import { ButtonDetails } from './button-details';
import { TaskCheck } from './task-check';
import { ToolbarBoard } from './toolbar-board';
import { ToolbarDesign } from './toolbar-design';
import { TypedMarks } from './typed-marks';
import { inAddress } from '../../ui/in-address';

const PARTS = [
  { id: 'buttons', label: 'Buttons' },
  { id: 'tasks', label: 'What authors must do' },
  { id: 'marks', label: 'Marks while typing' },
] as const;
type Part = (typeof PARTS)[number]['id'];

/** §1 Toolbar: which buttons authors have, in which groups, rows and order, what they need, and what they let authors do. */
@Component({
  selector: 'ty-toolbar-chapter',
  imports: [
    MatButtonModule,
    MatCheckboxModule,
    MatInputModule,
    MatFormFieldModule,
    ButtonDetails,
    CdkDrag,
    CdkDropList,
    CdkDropListGroup,
    Icon,
    TaskCheck,
    ToolbarBoard,
    TypedMarks,
  ],
  templateUrl: './toolbar-chapter.html',
  styleUrl: './toolbar-chapter.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToolbarChapter {
  protected readonly design = inject(ToolbarDesign);
  protected readonly parts = PARTS;
  protected readonly part = signal<Part>('buttons');
  protected readonly query = inAddress('button');
  protected readonly total = BUTTONS.length;
  protected readonly purposes = computed(() => {
    const words = this.query()
      .toLowerCase()
      .split(/\s+/)
      .filter((word) => word !== '');
    const shown = new Set(this.design.shown());
    return (Object.entries(PURPOSES) as [Purpose, string][])
      .map(([id, label]) => ({
        id,
        label,
        buttons: BUTTONS.filter(
          (button) =>
            button.purpose === id &&
            words.every((word) => `${button.label} ${button.effect} ${button.makes ?? ''}`.toLowerCase().includes(word)),
        ).map((button) => ({
          id: button.id,
          key: `${this.design.drops()} ${button.id}`,
          label: button.label,
          icon: EDITOR_BUTTONS.get(button.id)!.icon,
          isOn: shown.has(button.id),
          state: this.stateOf(button.id, shown.has(button.id)),
          lacks: this.design.lacks().get(button.id) ?? '',
        })),
      }))
      .filter(({ buttons }) => buttons.length > 0);
  });

  protected choose(id: ButtonId): void {
    this.design.chosen.set(id);
  }

  /** Enter puts a button on or takes it off; what it is about is told beside it. */
  protected toggle(id: ButtonId): void {
    this.choose(id);
    if (this.design.shown().includes(id)) this.design.takeOff(id);
    else this.design.putOn(id);
  }

  /** A button that is dragged back to the list is off. */
  protected returned({ item }: CdkDragDrop<unknown, unknown, ButtonId>): void {
    this.design.drops.update((count) => count + 1);
    if (this.design.shown().includes(item.data)) this.design.takeOff(item.data);
  }

  private stateOf(id: ButtonId, isOn: boolean): string {
    if (isOn) return this.design.groupOf(id)?.label ?? '';
    if (this.design.takenOff().has(id)) return `off here; ${this.design.parentName()} has it`;
    return 'off';
  }
}
