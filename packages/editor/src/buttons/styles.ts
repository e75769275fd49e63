import { Paintbrush } from 'lucide';
import { readStyle, type StyleAct } from '@typikon/core/editing';
import { styleHere } from '../commands/style';
import type { Button } from './button';

/** What of a style its entry in the menu shows, as the page would show it. */
const SHOWN = [
  'color',
  'background-color',
  'font-family',
  'font-style',
  'font-weight',
  'font-variant-caps',
  'text-transform',
  'text-decoration-line',
  'letter-spacing',
  'border-left-color',
  'border-left-style',
  'border-left-width',
] as const;
const LARGEST_PX = 22;
const SMALLEST_PX = 11;

/** Makes an entry of the menu look as the style does where the author types. */
function asOnThePage(dom: HTMLElement, act: StyleAct): (entry: HTMLElement) => void {
  const frame = dom.ownerDocument;
  const probe = frame.createElement(act.element);
  probe.className = act.classes.join(' ');
  for (const { name, value } of act.attributes) probe.setAttribute(name, value);
  probe.style.position = 'absolute';
  probe.style.visibility = 'hidden';
  (dom.parentElement ?? dom).append(probe);
  const look = frame.defaultView!.getComputedStyle(probe);
  const values = SHOWN.map((name) => [name, look.getPropertyValue(name)] as const);
  const size = Math.min(LARGEST_PX, Math.max(SMALLEST_PX, Number.parseFloat(look.fontSize)));
  // Where the style has no ground of its own, its text stands on that of the page.
  const ground = groundOf(probe);
  probe.remove();
  return (entry) => {
    const words = entry.firstElementChild as HTMLElement;
    for (const [name, value] of values) words.style.setProperty(name, value);
    words.style.backgroundColor = ground;
    words.style.fontSize = `${size}px`;
    words.style.padding = '2px 8px';
  };
}

function groundOf(element: Element): string {
  for (let at: Element | null = element; at !== null; at = at.parentElement) {
    const colour = at.ownerDocument.defaultView!.getComputedStyle(at).backgroundColor;
    if (colour !== 'transparent' && !/, 0\)$/.test(colour)) return colour;
  }
  return '#ffffff';
}

/** A menu of the styles that the profile names, each as it looks. */
export const styles: Button = {
  id: 'styles',
  icon: Paintbrush,
  isPossible: (_state, { profile }) => Object.keys(profile.styles).length > 0,
  whyNot: 'This profile names no styles.',
  open: (context) => {
    const { state, dom } = context.view;
    const all = Object.values(context.profile.styles);
    // Styles of a group stand together, in the order in which their groups are first named.
    const groups = [...new Set(all.map(({ group }) => group ?? ''))];
    context.menu(
      'Styles',
      groups
        .flatMap((group) => all.filter((style) => (style.group ?? '') === group))
        .map((style) => {
          const others = style.group === undefined ? [] : all.filter((other) => other !== style && other.group === style.group);
          const here = styleHere(state, context, style, others);
          const read = readStyle(style.selector);
          return {
            label: style.label,
            ...(read.ok ? { sample: asOnThePage(dom, read.act) } : {}),
            ...(style.description === undefined ? {} : { hint: style.description }),
            isOn: 'isOn' in here && here.isOn,
            whyNot: 'whyNot' in here ? here.whyNot : '',
            press: () => 'command' in here && context.run(here.command),
          };
        }),
    );
  },
};
