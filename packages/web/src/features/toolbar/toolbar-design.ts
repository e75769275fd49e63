import { Injectable, computed, inject, signal } from '@angular/core';
import {
  arrangeToolbar,
  BUTTONS,
  buttonOf,
  inheritedToolbar,
  markupOnlyFor,
  mergePatch,
  missingMarkup,
  needInWords,
  patchToAllow,
  patchToTakeBack,
  setToolbar,
  unusedButtons,
  type ArrangedGroup,
  type ButtonId,
  type JsonObject,
} from '@typikon/core';
import { Store } from '@ngrx/store';
import { libraryFeature } from '../../state/library';
import { nameOf } from '../../state/profile-name';
import { selectRules } from '../../state/rules';
import { workshopFeature } from '../../state/workshop';
import { ProfileEdit } from '../../shared/profile/edit';

/** Where a button of the toolbar comes from. */
export type Descent = 'inherited' | 'moved' | 'added' | 'own';

/** The toolbar of the draft, what of it is inherited, and the acts of designing it. Each act is one step that can be undone. */
@Injectable({ providedIn: 'root' })
export class ToolbarDesign {
  private readonly store = inject(Store);
  private readonly edit = inject(ProfileEdit);
  private readonly resolved = this.store.selectSignal(workshopFeature.selectResolved);
  private readonly rules = this.store.selectSignal(selectRules);
  private readonly census = this.store.selectSignal(libraryFeature.selectCensus);
  private readonly profiles = this.store.selectSignal(libraryFeature.selectProfiles);
  /** The button whose details are shown. */
  readonly chosen = signal<ButtonId>('bold');
  /** The group that new buttons go to; empty for the one that fits best. */
  readonly target = signal('');
  /** Counts the drops: dragging moves nodes of the page itself, so what was dragged among is drawn anew. */
  readonly drops = signal(0);
  /** What was done last, for people who do not see it. */
  readonly told = signal('');

  readonly groups = computed((): readonly ArrangedGroup[] => {
    const resolved = this.resolved();
    return resolved === null ? [] : arrangeToolbar(resolved.profile.toolbar);
  });
  readonly options = computed(() => this.resolved()?.profile.toolbar.options ?? null);
  readonly shown = computed(() => this.groups().flatMap(({ buttons }) => buttons));
  readonly parentName = computed(() => {
    const parent = this.resolved()?.chain[1]?.id;
    const profile = this.profiles().find(({ id }) => id === parent);
    return profile === undefined ? '' : nameOf(profile);
  });
  private readonly inherited = computed(() => {
    const resolved = this.resolved();
    const toolbar = resolved === null ? null : inheritedToolbar(resolved.chain);
    return toolbar === null
      ? null
      : new Map(arrangeToolbar(toolbar).flatMap(({ id, buttons }) => buttons.map((button) => [button, id] as const)));
  });
  /** The buttons that the parent has and this profile took away. */
  readonly takenOff = computed((): ReadonlySet<ButtonId> => {
    const shown = new Set(this.shown());
    return new Set([...(this.inherited()?.keys() ?? [])].filter((id) => !shown.has(id)));
  });
  /** What the rules lack for each button, in words; empty where they lack nothing. */
  readonly lacks = computed((): ReadonlyMap<ButtonId, string> => {
    const [rules, options] = [this.rules(), this.options()];
    if (rules === null || options === null) return new Map();
    return new Map(BUTTONS.map((button) => [button.id, missingMarkup(button, rules, options).map(needInWords).join(', ')]));
  });
  /** Whether the house limits or the safety floor take what a button makes, so that no rule of the profile can allow it. */
  readonly capped = computed((): ReadonlySet<ButtonId> => {
    const [rules, options] = [this.rules(), this.options()];
    if (rules === null || options === null) return new Set();
    const isAbove = (layer: string): boolean => layer === 'house-limits' || layer === 'safety-floor';
    return new Set(
      BUTTONS.filter((button) =>
        missingMarkup(button, rules, options).some(({ element, attribute }) => {
          const rule = rules.element(element);
          return (
            isAbove(rule.by.layer) || (attribute !== undefined && rule.outcome === 'keep' && isAbove(rule.otherAttributes(attribute).layer))
          );
        }),
      ).map(({ id }) => id),
    );
  });
  readonly documents = computed(() => this.census()?.documents ?? 0);
  readonly unused = computed((): ReadonlySet<ButtonId> => (this.documents() === 0 ? new Set() : unusedButtons(this.census()!.elements)));

