import { said } from '@tolvek/words';
import { isMailAddress, type Problem } from '../register/index.ts';

/** Who asks from outside. */
export interface ContactAnswer {
  readonly name: string;
  readonly email: string;
}

export const CONTACT_LABELS = { 'contact.name': 'answers:yourName', 'contact.email': 'answers:yourEmail' } as const;

/** Whether a problem is about who asks, not about an answer. */
export const isContactField = (field: string): field is keyof typeof CONTACT_LABELS =>
  Object.hasOwn(CONTACT_LABELS, field);

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
        ...{
          field,
          message: said('answers:unanswered', { label: said(CONTACT_LABELS[field]) }),
          fix: said('answers:fillIn'),
        },
        why: 'unanswered',
      });
  }
  if (email !== '' && !isMailAddress(email)) {
    problems.push({
      field: 'contact.email',
      message: said('answers:notAnEmail', { typed: email }),
      fix: said('answers:likeEmailConfirm'),
    });
  }
  if (name.length > NAME_LENGTH) {
    problems.push({
      field: 'contact.name',
      message: said('answers:nameTooLong', { most: NAME_LENGTH }),
      fix: said('answers:shorterName'),
    });
  } else if (name !== '' && !NAME.test(name)) {
    problems.push({
      field: 'contact.name',
      message: said('answers:nameOddSigns'),
      fix: said('answers:nameSigns'),
    });
  }
  return problems;
}
