import { isAttributeForbidden } from '../markup/floor';
import { toPointer } from '../profile/pointer';
import { patchAt, type Check } from './check';

/** A required attribute that is not allowed could never be there, so the demand has no effect; the same for a forced one. */
export const lostDemand: Check = {
  id: 'lost-demand',
  purpose: 'Finds required attributes that are not allowed, and forced ones that cannot stay.',
  run({ resolved, rules }) {
    const { markup } = resolved.profile;
    return Object.entries(markup.elements).flatMap(([name, rule]) => {
      const compiled = rules.element(name);
      const required = Object.entries(rule.required ?? {}).filter(
        ([attribute]) => rule.attributes?.[attribute] === undefined && markup.attributes[attribute] === undefined,
      );
      const forced = Object.entries(rule.forced ?? {}).filter(
        ([attribute]) =>
          isAttributeForbidden(attribute, name) ||
          !(compiled.demands?.forced.some((demand) => demand.name === attribute && demand.by.rule.includes('/forced/')) ?? false),
      );
      const choices = (rule.anyOf?.attributes ?? []).filter((attribute) => !compiled.attributes.has(attribute));
      return [
        ...choices.map((attribute) => ({
          check: 'lost-demand',
          severity: 'warning' as const,
          sentence: `${attribute} is one of those that ${name} must have, but it is not allowed there, so it can never be the one.`,
          pointer: toPointer(['markup', 'elements', name, 'anyOf', 'attributes']),
          fix: {
            label: `Allow ${attribute} on ${name}`,
            patch: patchAt(['markup', 'elements', name, 'attributes', attribute], {
              test: attribute === 'src' || attribute === 'href' ? 'url' : 'text',
            }),
          },
        })),
        ...required.map(([attribute]) => ({
          check: 'lost-demand',
          severity: 'error' as const,
          sentence: `${attribute} is required on ${name}, but not allowed there, so the demand has no effect.`,
          pointer: toPointer(['markup', 'elements', name, 'required', attribute]),
          fix: {
            label: `Allow ${attribute} on ${name}`,
            patch: patchAt(['markup', 'elements', name, 'attributes', attribute], {
              test: attribute === 'src' || attribute === 'href' ? 'url' : 'text',
            }),
          },
        })),
        ...forced.map(([attribute]) => ({
          check: 'lost-demand',
          severity: 'warning' as const,
          sentence: `${attribute} is to be put on every ${name}, but cannot stay there: the element, the safety floor or the house limits refuse it.`,
          pointer: toPointer(['markup', 'elements', name, 'forced', attribute]),
        })),
      ];
    });
  },
};
