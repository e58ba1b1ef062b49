import { said } from '@tolvek/words';
import { EMPTY, isBlank, type KindWork, TEXT_WORK, wrong } from './kind.ts';

const LONGEST = 2_000;
const FIX = said('answers:likeLink');

/**
 * The address a text writes, `https` unless it says otherwise; null when it is none that a browser
 * should open.
 */
function addressOf(typed: string): URL | null {
  const whole = /^[a-z][a-z0-9+.-]*:/i.test(typed) && !/^[^/]+:\d/.test(typed) ? typed : `https://${typed}`;
  const address = URL.canParse(whole) ? new URL(whole) : null;
  if (!address || (address.protocol !== 'https:' && address.protocol !== 'http:')) return null;
  return address.hostname.includes('.') && address.username === '' ? address : null;
}

/** The address of a page; only what is safe to open is taken. */
export const link: KindWork<'link'> = {
  ...TEXT_WORK,
  read: (raw) => {
    if (isBlank(raw)) return EMPTY;
    if (typeof raw !== 'string') return wrong(said('answers:notALinkValue'), FIX);
    const typed = raw.trim();
    if (typed.length > LONGEST)
      return wrong(said('answers:tooLong', { length: typed.length, most: LONGEST }), said('answers:shorterLink'));
    // A bare number would become an address of the network: `0` is `0.0.0.0`.
    const address = /\s/.test(typed) || !typed.includes('.') ? null : addressOf(typed);
    return address ? { state: 'value', value: address.href } : wrong(said('answers:notALink', { typed }), FIX);
  },
  show: (value) =>
    String(value)
      .replace(/^https:\/\//, '')
      .replace(/\/$/, ''),
};
