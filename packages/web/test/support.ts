import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { provideHttpClient } from '@angular/common/http';
import { HttpTestingController, provideHttpClientTesting } from '@angular/common/http/testing';
import { getDebugNode, provideZonelessChangeDetection, type Type } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatSelect } from '@angular/material/select';
import { provideRouter } from '@angular/router';
import {
  clean,
  compileRules,
  measure,
  parseFragment,
  runPaste,
  specimenSchema,
  takeCensus,
  withContent,
  type Finding,
  type HouseLimits,
  type Json,
  type JsonObject,
  type PageKind,
  type Site,
} from '@typikon/core';
import { provideEffects } from '@ngrx/effects';
import { provideStore, Store } from '@ngrx/store';
import { ProfileEdit } from '../src/shared/profile/edit';
import { BenchActions, benchFeature, readPayload } from '../src/state/bench';
import { LibraryActions, libraryFeature, readEditions, readShared } from '../src/state/library';
import { findingsOf } from '../src/state/profile-findings';
import { PROOF_WORKER } from '../src/state/proof-runner';
import { sumUpRules } from '../src/state/rules-summary';
import { InPageWorker } from './in-page-worker';
import type { Edition, Library, Proof, Role, SharedEdition, Specimen, StoredCensus, StoredProfile } from '../src/state/types';
import { workshopFeature } from '../src/state/workshop';
import { WorkshopActions } from '../src/state/workshop.actions';

const DEMO = join(__dirname, '..', '..', '..', 'demo');
const json = (...path: string[]): unknown => JSON.parse(readFileSync(join(DEMO, ...path), 'utf8'));

/** The demo, as the server would hand it over. */
export function demoLibrary(): Library {
  const profiles = readdirSync(join(DEMO, 'profiles'))
    .sort()
    .map((file): StoredProfile => ({
      id: file.replace('.json', ''),
      document: json('profiles', file) as JsonObject,
      revision: 1,
      createdAt: '2026-01-02T09:00:00.000Z',
      updatedAt: '2026-01-02T09:00:00.000Z',
    }));
  const specimens = (json('specimens', 'order.json') as string[]).map((id): Specimen => {
    const document = withContent(json('specimens', `${id}.specimen.json`) as JsonObject, (name) =>
      readFileSync(join(DEMO, 'specimens', name), 'utf8'),
    );
    const { format: _format, profile, ...specimen } = specimenSchema.parse(document);
    return { ...specimen, id, profileId: profile, revision: 1 };
  });
  return {
    profiles,
    editions: profiles.map(({ id, document }): Edition => {
      const chain = [{ id, document }];
      for (let at = document['extends']; typeof at === 'string'; at = chain.at(-1)!.document['extends'])
        chain.push({ id: at, document: profiles.find((one) => one.id === at)!.document });
      return { profile: id, number: 1, releasedAt: '2026-01-02T09:00:00.000Z', chain };
    }),
    specimens,
    stylesheets: (json('stylesheets.json') as { id: string; purpose: string; media?: string }[]).map((sheet) => ({
      media: '',
      ...sheet,
      revision: 1,
      css: readFileSync(join(DEMO, 'stylesheets', `${sheet.id}.css`), 'utf8'),
    })),
    pageKinds: (json('page-kinds.json') as PageKind[]).map((kind) => ({ ...kind, revision: 1 })),
    texts: [],
    shared: [houseEdition(json('house-limits.json') as JsonObject), pagesEdition()],
    pagesRevision: 1,
    house: json('house-limits.json') as HouseLimits,
    houseRevision: 1,
    roles: (json('site.json') as Site).roles.map(({ id, label }): Role => ({ id, name: label })),
    siteOrigin: 'http://localhost:4711',
  };
}

/** An edition of something that the whole site has once. */
const sharedEdition = (part: SharedEdition['part'], document: JsonObject, number: number): SharedEdition => ({
  part,
  number,
  document,
  releasedAt: '2026-01-02T09:00:00.000Z',
  releasedBy: '',
  note: '',
  fromRevision: number,
  backTo: null,
  reach: null,
  accepted: [],
});

