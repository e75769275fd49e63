import { compileRules, resolveProfile, type CompiledRules, type JsonObject } from '../src/index';

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
  const markup: JsonObject = {
    elements: Object.fromEntries(names.map((name) => [name, {}])),
    attributes,
    urls: { schemes: { href: everything, src: everything, action: everything, cite: everything, poster: everything } },
    comments: 'keep',
  };
  const resolution = resolveProfile('permissive', () => ({ format: 'typikon-profile/1', name: 'Most permissive', markup }));
  if (!resolution.ok) throw new Error(JSON.stringify(resolution.problems));
  return compileRules(resolution.resolved);
}
