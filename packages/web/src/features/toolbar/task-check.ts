import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatButtonModule } from '@angular/material/button';
import { MatTableModule } from '@angular/material/table';
import { AUTHOR_TASKS, buttonOf, tryTasks, type ButtonId } from '@typikon/core';
import { Store } from '@ngrx/store';
import { selectRules } from '../../state/rules';
import { workshopFeature } from '../../state/workshop';
import { ToolbarDesign } from './toolbar-design';

/** Asks what authors must be able to do, and tells whether and how this toolbar lets them. */
@Component({
  selector: 'ty-task-check',
  imports: [MatButtonModule, MatCheckboxModule, MatTableModule],
  templateUrl: './task-check.html',
  styleUrl: './task-check.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class TaskCheck {
  private readonly store = inject(Store);
  protected readonly design = inject(ToolbarDesign);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(selectRules);
  protected readonly asked = signal<readonly string[]>(['heading', 'list', 'link', 'picture', 'table']);
  private readonly result = computed(() => {
    const [resolved, rules] = [this.resolved(), this.rules()];
    return resolved === null || rules === null ? null : tryTasks(resolved.profile.toolbar, rules, this.asked());
  });
  protected readonly rows = computed(() => {
    const answers = this.result()?.answers ?? [];
    return AUTHOR_TASKS.map((task) => {
      const answer = answers.find((one) => one.task.id === task.id);
      const way = answer?.way ?? null;
      return {
        ...task,
        isAsked: answer !== undefined,
        isMet: way !== null,
        how: way === null ? '' : way.kind === 'typed' ? `typed: ${way.label}` : `“${way.label}”`,
        acts: way === null ? '' : way.acts === 1 ? 'one act' : `${way.acts} acts`,
        why: answer?.why ?? '',
        helper: way === null && answer !== undefined ? task.buttons[0]! : null,
      };
    });
  });
  protected readonly unasked = computed(() => (this.result()?.unasked ?? []).map((id) => ({ id, label: buttonOf(id).label })));
  protected readonly met = computed(() => this.rows().filter(({ isAsked, isMet }) => isAsked && isMet).length);

  protected readonly columns = ['task', 'how', 'takes'];
  protected readonly same = (_: number, { id }: { id: string }): string => id;

  protected ask(id: string, isAsked: boolean): void {
    this.asked.update((asked) => (isAsked ? [...asked, id] : asked.filter((one) => one !== id)));
  }

  /** Puts the button on the toolbar that does a task, with what the rules lack for it. */
  protected enable(id: ButtonId): void {
    const isShown = this.design.shown().includes(id);
    if (isShown) this.design.allow(id);
    else this.design.putOn(id, { alsoAllow: true });
  }

  protected labelOf(id: ButtonId): string {
    return buttonOf(id).label;
  }
}
