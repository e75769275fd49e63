import { CdkDrag, CdkDragHandle, CdkDropList, CdkDropListGroup, moveItemInArray, type CdkDragDrop } from '@angular/cdk/drag-drop';
import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { BUTTONS, buttonOf, missingMarkup, originOf, patchToAllow, toPointer, type ButtonId } from '@typikon/core';
import { EDITOR_BUTTONS, keyLabel } from '@typikon/editor';
import { Store } from '@ngrx/store';
import { ArrowDown, ArrowUp, GripVertical } from 'lucide';
import { libraryFeature } from '../../state/library';
import { workshopFeature } from '../../state/workshop';
import { Icon } from '../../ui/icon';
import { ProfileEdit } from './edit';

/** §1 Toolbar: which buttons authors have, in which groups and order; a button whose markup is removed says so in its place. */
@Component({
  selector: 'ty-toolbar-chapter',
  imports: [CdkDrag, CdkDragHandle, CdkDropList, CdkDropListGroup, Icon, MatCheckboxModule],
  templateUrl: './toolbar-chapter.html',
  styleUrl: './toolbar-chapter.scss',
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class ToolbarChapter {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(workshopFeature.selectRules);
  private readonly findings = this.store.selectSignal(workshopFeature.selectFindings);
  private readonly names = this.store.selectSignal(libraryFeature.selectNames);
  protected readonly icons = { up: ArrowUp, down: ArrowDown, grip: GripVertical };

  protected readonly groups = computed(() => {
    const resolved = this.resolved();
    if (resolved === null) return [];
    const { order, groups } = resolved.profile.toolbar;
    return order.flatMap((id) => {
      const group = groups[id];
      if (group === undefined) return [];
      return [
        {
          id,
          label: group.label,
          setBy: this.setBy(toPointer(['toolbar', 'groups', id, 'buttons'])),
          buttons: group.buttons.map((button) => this.row(button)),
        },
      ];
    });
  });

  /** The buttons that are on no shown group. */
  protected readonly rest = computed(() => {
    const used = new Set(this.groups().flatMap(({ buttons }) => buttons.map(({ id }) => id)));
    return BUTTONS.filter(({ id }) => !used.has(id as ButtonId)).map(({ id }) => this.row(id as ButtonId));
  });

  protected readonly shown = computed(() => this.groups().reduce((sum, { buttons }) => sum + buttons.length, 0));

  protected isFirst(group: string): boolean {
    return this.groups()[0]?.id === group;
  }

  protected isLast(group: string): boolean {
    return this.groups().at(-1)?.id === group;
  }

  protected toggle(id: ButtonId, isOn: boolean): void {
    const { label } = buttonOf(id);
    if (!isOn) {
      for (const group of this.groups())
        if (group.buttons.some((button) => button.id === id))
          this.setButtons(
            group.id,
            group.buttons.map((button) => button.id).filter((other) => other !== id),
            `Taking ${label} off the toolbar`,
          );
      return;
    }
    const group = this.groupFor(id);
    if (group === null) {
      this.edit.patch(
        { toolbar: { order: ['words'], groups: { words: { label: 'Words', buttons: [id] } } } },
        `Putting ${label} on the toolbar`,
      );
      return;
    }
    this.setButtons(group.id, [...group.buttons.map((button) => button.id), id], `Putting ${label} on the toolbar`);
  }

  protected move(groupId: string, index: number, by: -1 | 1): void {
    const groups = this.groups();
    const at = groups.findIndex(({ id }) => id === groupId);
    const buttons = groups[at]!.buttons.map(({ id }) => id);
    const id = buttons[index]!;
    const to = index + by;
    if (to >= 0 && to < buttons.length) {
      moveItemInArray(buttons, index, to);
      this.setButtons(groupId, buttons, `Moving ${buttonOf(id).label}`);
      return;
    }
    const neighbour = groups[at + by];
    if (neighbour === undefined) return;
    const others = neighbour.buttons.map((button) => button.id);
    this.moveBetween(
      groupId,
      buttons.filter((other) => other !== id),
      neighbour.id,
      by === 1 ? [id, ...others] : [...others, id],
      id,
    );
  }

  protected drop({ previousContainer, container, previousIndex, currentIndex }: CdkDragDrop<string>): void {
    const buttonsOf = (groupId: string): ButtonId[] =>
      this.groups()
        .find(({ id }) => id === groupId)
        ?.buttons.map(({ id }) => id) ?? [];
    const from = buttonsOf(previousContainer.data);
    const id = from[previousIndex];
    if (id === undefined) return;
    if (previousContainer === container) {
      moveItemInArray(from, previousIndex, currentIndex);
      this.setButtons(container.data, from, `Moving ${buttonOf(id).label}`);
      return;
    }
    from.splice(previousIndex, 1);
    const to = buttonsOf(container.data);
    to.splice(currentIndex, 0, id);
    this.moveBetween(previousContainer.data, from, container.data, to, id);
  }

  protected allow(id: ButtonId): void {
    const rules = this.rules();
    if (rules === null) return;
    this.edit.patch(patchToAllow(missingMarkup(buttonOf(id), rules)), `Allowing what ${buttonOf(id).label} makes`);
  }

  protected reset(groupId: string): void {
    this.edit.reset(['toolbar', 'groups', groupId, 'buttons'], 'Following the parent again');
  }

  private moveBetween(fromGroup: string, from: ButtonId[], toGroup: string, to: ButtonId[], id: ButtonId): void {
    this.edit.patch(
      { toolbar: { groups: { [fromGroup]: { buttons: from }, [toGroup]: { buttons: to } } } },
      `Moving ${buttonOf(id).label}`,
    );
  }

  private setButtons(group: string, buttons: ButtonId[], label: string): void {
    this.edit.set(['toolbar', 'groups', group, 'buttons'], buttons, label);
  }

  /** Where a button goes that is switched on: beside its kin, as the first profile that has it places it, else at the end of the first group. */
  private groupFor(id: ButtonId) {
    const groups = this.groups();
    const place = BUTTONS.findIndex((button) => button.id === id);
    const byNearness = groups
      .flatMap((group) =>
        group.buttons.map((button) => ({ group, distance: Math.abs(BUTTONS.findIndex((other) => other.id === button.id) - place) })),
      )
      .sort((a, b) => a.distance - b.distance);
    return byNearness[0]?.group ?? groups[0] ?? null;
  }

  private row(id: ButtonId) {
    const declaration = buttonOf(id);
    const rules = this.rules();
    const missing = rules === null ? [] : missingMarkup(declaration, rules);
    const finding = this.findings().find(({ sentence }) => sentence.includes(`“${declaration.label}”`));
    return {
      id,
      label: declaration.label,
      effect: declaration.effect,
      makes: declaration.makes,
      key: declaration.key === null ? '' : keyLabel(declaration.key),
      icon: EDITOR_BUTTONS.get(id)!.icon,
      missing: missing.map(({ element, attribute }) => (attribute === undefined ? element : `${attribute} on ${element}`)).join(', '),
      isCapped: finding !== undefined && finding.fix === undefined,
      finding,
    };
  }

  private setBy(pointer: string): { name: string; isHere: boolean; isInherited: boolean } {
    const resolved = this.resolved()!;
    const origin = originOf(resolved.chain, pointer);
    const isHere = origin === resolved.id;
    const name = origin === undefined ? 'default' : (this.names().get(origin) ?? origin);
    return {
      name: isHere ? 'here' : name,
      isHere,
      isInherited: isHere && resolved.chain.slice(1).some(({ document }) => originOf([{ id: 'it', document }], pointer) !== undefined),
    };
  }
}
