import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import MarkdownIt from 'markdown-it';

/** Repeats documents until there are at least so many UTF-16 units, and cuts at the end of a document. */
function ofSize(documents, size) {
  let text = '';
  for (let i = 0; text.length < size; i++) text += documents[i % documents.length];
  return text;
}

/** Real kinds of markup: what offices paste, what old sites hold, what this site stores, what readmes look like when rendered. */
export function corpus(root) {
  const demo = (folder) => readdirSync(join(root, 'demo', folder)).map((file) => readFileSync(join(root, 'demo', folder, file), 'utf8'));
  const specimen = (name) => readFileSync(join(root, 'demo', 'specimens', `${name}.html`), 'utf8');
  const markdown = new MarkdownIt({ html: true });
  const readmes = readdirSync(join(root, 'node_modules'))
    .filter((name) => !name.startsWith('.') && !name.startsWith('@'))
    .map((name) => join(root, 'node_modules', name, 'README.md'))
    .filter((path) => existsSync(path))
    .slice(0, 150)
    .map((path) => markdown.render(readFileSync(path, 'utf8')));
  return {
    kinds: {
      'word processor, 100 kB': ofSize([specimen('committee-minutes')], 100_000),
      'old website, 100 kB': ofSize([specimen('old-site-page')], 100_000),
      'stored documents, 100 kB': ofSize(demo('documents'), 100_000),
      'rendered readmes, 100 kB': ofSize(readmes, 100_000),
    },
    growth: [10_000, 100_000, 1_000_000, 10_000_000].map((size) => ofSize([...demo('documents'), ...readmes], size)),
  };
}
