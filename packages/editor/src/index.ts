export { AuthorEditor, type AuthorEditorOptions, type Pasted } from './author-editor';
export { EDITOR_BUTTONS } from './buttons/index';
export type { Button } from './buttons/button';
export { checkAddress, type AddressAnswer } from './address';
export { compileSchema, markNameOf, nodeNameOf } from './schema/compile';
export { readHtml, writeHtml } from './schema/html';
export { keyLabel } from './toolbar';
export type { Surface } from './surface';
