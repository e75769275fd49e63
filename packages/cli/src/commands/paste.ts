import { runPaste, type ClipboardPayload, type PasteOptions, type ResolvedProfile } from '@typikon/core';
import { dictionary } from '../dictionary';
import { readArguments } from '../arguments';
import { Failure } from '../failure';
import { readText } from '../files';
import { print } from '../output';
import { readRuleOptions, RULE_OPTIONS } from '../rule-options';
import type { Command } from './command';

const usage = 'paste --profile P.json [--house H.json] [--role R] [--json | --jsonl] FILE|-';

/** Takes pasted content through a profile's passes and its markup rules. */
export const pasteCommand: Command = {
  name: 'paste',
  usage,
  examples: ['paste --profile demo/profiles/story-desk.json --json letter.html'],
  purpose:
    'Takes HTML, or a clipboard payload {"types": {"text/html": …}, "files": []}, through the paste passes and the markup rules; with --json also the source, the ledger and what every pass did.',
  run(args) {
    const { values, positionals } = readArguments(args, RULE_OPTIONS, usage);
    if (positionals.length !== 1) throw new Failure(`Give one file, or - for standard input. Usage: typikon ${usage}`);
    const { resolved, options: ruleOptions } = readRuleOptions(values, usage);
    const options: PasteOptions = { ...ruleOptions, isWord: dictionary() };
    const [path] = positionals as [string];
    const text = readText(path);
    if (values.jsonl === true) pasteLines(text, resolved, options, path);
    else if (values.json === true) print(`${JSON.stringify(report(payloadIn(text, path), resolved, options))}\n`);
    else print(runPaste(payloadIn(text, path), resolved, options).html);
    return 0;
  },
};

function report(payload: ClipboardPayload, resolved: ResolvedProfile, options: PasteOptions): object {
  const { html, source, ledger, trace, rulesTrace, pictures, picturesToUpload } = runPaste(payload, resolved, {
    ...options,
    trace: 'html',
  });
  return {
    html,
    source,
    ledger,
    trace: trace.map(({ bytesAfter, ...rest }) => ({ ...rest, bytes: bytesAfter })),
    rules: rulesTrace,
    pictures: pictures.map(({ address, type, alt, bytes }) => ({ address, type, alt, bytes: bytes.length })),
    picturesToUpload,
  };
}

/** A file that is JSON with `types` is a payload; anything else is markup. */
function payloadIn(text: string, name: string): ClipboardPayload {
  if (!/^\s*\{\s*"/.test(text)) return { types: { 'text/html': text } };
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch (error) {
    throw new Failure(`${name}: looks like a clipboard payload but is not JSON, ${(error as Error).message}.`);
  }
  return checked(value, name);
}

function checked(value: unknown, name: string): ClipboardPayload {
  const types = (value as { types?: unknown } | null)?.types;
  if (
    typeof types !== 'object' ||
    types === null ||
    Array.isArray(types) ||
    !Object.values(types).every((text) => typeof text === 'string')
  )
    throw new Failure(
      `${name}: a clipboard payload needs "types", an object with a text for each type, such as {"types": {"text/html": "<p>…"}}.`,
    );
  return value as ClipboardPayload;
}

function pasteLines(text: string, resolved: ResolvedProfile, options: PasteOptions, name: string): void {
  text.split('\n').forEach((line, index) => {
    if (line.trim() === '') return;
    const at = `${name}:${index + 1}`;
    let item: { id?: unknown; html?: unknown } | null;
    try {
      item = JSON.parse(line) as typeof item;
    } catch (error) {
      throw new Failure(`${at}: is not JSON, ${(error as Error).message}.`);
    }
    const payload = typeof item?.html === 'string' ? { types: { 'text/html': item.html } } : checked(item, at);
    const { html, ledger } = runPaste(payload, resolved, options);
    print(`${JSON.stringify({ id: item?.id, html, ledger })}\n`);
  });
}
