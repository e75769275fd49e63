/** A part of the input that the HTML standard's own algorithm leaves out of the tree, so that no later stage ever sees it. */
export interface Ignored {
  kind: 'start-tag' | 'end-tag' | 'doctype' | 'unfinished-tag' | 'formatting-limit' | 'repeated-attribute' | 'half-character';
  /** The tag's name; empty where there is none. */
  name: string;
  /** The attribute that is repeated. */
  attribute?: string;
  /** UTF-16 offsets into the input. */
  start: number;
  end: number;
}
