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

/** Signs a name may have at most. */
const NAME_LENGTH = 60;
/**
 * Letters of any script with their marks, spaces, and the few signs that names are written with.
 */
const NAME = /^[\p{L}\p{M} .'’‘\-–]+$/u;

/**
 * What is missing or wrong in who asks. A name stands in letters that others get, so it can be a
 * name only: no address, no number, nothing that could be pressed.
 */
export function contactProblems(contact: ContactAnswer): readonly Problem[] {
  const [name, email] = [contact.name.trim(), contact.email.trim()];
  const problems: Problem[] = [];
  for (const [field, value] of [
    ['contact.name', name],
    ['contact.email', email],
  ] as const) {
    if (value === '')
      problems.push({
        ...{ field, message: `“${CONTACT_LABELS[field]}” has no answer yet.`, fix: 'Fill it in.' },
        why: 'unanswered',
      });
  }
  if (email !== '' && !isMailAddress(email)) {
    problems.push({
      field: 'contact.email',
      message: `“${email}” is not a mail address.`,
      fix: 'Give an address like name@institute.example; the confirmation goes there.',
    });
  }
  if (name.length > NAME_LENGTH) {
    problems.push({
      field: 'contact.name',
      message: `“${CONTACT_LABELS['contact.name']}” is longer than ${NAME_LENGTH} letters.`,
      fix: 'Give the name you are called by.',
    });
  } else if (name !== '' && !NAME.test(name)) {
    problems.push({
      field: 'contact.name',
      message: `“${CONTACT_LABELS['contact.name']}” holds signs that names are not written with.`,
      fix: 'Use letters, spaces, full stops, hyphens and apostrophes only.',
    });
  }
  return problems;
}
