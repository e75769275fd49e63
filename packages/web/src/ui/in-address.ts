import { DestroyRef, effect, inject, signal, untracked, type WritableSignal } from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { ActivatedRoute, Router } from '@angular/router';

/**
 * A value that stands in the address of the view, so that a reload, a bookmark and the way back in the browser have it again.
 *
 * @param name of the parameter of the query; an empty value has none
 */
export function inAddress(name: string): WritableSignal<string> {
  const route = inject(ActivatedRoute);
  const router = inject(Router);
  const value = signal(route.snapshot.queryParamMap.get(name) ?? '');
  let isLeft = false;
  inject(DestroyRef).onDestroy(() => (isLeft = true));
  route.queryParamMap.pipe(takeUntilDestroyed()).subscribe((query) => value.set(query.get(name) ?? ''));
  effect(() => {
    const now = value();
    untracked(() => {
      if (isLeft || now === (route.snapshot.queryParamMap.get(name) ?? '')) return;
      // What is typed in a filter is no step of its own on the way back.
      void router.navigate([], { queryParams: { [name]: now === '' ? null : now }, queryParamsHandling: 'merge', replaceUrl: true });
    });
  });
  return value;
}
