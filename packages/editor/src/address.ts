import type { CompiledRules } from '@typikon/core/editing';

/** What an address that an author typed becomes, or why it cannot be used. */
export type AddressAnswer = { address: string; note?: string } | { refusal: string };

const LOOKS_LIKE_HOST = /^[a-z0-9-]+(\.[a-z0-9-]+)+(:\d+)?([/?#].*)?$/i;
/** A colon stands in no name of a mailbox (RFC 5322, section 3.2.3), so what has one has its scheme already. */
const LOOKS_LIKE_MAIL = /^[^\s@/:]+@[a-z0-9-]+(\.[a-z0-9-]+)+$/i;
const LOOKS_LIKE_TELEPHONE = /^\+?[\d][\d\s().-]{4,}$/;

/** Repairs what is surely meant (a missing scheme), and asks the markup rules about the rest. */
export function checkAddress(typed: string, rules: CompiledRules, element = 'a', attribute = 'href'): AddressAnswer {
  const trimmed = typed.trim();
  if (trimmed === '') return { refusal: 'Type an address first.' };
  const repaired = LOOKS_LIKE_MAIL.test(trimmed)
    ? `mailto:${trimmed}`
    : LOOKS_LIKE_TELEPHONE.test(trimmed)
      ? `tel:${trimmed.replace(/[\s().-]/g, '')}`
      : LOOKS_LIKE_HOST.test(trimmed)
        ? `https://${trimmed}`
        : trimmed;
  if (/^https?:/i.test(repaired) && !URL.canParse(repaired))
    return { refusal: 'This is no address: after https:// comes the name of a host.' };
  if (/^mailto:/i.test(repaired) && !LOOKS_LIKE_MAIL.test(repaired.slice(7).split('?')[0]!))
    return { refusal: 'This is no mail address: it has a name, an @ and a host, such as duty@harbour.example.' };
  let address = repaired;
  for (const { judge } of rules.element(element).attributes.get(attribute)?.tests ?? []) {
    const verdict = judge(address);
    if ('refuse' in verdict) {
      return {
        refusal:
          verdict.refuse === 'scheme-not-allowed' || verdict.refuse === 'address-runs-code'
            ? `Links of the kind “${address.split(':')[0]}:” are not allowed here.`
            : verdict.refuse === 'relative-address-not-allowed'
              ? 'Write the whole address, beginning with https://.'
              : 'This address is not allowed here.',
      };
    }
    address = verdict.keep;
  }
  return repaired === trimmed ? { address } : { address, note: `Completed to ${address}` };
}