export const houseEdition = (document: JsonObject, number = 1): SharedEdition => sharedEdition('house-limits', document, number);

/** Page kinds and stylesheets of the demo, as they were released first. */
export function pagesEdition(number = 1): SharedEdition {
  const stylesheets = (json('stylesheets.json') as { id: string; purpose: string; media?: string }[]).map((sheet) => ({
    media: '',
    ...sheet,
    css: readFileSync(join(DEMO, 'stylesheets', `${sheet.id}.css`), 'utf8'),
  }));
  return sharedEdition('pages', { pageKinds: json('page-kinds.json') as JsonObject[], stylesheets }, number);
}

/** What is stored beside the demo's profiles. */
export const STORED: StoredCensus = {
  documents: 4,
  elements: { p: 7, u: 3, h1: 2, iframe: 1 },
  attributes: { p: { align: 2 } },
  classes: {},
  classesByProfile: {},
  most: { nesting: 5, elements: 30, letters: 900 },
};

/** A component with the real store, filled with the demo. */
export class Screen<T> {
  private constructor(
    readonly fixture: ComponentFixture<T>,
    readonly store: Store,
    readonly http: HttpTestingController,
  ) {}

  static async of<T>(
    component: Type<T>,
    { profile, html, inputs = {} }: { profile?: string; html?: string; inputs?: Record<string, unknown> } = {},
  ): Promise<Screen<T>> {
    localStorage.clear();
    TestBed.configureTestingModule({
      imports: [component],
      providers: [
        provideZonelessChangeDetection(),
        provideRouter([]),
        provideHttpClient(),
        provideHttpClientTesting(),
        { provide: PROOF_WORKER, useValue: () => new InPageWorker() },
        provideEffects({ readEditions, readShared, sumUpRules, readPayload }),
        provideStore({ library: libraryFeature.reducer, workshop: workshopFeature.reducer, bench: benchFeature.reducer }),
      ],
    });
    const store = TestBed.inject(Store);
    const library = demoLibrary();
    store.dispatch(LibraryActions.loaded({ library }));
    store.dispatch(LibraryActions.censusRead({ census: STORED }));
    if (profile !== undefined)
      store.dispatch(WorkshopActions.opened({ profile: library.profiles.find(({ id }) => id === profile)!, backup: null }));
    const fixture = TestBed.createComponent(component);
    for (const [name, value] of Object.entries(inputs)) fixture.componentRef.setInput(name, value);
    const screen = new Screen(fixture, store, TestBed.inject(HttpTestingController));
    if (html !== undefined) screen.prove(html);
    await screen.settle();
    return screen;
  }

  /** Does what the worker does that tests the draft. */
  test(): readonly Finding[] {
    const read = <V>(selector: (state: object) => V): V => this.store.selectSignal(selector)();
    const draft = read(workshopFeature.selectDraft);
    const findings = findingsOf(
      read(workshopFeature.selectProfileId)!,
      read(workshopFeature.selectChain),
      read(workshopFeature.selectSurroundings),
    );
    this.store.dispatch(WorkshopActions.draftTested({ draft, findings }));
    return findings;
  }

  /** Does what the worker does, under the draft as it stands. */
  prove(html: string): void {
    const resolved = this.store.selectSignal(workshopFeature.selectResolved)()!;
    const cleaned = clean(html, compileRules(resolved, this.store.selectSignal(workshopFeature.selectOptions)()));
    const proof: Proof = {
      input: html,
      html: cleaned.html,
      ledger: cleaned.ledger,
      measures: measure(html, cleaned.html, cleaned.root, cleaned.ledger),
      census: takeCensus(parseFragment(html).root),
      ms: 1,
      paste: null,
      verdicts: [],
    };
    this.store.dispatch(BenchActions.proofComputed({ proof }));
  }

