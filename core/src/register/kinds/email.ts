import { said } from '@tolvek/words';
import { EMPTY, isBlank, type KindWork, TEXT_WORK, wrong } from './kind.ts';

/**
 * A valid e-mail address, as the HTML standard has it (WHATWG, 4.10.5.1.5), with a dot in its
 * domain.
 */
const ADDRESS =
  /^[a-z0-9.!#$%&'*+/=?^_`{|}~-]+@[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?(?:\.[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?)+$/i;
/** RFC 5321, 4.5.3.1.3, less the angle brackets. */
const LONGEST = 254;

export const isMailAddress = (text: string): boolean => text.length <= LONGEST && ADDRESS.test(text);

/** One mail address; its domain is kept in small letters, as letters there mean the same. */
export const email: KindWork<'email'> = {
  ...TEXT_WORK,
  read: (raw) => {
    if (isBlank(raw)) return EMPTY;
    const typed = typeof raw === 'string' ? raw.trim() : String(raw);
    if (!isMailAddress(typed)) return wrong(said('answers:notAnEmail', { typed }), said('answers:likeEmail'));
    const at = typed.lastIndexOf('@');
    return { state: 'value', value: `${typed.slice(0, at)}${typed.slice(at).toLowerCase()}` };
  },
};
