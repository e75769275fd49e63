import { setupZonelessTestEnv } from 'jest-preset-angular/setup-env/zoneless';
import { watchInView } from './test/in-view';

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

watchInView();
