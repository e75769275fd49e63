import { DestroyRef, Directive, ElementRef, inject, output } from '@angular/core';

/** What comes so close to the part that is seen counts as seen, so that a slow scroll never meets an empty place. */
const MARGIN_PX = 300;

/** Tells once that an element has come into view, or nearly. */
@Directive({ selector: '[tyInView]' })
export class InView {
  readonly tyInView = output();

  constructor() {
    const host = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    const watched = new IntersectionObserver(
      (entries) => {
        if (!entries.some(({ isIntersecting }) => isIntersecting)) return;
        watched.disconnect();
        this.tyInView.emit();
      },
      { root: scrollerOf(host), rootMargin: `${MARGIN_PX}px 0px` },
    );
    watched.observe(host);
    inject(DestroyRef).onDestroy(() => watched.disconnect());
  }
}

/** The element in which another scrolls; margins count for it alone (Intersection Observer, section 2.2). */
function scrollerOf(element: HTMLElement): HTMLElement | null {
  for (let at = element.parentElement; at !== null; at = at.parentElement)
    if (/auto|scroll/.test(getComputedStyle(at).overflowY)) return at;
  return null;
}
