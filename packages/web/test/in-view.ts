/** There is no layout in jsdom: a test says what is in view. Everything is, until it says otherwise. */
let isSeen: (element: Element) => boolean = () => true;

/** What is in view from now on, to the end of the tests of this file. */
export function seeOnly(those: (element: Element) => boolean): void {
  isSeen = those;
}

class Watcher {
  constructor(private readonly tell: (entries: { isIntersecting: boolean; target: Element }[], observer: Watcher) => void) {}

  observe(target: Element): void {
    queueMicrotask(() => {
      if (isSeen(target)) this.tell([{ isIntersecting: true, target }], this);
    });
  }
  unobserve(): void {}
  disconnect(): void {}
}

/** Puts it in the place of what browsers have (Intersection Observer). */
export function watchInView(): void {
  (globalThis as { IntersectionObserver?: unknown }).IntersectionObserver = Watcher;
}