  descentOf(id: ButtonId): Descent {
    const inherited = this.inherited();
    if (inherited === null) return 'own';
    const was = inherited.get(id);
    return was === undefined ? 'added' : was === this.groupOf(id)?.id ? 'inherited' : 'moved';
  }

  groupOf(id: ButtonId): ArrangedGroup | undefined {
    return this.groups().find(({ buttons }) => buttons.includes(id));
  }

  /** Puts a button on the toolbar, and where asked lets the rules keep what it makes. */
  putOn(id: ButtonId, { group, at, alsoAllow = false }: { group?: string; at?: number; alsoAllow?: boolean } = {}): void {
    const groups = this.groups();
    const place = group ?? this.bestGroup(id);
    const next =
      groups.length === 0
        ? [{ id: 'buttons', label: 'Buttons', buttons: [id], newRow: false, inMore: false }]
        : groups.map((one) => {
            const rest = one.buttons.filter((other) => other !== id);
            return { ...one, buttons: one.id === place ? rest.toSpliced(at ?? rest.length, 0, id) : rest };
          });
    const { label } = buttonOf(id);
    this.apply(
      next,
      alsoAllow ? `Putting ${label} on the toolbar and allowing what it makes` : `Putting ${label} on the toolbar`,
      alsoAllow ? this.patchFor(id) : null,
    );
    this.told.set(`${label} is on the toolbar, in ${next.find(({ buttons }) => buttons.includes(id))?.label ?? ''}.`);
  }

  /** Takes a button off, and where asked lets the rules take what nothing else needs. */
  takeOff(id: ButtonId, alsoTakeBack = false): void {
    const { label } = buttonOf(id);
    const only = alsoTakeBack ? this.onlyFor(id) : [];
    const next = this.groups().map((one) => ({ ...one, buttons: one.buttons.filter((other) => other !== id) }));
    this.apply(next, `Taking ${label} off the toolbar`, only.length === 0 ? null : patchToTakeBack(only));
    this.told.set(`${label} is off the toolbar.`);
  }

  /** The elements that the rules keep for a button alone. */
  onlyFor(id: ButtonId): string[] {
    const [resolved, rules] = [this.resolved(), this.rules()];
    return resolved === null || rules === null ? [] : markupOnlyFor(id, this.shown(), resolved, rules);
  }

  /** Lets the rules keep what a button makes. */
  allow(id: ButtonId): void {
    const patch = this.patchFor(id);
    if (patch !== null) this.edit.patch(patch, `Allowing what ${buttonOf(id).label} makes`);
  }

  /** Moves a button by one place, into the neighbouring group at the end of its own. */
  step(id: ButtonId, by: -1 | 1): void {
    const groups = this.groups();
    const at = groups.findIndex(({ buttons }) => buttons.includes(id));
    const own = groups[at];
    if (own === undefined) return;
    const index = own.buttons.indexOf(id);
    if (index + by >= 0 && index + by < own.buttons.length) this.moveTo(id, own.id, index + by);
    else {
      const neighbour = groups[at + by];
      if (neighbour !== undefined) this.moveTo(id, neighbour.id, by === 1 ? 0 : neighbour.buttons.length);
    }
  }

  /** Whether a button can be moved by one place. */
  canStep(id: ButtonId, by: -1 | 1): boolean {
    const groups = this.groups();
    const edge = by === -1 ? groups[0] : groups.at(-1);
    const own = this.groupOf(id);
    return own !== undefined && (own.id !== edge?.id || own.buttons.indexOf(id) !== (by === -1 ? 0 : own.buttons.length - 1));
  }

  moveTo(id: ButtonId, group: string, at: number): void {
    const next = this.groups().map((one) => {
      const rest = one.buttons.filter((other) => other !== id);
      return { ...one, buttons: one.id === group ? rest.toSpliced(at, 0, id) : rest };
    });
    this.apply(next, `Moving ${buttonOf(id).label}`);
    const now = next.find((one) => one.id === group);
    this.told.set(
      `${buttonOf(id).label} is number ${(now?.buttons.indexOf(id) ?? 0) + 1} of ${now?.buttons.length ?? 0} in ${now?.label ?? ''}.`,
    );
  }

