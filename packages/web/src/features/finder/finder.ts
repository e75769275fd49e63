import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import { FormControl, ReactiveFormsModule } from '@angular/forms';
import { MatAutocompleteModule, type MatAutocompleteSelectedEvent } from '@angular/material/autocomplete';
import { MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { Router } from '@angular/router';
import { Store } from '@ngrx/store';
import { catchError, map, of, startWith, switchMap, timer } from 'rxjs';
import { ContractClient } from '../../state/contract-client';
import { libraryFeature } from '../../state/library';
import { SiteStore } from '../../state/site';
import { SiteFindings } from '../../state/site-findings';
import type { WorkshopState } from '../../state/workshop';
import { inFamilyOrder } from '../../shared/profile/family';
import { findPlaces, placesOf, placesOfSite, type Place } from './places';

const MOST_SHOWN = 12;
const MOST_DOCUMENTS = 5;
const MOST_RECENT = 30;
const PAUSE_MS = 150;
const RECENT = 'typikon.finder';

/** Finds a place by its words and goes there. */
@Component({
  selector: 'ty-finder',
  imports: [MatAutocompleteModule, MatDialogModule, MatFormFieldModule, MatInputModule, ReactiveFormsModule],
  template: `
    <h2 class="ty-unseen" id="finder-heading">Find anything</h2>
    <mat-form-field appearance="outline" subscriptSizing="dynamic">
      <input
        matInput
        cdkFocusInitial
        autocomplete="off"
        aria-labelledby="finder-heading"
        placeholder="A view, a profile, an element, a pass, a setting, a finding, a document …"
        [formControl]="question"
        [matAutocomplete]="found"
      />
      <mat-autocomplete #found="matAutocomplete" autoActiveFirstOption [displayWith]="nothing" (optionSelected)="go($event)">
        @for (place of places(); track place.id) {
          <mat-option [value]="place">
            <span class="line">
              <span>{{ place.label }}</span>
              <span class="ty-soft">{{ place.where }}</span>
              @if (place.keys) {
                <kbd>{{ place.keys }}</kbd>
              }
            </span>
          </mat-option>
        } @empty {
          <mat-option disabled>Nothing has these words.</mat-option>
        }
      </mat-autocomplete>
    </mat-form-field>
  `,
  styles: `
    :host {
      display: block;
      padding: 12px;
    }
    mat-form-field {
      width: 100%;
    }
    .line {
      display: flex;
      align-items: baseline;
      gap: 10px;
    }
    .line .ty-soft {
      flex: none;
    }
    kbd {
      margin-left: auto;
      font: 11px/16px var(--ty-sans);
      color: var(--ty-soft);
    }
  `,
  changeDetection: ChangeDetectionStrategy.OnPush,
})
export class Finder {
  private readonly store = inject(Store);
  private readonly router = inject(Router);
  private readonly client = inject(ContractClient);
  private readonly dialog = inject<MatDialogRef<Finder>>(MatDialogRef);
  protected readonly question = new FormControl<string | Place>('', { nonNullable: true });
  private readonly asked = toSignal(this.question.valueChanges.pipe(map((value) => (typeof value === 'string' ? value : ''))), {
    initialValue: '',
  });
  private readonly library = this.store.selectSignal(libraryFeature.selectLibrary);
  /** Read, and tested, once somebody looks for something. */
  private readonly site = inject(SiteStore).draft;
  private readonly siteFindings = inject(SiteFindings).all;
  private readonly recent = signal(readRecent());
  /** The workshop brings its state along; without it nothing is being worked on. */
  private readonly workshop = this.store.selectSignal(({ workshop }: { workshop?: WorkshopState }) => workshop ?? null);
  /** The profile that is open, else the one that was open last. */
  private readonly profileId =
    /^\/profiles\/([^/?#]+)/.exec(this.router.url)?.[1] ??
    this.recent()
      .find((id) => id.startsWith('profile:'))
      ?.slice('profile:'.length) ??
    null;
  private readonly all = computed(() => {
    const library = this.library();
    const profileId = this.profileId ?? inFamilyOrder(library?.profiles ?? [])[0]?.profile.id ?? null;
    const workshop = this.workshop();
    const site = this.site();
    return [
      ...(library === null ? [] : placesOf(library, profileId, workshop?.profileId === profileId ? workshop?.findings : [])),
      ...(site === null ? [] : placesOfSite(site, this.siteFindings())),
    ];
  });
  /** Those that the server finds come a moment later. */
  private readonly documents = toSignal(
    toObservable(this.asked).pipe(
      switchMap((words) =>
        words.trim().length < 2
          ? of([])
          : timer(PAUSE_MS).pipe(
              switchMap(() => this.client.get('/documents', { words: words.trim(), limit: MOST_DOCUMENTS }, {})),
              map(({ body }) =>
                body.documents.map(({ id, title }): Place => ({
                  id: `document:${id}`,
                  label: title,
                  where: 'document',
                  link: ['/write', id],
                })),
              ),
              catchError(() => of([])),
              startWith([]),
            ),
      ),
    ),
    { initialValue: [] as Place[] },
  );
  protected readonly places = computed(() => {
    const documents = this.documents();
    return [...findPlaces(this.all(), this.asked(), this.recent(), MOST_SHOWN - documents.length), ...documents];
  });

  protected readonly nothing = (): string => '';

  protected go({ option }: MatAutocompleteSelectedEvent): void {
    const { id, link, query } = option.value as Place;
    writeRecent([id, ...this.recent().filter((other) => other !== id)].slice(0, MOST_RECENT));
    this.dialog.close();
    void this.router.navigate([...link], { queryParams: query ?? {} });
  }
}

function readRecent(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(RECENT) ?? '[]');
    return Array.isArray(kept) ? kept.filter((id): id is string => typeof id === 'string') : [];
  } catch {
    return [];
  }
}

function writeRecent(ids: readonly string[]): void {
  try {
    localStorage.setItem(RECENT, JSON.stringify(ids));
  } catch {
    // A full or forbidden storage loses only the order.
  }
}
