import type { CompiledRules } from '../markup/compiled';
import type { Toolbar } from '../profile/toolbar-schema';
import { arrangeToolbar } from './arrange';
import type { ButtonId } from '../profile/button-ids';
import { buttonOf } from './buttons';
import { missingMarkup, needInWords } from './needs';
import { SHORTCUTS, type ShortcutId } from '../profile/shortcuts';

/** Something that authors may have to be able to do. */
export interface AuthorTask {
  id: string;
  label: string;
  /** Any of these buttons does it. */
  buttons: readonly ButtonId[];
  /** Typed, it takes no button. */
  shortcut?: ShortcutId;
}

/** What authors may have to do, in the order in which the designer asks. */
export const AUTHOR_TASKS: readonly AuthorTask[] = [
  { id: 'heading', label: 'mark a heading', buttons: ['heading-2', 'heading-3', 'heading-4', 'block-kind'], shortcut: 'heading' },
  { id: 'stress', label: 'stress words', buttons: ['bold', 'italic'], shortcut: 'bold' },
  { id: 'list', label: 'make a list', buttons: ['bulleted-list'], shortcut: 'bulleted-list' },
  { id: 'steps', label: 'number steps', buttons: ['numbered-list'], shortcut: 'numbered-list' },
  { id: 'link', label: 'link a page', buttons: ['link'] },
  { id: 'place', label: 'link to a place in the same page', buttons: ['link', 'anchor'] },
  { id: 'picture', label: 'place a picture', buttons: ['picture'] },
  { id: 'table', label: 'make a table', buttons: ['table'] },
  { id: 'quote', label: 'quote somebody', buttons: ['block-quote'], shortcut: 'block-quote' },
  { id: 'embed', label: 'show a film or camera', buttons: ['embed'] },
  { id: 'signs', label: 'type signs such as ° and ½', buttons: ['special-characters'] },
  { id: 'styles', label: 'use the site’s styles', buttons: ['styles'] },
  { id: 'language', label: 'mark another language', buttons: ['language'] },
  { id: 'terms', label: 'explain terms', buttons: ['definition-list', 'abbreviation'] },
  { id: 'fold', label: 'fold details away', buttons: ['details'] },
  { id: 'align', label: 'align blocks', buttons: ['align-centre', 'align-right', 'align-left', 'align-justify'] },
  { id: 'colour', label: 'colour words', buttons: ['text-colour', 'background-colour', 'highlight'] },
  { id: 'clean', label: 'take formatting off', buttons: ['clear-formatting'] },
  { id: 'undo', label: 'take back a mistake', buttons: ['undo'] },
  { id: 'find', label: 'find words', buttons: ['find-replace'] },
  { id: 'spell', label: 'check the spelling', buttons: ['spelling'] },
  { id: 'source', label: 'see the markup', buttons: ['source'] },
];

/** Whether and how a toolbar lets authors do something. */
export interface TaskAnswer {
  task: AuthorTask;
  /** The quickest way; null where there is none. */
  way: { kind: 'button' | 'key' | 'typed'; label: string; acts: number } | null;
  /** Why there is no way, in a sentence; empty where there is one. */
  why: string;
}

/**
 * Tries tasks against a toolbar: which can be done and in how many acts (presses, fields to fill), and which buttons do
 * what no task asked for.
 */
export function tryTasks(toolbar: Toolbar, rules: CompiledRules, asked: readonly string[]): { answers: TaskAnswer[]; unasked: ButtonId[] } {
  const groups = arrangeToolbar(toolbar);
  const shown = groups.flatMap(({ buttons }) => buttons);
  const inMore = new Set(groups.filter((group) => group.inMore).flatMap(({ buttons }) => buttons));
  const tasks = AUTHOR_TASKS.filter(({ id }) => asked.includes(id));
  const lacks = (id: ButtonId) => missingMarkup(buttonOf(id), rules, toolbar.options);
  const answers = tasks.map((task): TaskAnswer => {
    const ways: NonNullable<TaskAnswer['way']>[] = task.buttons
      .filter((id) => shown.includes(id) && lacks(id).length === 0)
      .map((id) => {
        const { label, acts } = buttonOf(id);
        return { kind: 'button', label, acts: acts + (inMore.has(id) ? 1 : 0) };
      });
    const shortcut = SHORTCUTS.find(({ id }) => id === task.shortcut);
    if (shortcut !== undefined && toolbar.shortcuts[shortcut.id] === true && isKept(shortcut.elements, rules))
      ways.push({ kind: 'typed', label: shortcut.typed, acts: 1 });
    const [way] = ways.sort((a, b) => a.acts - b.acts);
    if (way !== undefined) return { task, way, why: '' };
    const blocked = task.buttons.find((id) => shown.includes(id));
    const why =
      blocked === undefined
        ? `The toolbar lacks ${task.buttons.map((id) => `“${buttonOf(id).label}”`).join(' or ')}.`
        : `“${buttonOf(blocked).label}” is there, but the rules remove ${lacks(blocked).map(needInWords).join(', ')}.`;
    return { task, way: null, why };
  });
  const wanted = new Set(tasks.flatMap(({ buttons }) => buttons));
  const general = AUTHOR_TASKS.flatMap(({ buttons }) => buttons);
  return {
    answers,
    unasked: shown.filter((id) => !wanted.has(id) && (general.includes(id) || buttonOf(id).makes !== null) && id !== 'paragraph'),
  };
}

function isKept(elements: readonly string[], rules: CompiledRules): boolean {
  return (
    elements.length === 0 ||
    elements.some((element) => rules.element(element).outcome === 'keep' && rules.element(element).name === element)
  );
}
