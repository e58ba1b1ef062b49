import { isMailAddress, type Problem } from '../register/index.ts';

/** Who asks from outside. */
export interface ContactAnswer {
  readonly name: string;
  readonly email: string;
}

export const CONTACT_LABELS: Readonly<Record<string, string>> = {
  'contact.name': 'Your name',
  'contact.email': 'Your mail address',
};

/** What is missing or wrong in who asks. */
export function contactProblems(contact: ContactAnswer): readonly Problem[] {
  const [name, email] = [contact.name.trim(), contact.email.trim()];
  const problems: Problem[] = [];
  for (const [field, value] of [
    ['contact.name', name],
    ['contact.email', email],
  ] as const) {
    if (value === '')
      problems.push({ field, message: `“${CONTACT_LABELS[field]}” has no answer yet.`, fix: 'Fill it in.' });
  }
  if (email !== '' && !isMailAddress(email)) {
    problems.push({
      field: 'contact.email',
      message: `“${email}” is not a mail address.`,
      fix: 'Give an address like name@institute.example; the confirmation goes there.',
    });
  }
  return problems;
}
