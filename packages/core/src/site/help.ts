import { cleanWithoutLedger } from '../markup/clean';
import { compileRules } from '../markup/compile';
import type { CompiledRules } from '../markup/compiled';
import type { Json } from '../profile/merge-patch';
import { PROFILE_FORMAT } from '../profile/schema';
import { resolveProfile } from '../profile/resolve';

/** The narrow profile by which help is written: words, lists, links and pictures. */
export const HELP_PROFILE = {
  format: PROFILE_FORMAT,
  name: 'Help',
  markup: {
    elements: {
      p: {},
      strong: {},
      em: {},
      b: { outcome: 'rename', to: 'strong' },
      i: { outcome: 'rename', to: 'em' },
      ul: {},
      ol: {},
      li: {},
      br: {},
      img: {
        attributes: { src: { test: 'url' }, alt: { test: 'text', maxLength: 300 } },
        required: { src: { otherwise: 'drop' }, alt: { otherwise: 'add', value: '' } },
      },
      a: {
        attributes: { href: { test: 'url' } },
        required: { href: { otherwise: 'unwrap' } },
        forced: { rel: { value: 'noopener', when: 'with-address' } },
      },
    },
    urls: { schemes: { href: ['https', 'http', 'mailto'], src: ['https', 'http'] } },
  },
} as const;

let rules: CompiledRules | null = null;

/** Help as it may be shown: what its narrow profile does not keep is gone. */
export function cleanHelp(html: string): string {
  if (rules === null) {
    const resolution = resolveProfile('help', () => JSON.parse(JSON.stringify(HELP_PROFILE)) as Json);
    if (!resolution.ok) throw new Error('The profile of help does not resolve.');
    rules = compileRules(resolution.resolved);
  }
  return cleanWithoutLedger(html, rules);
}
