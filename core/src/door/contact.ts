import type { Problem } from '../register/index.ts';

/** Who asks from outside. */
export interface ContactAnswer {
  readonly name: string;
  readonly email: string;
}

export const CONTACT_LABELS: Readonly<Record<string, string>> = { 'contact.name': 'Your name', 'contact.email': 'Your mail address' };

/** A valid e-mail address, as the HTML standard has it (WHATWG, 4.10.5.1.5), with a dot in its domain. */
const ADDRESS = /^[a-z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?)+$/i;
const LONGEST = 254;

export const isMailAddress = (text: string): boolean => text.length <= LONGEST && ADDRESS.test(text);

/** What is missing or wrong in who asks. */
export function contactProblems(contact: ContactAnswer): readonly Problem[] {
  const [name, email] = [contact.name.trim(), contact.email.trim()];
  const problems: Problem[] = [];
  for (const [field, value] of [
    ['contact.name', name],
    ['contact.email', email],
  ] as const) {
    if (value === '') problems.push({ field, message: `“${CONTACT_LABELS[field]}” has no answer yet.`, fix: 'Fill it in.' });
  }
  if (email !== '' && !isMailAddress(email)) {
    problems.push({ field: 'contact.email', message: `“${email}” is not a mail address.`, fix: 'Give an address like name@institute.example; the confirmation goes there.' });
  }
  return problems;
}
