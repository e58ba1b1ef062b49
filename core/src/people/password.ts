import { type Said, said } from '@tolvek/words';

/** Signs a password needs at least, and may have at most. */
export const PASSWORD_LENGTH = { least: 10, most: 200 } as const;

/**
 * What is wrong with a password, or null. Length is asked for, and no mixture of signs (NIST SP
 * 800-63B, 3.1.1.2); what everybody would guess of this person, one sign again and again, and a
 * plain row of signs are refused.
 */
export function passwordProblem(password: string, known: readonly string[]): Said | null {
  const { least, most } = PASSWORD_LENGTH;
  if ([...password].length < least) return said('start:passwordShort', { least });
  if (password.length > most) return said('start:passwordLong', { most });
  const plain = password.toLowerCase();
  const isPlain =
    new Set(plain).size < 4 ||
    isRow(plain) ||
    known
      .flatMap((each) => each.toLowerCase().split(/[\s@.,]+/))
      .some((part) => part.length > 3 && plain.includes(part) && plain.length - part.length < 6);
  return isPlain ? said('start:passwordPlain') : null;
}

/** Whether each sign follows the one before it by the same step, as in `abcdefghij` and `9876543210`. */
function isRow(text: string): boolean {
  const steps = [...text].slice(1).map((sign, place) => sign.charCodeAt(0) - text.charCodeAt(place));
  return new Set(steps).size === 1;
}