  /** Does what the worker does with a paste, under the draft as it stands. */
  paste(types: Record<string, string>): void {
    const resolved = this.store.selectSignal(workshopFeature.selectResolved)()!;
    const options = this.store.selectSignal(workshopFeature.selectOptions)();
    const pasted = runPaste({ types }, resolved, { ...options, trace: 'sizes' });
    const { input, html, root, ledger, trace, rulesTrace, source, picturesToUpload } = pasted;
    const proof: Proof = {
      input,
      html,
      ledger,
      measures: measure(input, html, root, ledger),
      census: takeCensus(parseFragment(input).root),
      ms: 1,
      paste: { source: source.source, trace, rules: rulesTrace, pictures: 0, picturesToUpload, view: null },
      verdicts: [],
    };
    this.store.dispatch(BenchActions.proofComputed({ proof }));
  }

  /** Waits until nothing is left to draw and the worker has answered. */
  async settle(): Promise<void> {
    do {
      await this.fixture.whenStable();
      await InPageWorker.rest();
      await this.fixture.whenStable();
    } while (InPageWorker.isBusy());
  }
  find<E extends HTMLElement = HTMLElement>(selector: string): E {
    const found = (this.fixture.nativeElement as HTMLElement).querySelector<E>(selector);
    if (found === null)
      throw new Error(`There is no ${selector} in ${(this.fixture.nativeElement as HTMLElement).innerHTML.slice(0, 2000)}`);
    return found;
  }
  has(selector: string): boolean {
    return (this.fixture.nativeElement as HTMLElement).querySelector(selector) !== null;
  }
  texts(selector: string): string[] {
    return [...(this.fixture.nativeElement as HTMLElement).querySelectorAll(selector)].map((node) =>
      (node.textContent ?? '').replace(/\s+/g, ' ').trim(),
    );
  }
  async click(selector: string): Promise<void> {
    this.find(selector).click();
    await this.settle();
  }
  /** Opens a menu and presses the item whose words begin like this. */
  async choose(trigger: string, words: string): Promise<void> {
    await this.click(trigger);
    const items = [...document.querySelectorAll<HTMLButtonElement>('.cdk-overlay-container [mat-menu-item]')];
    const item = items.findLast((one) => (one.textContent ?? '').trim().startsWith(words));
    if (item === undefined) throw new Error(`${trigger} does not offer ${words}`);
    item.click();
    await this.settle();
  }
  private select(selector: string): MatSelect | null {
    // Asked for by its element: looking for it among the debug elements goes through all that is drawn.
    const found = getDebugNode(this.find(selector));
    return found?.componentInstance instanceof MatSelect ? found.componentInstance : null;
  }
  /** The values that a select offers. */
  optionsOf(selector: string): string[] {
    return this.select(selector)!.options.map(({ value }) => value as string);
  }
  /** Writes into a field, or chooses in a select, by the value of an option. */
  async set(selector: string, value: string, type = 'change'): Promise<void> {
    const select = this.select(selector);
    if (select !== null) {
      const option = select.options.find((one) => one.value === value);
      if (option === undefined) throw new Error(`${selector} does not offer ${value}`);
      // As a click on it does; it is not drawn before the select is open.
      option._selectViaInteraction();
      return void (await this.settle());
    }
    const field = this.find<HTMLInputElement>(selector);
    field.value = value;
    // A browser tells of what is typed before it tells that it was left.
    for (const told of new Set(['input', type])) field.dispatchEvent(new Event(told, { bubbles: true }));
    await this.settle();
  }
  /** Edits the draft as the chapters do. */
  edit(keys: readonly string[], value: Json): void {
    TestBed.inject(ProfileEdit).set(keys, value, 'An edit');
  }
  /** The profile's own document as it is edited. */
  get draft(): JsonObject {
    return this.store.selectSignal(workshopFeature.selectDraft)();
  }
  /** The resolved profile. */
  get profile() {
    return this.store.selectSignal(workshopFeature.selectResolved)()!.profile;
  }
}
