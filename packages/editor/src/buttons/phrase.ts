import { isValueKept } from '@typikon/core/editing';
import { BookA, Calendar, Languages } from 'lucide';

import { marksIn, setElement, wordsToMark } from '../commands/marks';
import type { EditorContext } from '../context';
import { choice, field, make } from '../panels/make';
import { markNameOf } from '../schema/compile';
import type { HtmlAttributes } from '../schema/dom';
import { hasMark } from '../selection';
import type { Button } from './button';

const textOf = ({ view }: EditorContext, { from, to }: { from: number; to: number }): string => view.state.doc.textBetween(from, to, ' ');
const old = (context: EditorContext, element: string, range: { from: number; to: number }): HtmlAttributes =>
  (marksIn(context.view.state, element, range)[0]?.attrs['attributes'] as HtmlAttributes | undefined) ?? {};

/** Says what an abbreviation stands for. */
export const abbreviation: Button = {
  id: 'abbreviation',
  icon: BookA,
  isActive: (state) => hasMark(state, markNameOf('abbr')),
  isPossible: (state) => {
    const { from, to } = wordsToMark(state, 'abbr');
    return from < to;
  },
  whyNot: 'Select the abbreviation first.',
  open: (context) => {
    const { host, view } = context;
    const range = wordsToMark(view.state, 'abbr');
    const attributes = old(context, 'abbr', range);
    const words = make(host, 'input', { type: 'text', value: attributes['title'] ?? '', autocomplete: 'off' });
    const dialog = context.dialog({
      title: `“${textOf(context, range)}”`,
      go: 'Set',
      take: () => {
        const title = words.value.trim();
        return context.run(setElement('abbr', range, title === '' ? null : { ...attributes, title }));
      },
    });
    dialog.body.append(field(host, 'Stands for', words, 'Leave it empty to take the mark off.'));
  },
};

/** Says what language a passage is in. */
export const language: Button = {
  id: 'language',
  icon: Languages,
  isActive: (state) => {
    const { from, to } = state.selection;
    return marksIn(state, 'span', { from: Math.max(0, from - 1), to }).some(
      (mark) => 'lang' in (mark.attrs['attributes'] as HtmlAttributes),
    );
  },
  isPossible: (state) => {
    const { from, to } = wordsToMark(state, 'span');
    return from < to;
  },
  whyNot: 'Select the passage first.',
  open: (context) => {
    const { options, view, rules } = context;
    const range = wordsToMark(view.state, 'span');
    const names = new Intl.DisplayNames(['en'], { type: 'language' });
    const hasLanguage = (attributes: HtmlAttributes): boolean => 'lang' in attributes;
    const now = marksIn(view.state, 'span', range).map((mark) => (mark.attrs['attributes'] as HtmlAttributes)['lang']);
    context.menu('Language', [
      ...options.language.languages.map((tag) => ({
        label: names.of(tag) ?? tag,
        isOn: now.includes(tag),
        whyNot: isValueKept(rules, 'span', 'lang', tag) ? '' : 'The rules do not keep it.',
        press: () => context.run(setElement('span', range, { lang: tag }, hasLanguage)),
      })),
      { label: 'As the rest of the text', press: () => context.run(setElement('span', range, null, hasLanguage)) },
    ]);
  },
};

/** Puts in a date, in words for readers and in figures for programs. */
export const date: Button = {
  id: 'date',
  icon: Calendar,
  isTolerant: true,
  isPossible: (state) => state.selection.$from.parent.inlineContent,
  open: (context) => {
    const { host, options, rules, schema, view } = context;
    const today = new Date();
    const iso = `${today.getFullYear()}-${String(today.getMonth() + 1).padStart(2, '0')}-${String(today.getDate()).padStart(2, '0')}`;
    const day = make(host, 'input', { type: 'date', value: iso });
    const form = choice(
      host,
      [
        { value: 'long', label: 'in words, such as 3 March 2026' },
        { value: 'short', label: 'in figures, such as 2026-03-03' },
      ],
      options.date.form,
    );
    const dialog = context.dialog({
      title: 'Date',
      go: 'Put in',
      take: () => {
        const chosen = new Date(`${day.value}T12:00:00Z`);
        if (Number.isNaN(chosen.getTime())) {
          dialog.complain('Choose a day.', day);
          return false;
        }
        const words =
          form.value === 'short'
            ? day.value
            : chosen.toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric', timeZone: 'UTC' });
        const type = schema.marks[markNameOf('time')]!;
        const attributes: HtmlAttributes = isValueKept(rules, 'time', 'datetime', day.value) ? { datetime: day.value } : {};
        view.dispatch(view.state.tr.replaceSelectionWith(schema.text(words, [type.create({ attributes })]), false).scrollIntoView());
        view.focus();
        return true;
      },
    });
    dialog.body.append(field(host, 'Day', day), field(host, 'Written', form));
  },
};
