import { Assignments, isObject, type Assigning, type Json, type JsonObject } from '@typikon/core';
import { readArguments, required } from '../arguments';
import { Failure } from '../failure';
import { readJson } from '../files';
import { print } from '../output';
import type { Command } from './command';

const usage = 'assign --site S.json --role R[,R…] --type T --field F [--json]';

/** Answers who writes where with which profile, and by which statement. */
export const assignCommand: Command = {
  name: 'assign',
  usage,
  examples: ['assign --site demo/site.json --role duty-office --type notice --field body'],
  purpose:
    'Tells with which profile somebody with a role writes in a field of a content type: the statement of the site that won, and those it beat, by their places from 0. Exit code 1 says that nobody may write there.',
  run(args) {
    const { values } = readArguments(
      args,
      {
        site: { type: 'string' },
        role: { type: 'string' },
        type: { type: 'string' },
        field: { type: 'string' },
        json: { type: 'boolean' },
      },
      usage,
    );
    const path = required(values.site, 'site', usage);
    const roles = required(values.role, 'role', usage)
      .split(',')
      .map((role) => role.trim())
      .filter((role) => role !== '');
    const type = required(values.type, 'type', usage);
    const field = required(values.field, 'field', usage);
    const site = readSite(path);
    for (const role of roles) if (!site.roles.has(role)) throw new Failure(`${path}: there is no role "${role}".`);
    const fields = site.types.get(type);
    if (fields === undefined) throw new Failure(`${path}: there is no content type "${type}".`);
    if (!fields.has(field)) throw new Failure(`${path}: the content type "${type}" has no field "${field}".`);
    const answer = new Assignments(site).why({ roles, type, field });
    if (values.json === true) print(`${JSON.stringify(answer)}\n`);
    else print(`${inWords(answer)}\n`);
    return answer.profile === null ? 1 : 0;
  },
};

function inWords({ profile, choices, statement, beaten }: ReturnType<Assignments['why']>): string {
  if (profile === null) return 'Nobody with these roles may write there: no statement fits.';
  const others = choices.length > 1 ? ` Also allowed: ${choices.slice(1).join(', ')}.` : '';
  const why = statement === null ? 'No statement fits, so the fallback holds.' : `By statement ${statement}.`;
  return `${profile}. ${why}${beaten.length > 0 ? ` It comes before ${beaten.join(', ')}, which fit as well.` : ''}${others}`;
}

/** What of a site document it depends on who writes with what; the rest of the document may say whatever it will. */
function readSite(path: string): Assigning & { roles: ReadonlySet<string>; types: ReadonlyMap<string, ReadonlySet<string>> } {
  const document = readJson(path);
  if (!isObject(document)) throw new Failure(`${path}: a site is a JSON object.`);
  if (document['format'] !== 'typikon-site/1') throw new Failure(`${path} at /format: must be "typikon-site/1".`);
  const listOf = (key: string): JsonObject[] => {
    const list = document[key] ?? [];
    if (!Array.isArray(list)) throw new Failure(`${path} at /${key}: must be a list.`);
    return list.map((one, at) => {
      if (!isObject(one)) throw new Failure(`${path} at /${key}/${at}: must be an object.`);
      return one;
    });
  };
  const idOf = (value: Json | undefined, at: string): string => {
    if (typeof value !== 'string' || value === '') throw new Failure(`${path} at ${at}: must be a text.`);
    return value;
  };
  const idsOf = (value: Json | undefined, at: string): string[] => {
    if (!Array.isArray(value)) throw new Failure(`${path} at ${at}: must be a list.`);
    return value.map((one, place) => idOf(one, `${at}/${place}`));
  };
  const namesOf = (value: Json | undefined, at: string): '*' | string[] => (value === '*' ? '*' : idsOf(value, at));
  return {
    roles: new Set(listOf('roles').map(({ id }, at) => idOf(id, `/roles/${at}/id`))),
    types: new Map(
      listOf('types').map((type, at) => {
        const fields = type['fields'] ?? [];
        if (!Array.isArray(fields)) throw new Failure(`${path} at /types/${at}/fields: must be a list.`);
        return [
          idOf(type['id'], `/types/${at}/id`),
          new Set(fields.map((field, place) => idOf(isObject(field) ? field['key'] : undefined, `/types/${at}/fields/${place}/key`))),
        ];
      }),
    ),
    assignments: listOf('assignments').map((statement, at) => ({
      roles: namesOf(statement['roles'], `/assignments/${at}/roles`),
      types: namesOf(statement['types'], `/assignments/${at}/types`),
      fields: namesOf(statement['fields'], `/assignments/${at}/fields`),
      profiles: idsOf(statement['profiles'], `/assignments/${at}/profiles`),
    })),
    fallback: document['fallback'] === undefined ? [] : idsOf(document['fallback'], '/fallback'),
  };
}
