import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';

setupZonelessTestEnv({ errorOnUnknownElements: true, errorOnUnknownProperties: true });

// jsdom has no layout: CodeMirror asks ranges for their boxes.
const noBoxes = Object.assign([], { item: () => null }) as unknown as DOMRectList;
Range.prototype.getClientRects = () => noBoxes;
Range.prototype.getBoundingClientRect = () => ({
  x: 0,
  y: 0,
  width: 0,
  height: 0,
  top: 0,
  right: 0,
  bottom: 0,
  left: 0,
  toJSON: () => ({}),
});

/** There is no layout here: all is in view. */
class AllInView {
  constructor(private readonly tell: (entries: { isIntersecting: boolean; target: Element }[], observer: AllInView) => void) {}

  observe(target: Element): void {
    queueMicrotask(() => this.tell([{ isIntersecting: true, target }], this));
  }
  unobserve(): void {}
  disconnect(): void {}
}
(globalThis as { IntersectionObserver?: unknown }).IntersectionObserver = AllInView;
