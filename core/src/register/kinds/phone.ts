import { said } from '@tolvek/words';
import { EMPTY, isBlank, type KindWork, TEXT_WORK, wrong } from './kind.ts';

/** A telephone number has at most 15 digits (ITU-T E.164); fewer than 5 reach nobody. */
const [FEWEST, MOST] = [5, 15];

/**
 * A telephone number, kept with single spaces between the groups it was typed in: `+353 1 555
 * 0142`.
 */
export const phone: KindWork<'phone'> = {
  ...TEXT_WORK,
  read: (raw) => {
    if (isBlank(raw)) return EMPTY;
    const typed = String(raw).trim();
    const grouped = typed.replace(/[\s().\-/]+/g, ' ').trim();
    const digits = grouped.replace(/\D/g, '').length;
    if (!/^\+?[\d ]+$/.test(grouped)) return wrong(said('answers:notAPhone', { typed }), said('answers:likePhone'));
    if (digits < FEWEST || digits > MOST)
      return wrong(said('answers:phoneDigits', { digits, fewest: FEWEST, most: MOST }), said('answers:checkPhone'));
    return { state: 'value', value: grouped };
  },
};
