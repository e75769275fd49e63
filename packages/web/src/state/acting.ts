import type { HttpInterceptorFn } from '@angular/common/http';
import { computed, inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { AnswerOf } from './contract';
import { ContractClient } from './contract-client';

/** Somebody in whose name requests can be made. */
export type ActingPerson = NonNullable<AnswerOf<'get', '/acting'>['acting']>;

const KEPT = 'typikon.acting';
/** As the contract names it (`PERSON_HEADER`); the contract itself is not taken into the bundle. */
const PERSON_HEADER = 'typikon-person';

/** Who was chosen last; empty for whoever the server takes. */
const chosen = signal(kept());

function kept(): string {
  try {
    return localStorage.getItem(KEPT) ?? '';
  } catch {
    return '';
  }
}

/** Tells the server in whose name each request is made. */
export const asActingPerson: HttpInterceptorFn = (request, next) =>
  next(chosen() === '' || !request.url.startsWith('/api/') ? request : request.clone({ setHeaders: { [PERSON_HEADER]: chosen() } }));

/** Who acts: until people sign in, whoever sits here says it. */
@Injectable({ providedIn: 'root' })
export class Acting {
  private readonly client = inject(ContractClient);
  private readonly told = signal<AnswerOf<'get', '/acting'> | null>(null);
  /** Everybody who could act. */
  readonly people = computed((): readonly ActingPerson[] => this.told()?.people ?? []);
  /** Whether the server has told. */
  readonly isKnown = computed(() => this.told() !== null);
  readonly person = computed((): ActingPerson | null => this.told()?.acting ?? null);
  readonly roles = computed((): readonly string[] => this.person()?.roles.map(({ id }) => id) ?? []);

  async load(): Promise<void> {
    try {
      this.told.set((await firstValueFrom(this.client.get('/acting', {}, {}))).body);
    } catch {
      // Whoever was chosen is not there any more, or may not look: the server takes somebody who may.
      if (chosen() !== '') {
        this.keep('');
        await this.load();
      }
    }
  }

  may(right: string): boolean {
    const person = this.person();
    return person === null || person.rights.includes(right);
  }

  /** @param id of the person who acts from now on */
  async choose(id: string): Promise<void> {
    this.keep(id);
    await this.load();
  }

  private keep(id: string): void {
    chosen.set(id);
    try {
      localStorage.setItem(KEPT, id);
    } catch {
      // A full or forbidden storage loses only who was chosen, after a reload.
    }
  }
}
