import { CdkDrag, CdkDropList, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { afterNextRender, ChangeDetectionStrategy, Component, computed, ElementRef, inject, Injector, signal } from '@angular/core';
import { MatInputModule } from '@angular/material/input';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatButtonModule } from '@angular/material/button';
import { MatDividerModule } from '@angular/material/divider';
import { MatMenuModule } from '@angular/material/menu';
import type { ButtonId } from '@typikon/core';
import { buttonOf } from '@typikon/core/settings';
import { EDITOR_BUTTONS } from '@typikon/editor';
import { Ellipsis } from 'lucide';
import { Icon } from '../../ui/icon';
import { ToolbarDesign } from './toolbar-design';

/** The toolbar as it is designed: groups side by side, buttons that are dragged or moved by keys. */
@Component({
  selector: 'ty-toolbar-board',
  imports: [MatInputModule, MatFormFieldModule, MatButtonModule, MatDividerModule, MatMenuModule, CdkDrag, CdkDropList, Icon],
  templateUrl: './toolbar-board.html',
  styleUrl: './toolbar-board.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToolbarBoard {
  protected readonly design = inject(ToolbarDesign);
  private readonly host = inject<ElementRef<HTMLElement>>(ElementRef);
  private readonly injector = inject(Injector);
  protected readonly icons = { more: Ellipsis };
  /** The button that Tab leads to. */
  private readonly stop = signal<ButtonId | null>(null);
  protected readonly newLabel = signal('');
  protected readonly groups = computed(() => {
    const stop = this.stop();
    const shown = this.design.shown();
    const current = stop !== null && shown.includes(stop) ? stop : shown[0];
    return this.design.groups().map((group) => ({
      ...group,
      tiles: group.buttons.map((id) => ({
        id,
        key: `${this.design.drops()} ${id}`,
        label: buttonOf(id).label,
        icon: EDITOR_BUTTONS.get(id)!.icon,
        lacks: this.design.lacks().get(id) ?? '',
        isUnused: this.design.unused().has(id),
        descent: this.design.descentOf(id),
        tabIndex: id === current ? 0 : -1,
      })),
    }));
  });

  protected title(tile: { label: string; lacks: string; isUnused: boolean; descent: string }): string {
    const parts = [
      tile.label,
      tile.lacks === '' ? '' : `the rules remove ${tile.lacks}`,
      tile.isUnused ? 'in none of the stored documents' : '',
      tile.descent === 'own'
        ? ''
        : tile.descent === 'inherited'
          ? `from ${this.design.parentName()}`
          : tile.descent === 'moved'
            ? 'moved here'
            : 'added here',
    ];
    return parts.filter((part) => part !== '').join('; ');
  }

  protected choose(id: ButtonId): void {
    this.design.chosen.set(id);
    this.stop.set(id);
  }

  protected dropped({ container, item, currentIndex }: CdkDragDrop<string, unknown, ButtonId>): void {
    this.choose(item.data);
    this.design.drops.update((count) => count + 1);
    if (this.design.shown().includes(item.data)) this.design.moveTo(item.data, container.data, currentIndex);
    else this.design.putOn(item.data, { group: container.data, at: currentIndex });
  }

  /** Arrows go from button to button; with Alt they move it; Delete takes it off. */
  protected key(event: KeyboardEvent, id: ButtonId): void {
    const shown = this.design.shown();
    const at = shown.indexOf(id);
    const by = event.key === 'ArrowRight' || event.key === 'ArrowDown' ? 1 : event.key === 'ArrowLeft' || event.key === 'ArrowUp' ? -1 : 0;
    let next: ButtonId | undefined = id;
    if (by !== 0 && (event.altKey || event.ctrlKey)) this.design.step(id, by);
    else if (by !== 0) next = shown[(at + by + shown.length) % shown.length];
    else if (event.key === 'Home') next = shown[0];
    else if (event.key === 'End') next = shown.at(-1);
    else if (event.key === 'Delete' || event.key === 'Backspace') {
      next = shown[at + 1] ?? shown[at - 1];
      this.design.takeOff(id);
    } else return;
    event.preventDefault();
    if (next === undefined) return;
    this.choose(next);
    const wanted = next;
    const focus = (): void => this.host.nativeElement.querySelector<HTMLElement>(`[data-tile="${wanted}"]`)?.focus();
    focus();
    // What was moved is drawn anew and takes the focus with it, unless the next key has led on already.
    clearTimeout(this.refocus);
    this.refocus = setTimeout(focus);
  }
  private refocus: ReturnType<typeof setTimeout> | undefined;

  /** Takes a group off; what is next has the focus then. */
  protected remove(id: string, place: number): void {
    this.design.removeGroup(id);
    afterNextRender(
      () => {
        const left = this.host.nativeElement.querySelectorAll<HTMLElement>('.acts');
        (left[Math.min(place, left.length - 1)] ?? this.host.nativeElement.querySelector<HTMLElement>('#new-group'))?.focus();
      },
      { injector: this.injector },
    );
  }

  protected rename(id: string, field: HTMLInputElement): void {
    const label = field.value.trim();
    if (label === '') field.value = this.design.groups().find((group) => group.id === id)?.label ?? '';
    else this.design.changeGroup(id, { label });
  }

  protected add(field: HTMLInputElement): void {
    const label = field.value.trim();
    if (label === '') {
      field.focus();
      return;
    }
    this.design.addGroup(label);
    field.value = '';
  }
}