  addGroup(label: string): void {
    const groups = this.groups();
    const taken = new Set([...groups.map(({ id }) => id), ...Object.keys(this.resolved()?.profile.toolbar.groups ?? {})]);
    const base =
      label
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .replace(/^[^a-z]+|-+$/g, '') || 'group';
    let id = base;
    for (let n = 2; taken.has(id); n++) id = `${base}-${n}`;
    this.apply([...groups, { id, label, buttons: [], newRow: false, inMore: false }], `Adding the group ${label}`);
    this.target.set(id);
    this.told.set(`The group ${label} is there; it is empty.`);
  }

  changeGroup(id: string, change: Partial<Pick<ArrangedGroup, 'label' | 'newRow' | 'inMore'>>): void {
    const group = this.groups().find((one) => one.id === id);
    if (group === undefined) return;
    this.apply(
      this.groups().map((one) => (one.id === id ? { ...one, ...change } : one)),
      `Changing the group ${group.label}`,
    );
  }

  moveGroup(id: string, by: -1 | 1): void {
    const groups = [...this.groups()];
    const at = groups.findIndex((one) => one.id === id);
    const other = groups[at + by];
    if (at < 0 || other === undefined) return;
    [groups[at], groups[at + by]] = [other, groups[at]!];
    this.apply(groups, `Moving the group ${groups[at + by]!.label}`);
    this.told.set(`The group ${groups[at + by]!.label} is number ${at + by + 1} of ${groups.length}.`);
  }

  removeGroup(id: string): void {
    const group = this.groups().find((one) => one.id === id);
    if (group === undefined) return;
    this.apply(
      this.groups().filter((one) => one.id !== id),
      `Removing the group ${group.label}`,
    );
    this.told.set(`The group ${group.label} is gone, with its buttons.`);
  }

  /** Lets the parent's toolbar hold again, all of it. */
  followParent(): void {
    const document = this.resolved()?.chain[0]?.document;
    const { toolbar, ...rest } = document ?? {};
    if (toolbar === undefined) return;
    const { options, shortcuts, narrow } = toolbar as JsonObject;
    const kept = Object.fromEntries(
      Object.entries({ options, shortcuts, narrow }).filter(([, value]) => value !== undefined),
    ) as JsonObject;
    this.edit.replace(Object.keys(kept).length === 0 ? rest : { ...rest, toolbar: kept }, 'Following the parent: toolbar');
  }

  /** Whether this profile's own document says anything of groups or buttons. */
  readonly hasOwn = computed(() => {
    const resolved = this.resolved();
    const toolbar = resolved?.chain[0]?.document['toolbar'] as JsonObject | undefined;
    return resolved !== null && resolved.chain.length > 1 && ['order', 'groups', 'changes'].some((key) => toolbar?.[key] !== undefined);
  });

  private patchFor(id: ButtonId): JsonObject | null {
    const [resolved, rules, options] = [this.resolved(), this.rules(), this.options()];
    if (resolved === null || rules === null || options === null) return null;
    const missing = missingMarkup(buttonOf(id), rules, options);
    return missing.length === 0 ? null : patchToAllow(missing, resolved);
  }

  private apply(groups: readonly ArrangedGroup[], label: string, patch: JsonObject | null = null): void {
    const resolved = this.resolved();
    if (resolved === null) return;
    const document = setToolbar(resolved.chain, groups);
    this.edit.replace(patch === null ? document : (mergePatch(document, patch) as JsonObject), label);
  }

  /** The chosen group, else the one with the button's nearest kin. */
  private bestGroup(id: ButtonId): string {
    const groups = this.groups();
    if (groups.some((group) => group.id === this.target())) return this.target();
    const place = BUTTONS.findIndex((button) => button.id === id);
    const { purpose } = buttonOf(id);
    const nearest = groups
      .flatMap((group) =>
        group.buttons.map((button) => ({
          group: group.id,
          distance: Math.abs(BUTTONS.findIndex((other) => other.id === button) - place) + (buttonOf(button).purpose === purpose ? 0 : 100),
        })),
      )
      .sort((a, b) => a.distance - b.distance);
    return nearest[0]?.group ?? groups[0]?.id ?? '';
  }
}
