import { DestroyRef, effect, inject, Injectable, signal, untracked, type WritableSignal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';

/** What is typed in a row is written once: to change an address takes a browser longer than to draw a list. */
const PAUSE_MS = 150;

/** Writes values into the address, those of one moment together. */
@Injectable({ providedIn: 'root' })
export class Address {
  private readonly router = inject(Router);
  private readonly waiting = new Map<string, string>();
  private timer: ReturnType<typeof setTimeout> | undefined;

  write(name: string, value: string): void {
    this.waiting.set(name, value);
    clearTimeout(this.timer);
    this.timer = setTimeout(() => {
      const queryParams = Object.fromEntries([...this.waiting].map(([key, now]) => [key, now === '' ? null : now]));
      this.waiting.clear();
      // What is typed in a filter is no step of its own on the way back.
      void this.router.navigate([], { queryParams, queryParamsHandling: 'merge', replaceUrl: true });
    }, PAUSE_MS);
  }

  /** Whether a value still waits to be written; it is newer than what the address says. */
  isWaiting(name: string): boolean {
    return this.waiting.has(name);
  }

  forget(name: string): void {
    this.waiting.delete(name);
    if (this.waiting.size === 0) clearTimeout(this.timer);
  }
}

/**
 * A value that stands in the address of the view, so that a reload, a bookmark and the way back in the browser have it again.
 *
 * @param name of the parameter of the query; an empty value has none
 */
export function inAddress(name: string): WritableSignal<string> {
  const route = inject(ActivatedRoute);
  const address = inject(Address);
  const value = signal(route.snapshot.queryParamMap.get(name) ?? '');
  /** What the address has, or will have once what was written last has arrived: that it has it then is no news. */
  let known = value();
  let isLeft = false;
  inject(DestroyRef).onDestroy(() => {
    isLeft = true;
    address.forget(name);
  });
  route.queryParamMap.pipe(takeUntilDestroyed()).subscribe((query) => {
    const now = query.get(name) ?? '';
    if (now === known || address.isWaiting(name)) return;
    known = now;
    value.set(now);
  });
  effect(() => {
    const now = value();
    untracked(() => {
      if (isLeft) return;
      known = now;
      if (now !== (route.snapshot.queryParamMap.get(name) ?? '')) address.write(name, now);
      else address.forget(name);
    });
  });
  return value;
}
