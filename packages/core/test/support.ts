import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import {
  compileRules,
  readHouseLimits,
  resolveProfile,
  type CompiledRules,
  type CompileOptions,
  type HouseLimits,
  type Json,
  type JsonObject,
  type ResolvedProfile,
} from '../src/index';

export const DEMO = join(__dirname, '..', '..', '..', 'demo');

const json = (path: string): JsonObject => JSON.parse(readFileSync(path, 'utf8')) as JsonObject;

export const DEMO_PROFILES = readdirSync(join(DEMO, 'profiles')).map((file) => file.replace('.json', ''));
export const DEMO_MARKUP = ['documents', 'specimens'].flatMap((folder) =>
  readdirSync(join(DEMO, folder)).map((file) => ({ name: `${folder}/${file}`, html: readFileSync(join(DEMO, folder, file), 'utf8') })),
);

export function demoHouse(): HouseLimits {
  const read = readHouseLimits(json(join(DEMO, 'house-limits.json')));
  if (!read.ok) throw new Error(JSON.stringify(read.problems));
  return read.house;
}

export function demoProfile(id: string): ResolvedProfile {
  return resolved(id, (other) => json(join(DEMO, 'profiles', `${other}.json`)));
}

export function demoRules(id: string, options?: CompileOptions): CompiledRules {
  return compileRules(demoProfile(id), options);
}

export function resolved(id: string, documentOf: (id: string) => Json | undefined): ResolvedProfile {
  const resolution = resolveProfile(id, documentOf);
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return resolution.resolved;
}

/** A profile with nothing but markup rules. */
export function profileOf(markup: JsonObject): ResolvedProfile {
  return resolved('test', () => ({ format: 'typikon-profile/1', name: 'Test', markup }));
}

export function rulesOf(markup: JsonObject, options?: CompileOptions): CompiledRules {
  return compileRules(profileOf(markup), options);
}

/** Lets through as much as the safety floor permits. */
export function mostPermissive(): CompiledRules {
  const text = { test: 'text' };
  const names =
    'p div span a b i u s em strong small big sub sup code pre kbd samp var cite q dfn abbr time data del ins br wbr hr img picture source figure figcaption h1 h2 h3 h4 h5 h6 ul ol li dl dt dd menu table caption colgroup col thead tbody tfoot tr td th blockquote section article aside header footer nav main details summary form input button select option optgroup textarea label fieldset legend dialog iframe video audio track map area font center address ruby rt rp bdi bdo mark progress meter output tt strike svg math script style object embed noscript template x-card'.split(
      ' ',
    );
  const attributes: JsonObject = {};
  for (const name of 'id class title lang dir href src alt name value type width height action target rel style onclick onerror srcdoc srcset formaction xlink:href cite poster data-x aria-label role align for'.split(
    ' ',
  ))
    attributes[name] = text;
  const everything = ['https', 'http', 'mailto', 'tel', 'javascript', 'data', 'vbscript', 'ftp'];
  return rulesOf({
    elements: Object.fromEntries(names.map((name) => [name, {}])),
    attributes,
    urls: { schemes: { href: everything, src: everything, action: everything, cite: everything, poster: everything } },
    comments: 'keep',
  });
}
