import { NodeSelection, Plugin, type EditorState } from 'prosemirror-state';
import type { EditorView } from 'prosemirror-view';
import { isValueKept, type CompiledRules } from '@typikon/core/editing';
import { attributesOf, elementOf, isAttributeKept, withAttribute } from '../commands/attributes';

const PAUSE_MS = 200;

export interface OverlayOptions {
  rules: CompiledRules;
  /** The width of the page's column. */
  columnPx: number;
}

/**
 * A layer over the text that is no part of it: a handle on the selected picture, and notes on pictures and tables that are
 * wider than the column, with the width that fits.
 */
export function overlay({ rules, columnPx }: OverlayOptions): Plugin {
  return new Plugin({
    view(view) {
      const layer = view.dom.ownerDocument.createElement('div');
      layer.className = 'te-overlay';
      layer.setAttribute('aria-hidden', 'true');
      view.dom.ownerDocument.documentElement.append(layer);
      let frame = 0;
      const window = view.dom.ownerDocument.defaultView!;
      let timer = 0;
      let notes: HTMLElement[] = [];
      let isDragging = false;
      const draw = (): void => {
        frame = 0;
        // The handle that is being dragged must stay the one that it is.
        if (view.isDestroyed || isDragging) return;
        layer.replaceChildren(
          ...handle(view, rules, columnPx, (isOn) => {
            isDragging = isOn;
            if (!isOn) soon();
          }),
          ...notes,
        );
      };
      const soon = (): void => {
        if (frame === 0) frame = window.requestAnimationFrame(draw);
      };
      // Measuring everything takes longer than a key may, so it waits for a pause.
      const later = (): void => {
        window.clearTimeout(timer);
        timer = window.setTimeout(() => {
          if (view.isDestroyed) return;
          notes = tooWide(view, columnPx);
          soon();
        }, PAUSE_MS);
      };
      view.dom.addEventListener('load', later, true);
      window.addEventListener('resize', later);
      later();
      return {
        update(_view, before: EditorState) {
          if (before.doc !== view.state.doc) later();
          if (before.selection instanceof NodeSelection || view.state.selection instanceof NodeSelection) soon();
        },
        destroy() {
          window.cancelAnimationFrame(frame);
          window.clearTimeout(timer);
          layer.remove();
        },
      };
    },
  });
}

function box(view: EditorView, element: Element): DOMRect {
  const rect = element.getBoundingClientRect();
  const window = view.dom.ownerDocument.defaultView!;
  return new DOMRect(rect.x + window.scrollX, rect.y + window.scrollY, rect.width, rect.height);
}

function tooWide(view: EditorView, columnPx: number): HTMLElement[] {
  const host = view.dom.ownerDocument;
  const room = Math.min(columnPx, view.dom.clientWidth || columnPx);
  const notes: HTMLElement[] = [];
  for (const element of view.dom.querySelectorAll<HTMLElement>('img, table, iframe')) {
    const asked = Number(element.getAttribute('width') ?? 0) || 0;
    const shown = element.localName === 'table' ? Math.max(element.offsetWidth, element.scrollWidth) : element.offsetWidth;
    const width = Math.max(asked, shown);
    if (width <= room + 1) continue;
    const note = host.createElement('div');
    note.className = 'te-too-wide';
    note.textContent = `${Math.round(width)} wide; ${Math.round(room)} fit`;
    const { x, y } = box(view, element);
    note.style.left = `${x}px`;
    note.style.top = `${y}px`;
    notes.push(note);
  }
  return notes;
}

function handle(view: EditorView, rules: CompiledRules, columnPx: number, drags: (isOn: boolean) => void): HTMLElement[] {
  const { selection } = view.state;
  if (!(selection instanceof NodeSelection) || elementOf(selection.node) !== 'img' || !isAttributeKept(rules, 'img', 'width')) return [];
  const dom = view.nodeDOM(selection.from) as HTMLElement | null;
  if (dom === null || typeof dom.getBoundingClientRect !== 'function') return [];
  const host = view.dom.ownerDocument;
  const knob = host.createElement('div');
  knob.className = 'te-knob';
  const rect = box(view, dom);
  knob.style.left = `${rect.right - 7}px`;
  knob.style.top = `${rect.bottom - 7}px`;
  knob.title = 'Drag to change the width';
  knob.addEventListener('pointerdown', (event) => {
    event.preventDefault();
    knob.setPointerCapture(event.pointerId);
    drags(true);
    const ratio = rect.height / rect.width;
    const widthAt = (x: number): number => Math.max(16, Math.min(columnPx, Math.round(rect.width + x - event.clientX)));
    const size = host.createElement('div');
    size.className = 'te-size-note';
    knob.after(size);
    const move = (next: PointerEvent): void => {
      const width = widthAt(next.clientX);
      dom.style.width = `${width}px`;
      dom.style.height = 'auto';
      size.textContent = `${width} px`;
      size.style.left = `${rect.left + width + 10}px`;
      size.style.top = `${rect.bottom - 10}px`;
      knob.style.left = `${rect.left + width - 7}px`;
      knob.style.top = `${rect.top + width * ratio - 7}px`;
    };
    const end = (next: PointerEvent): void => {
      knob.removeEventListener('pointermove', move);
      knob.removeEventListener('pointerup', end);
      knob.removeEventListener('pointercancel', end);
      dom.style.width = '';
      dom.style.height = '';
      if (next.type === 'pointerup') setWidth(view, rules, widthAt(next.clientX), ratio);
      drags(false);
    };
    knob.addEventListener('pointermove', move);
    knob.addEventListener('pointerup', end);
    knob.addEventListener('pointercancel', end);
  });
  return [knob];
}

/** Gives the selected picture a width, as near to what was asked as the rules allow. */
function setWidth(view: EditorView, rules: CompiledRules, asked: number, ratio: number): void {
  const { selection } = view.state;
  if (!(selection instanceof NodeSelection)) return;
  let width = asked;
  while (width > 1 && !isValueKept(rules, 'img', 'width', String(width))) width--;
  let attributes = withAttribute(attributesOf(selection.node), 'width', String(width));
  const height = String(Math.round(width * ratio));
  attributes = withAttribute(attributes, 'height', isValueKept(rules, 'img', 'height', height) ? height : null);
  const { from } = selection;
  const tr = view.state.tr.setNodeMarkup(from, null, { attributes }, selection.node.marks);
  view.dispatch(tr.setSelection(NodeSelection.create(tr.doc, from)));
}
