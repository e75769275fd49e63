import '@typikon/core/without-eval';
import { defineTypikonEditor } from './element';

export { draftsInBrowser, TypikonEditor, type EditorConfiguration } from './element';

// A page that loads this file can write <typikon-editor> at once.
defineTypikonEditor();
