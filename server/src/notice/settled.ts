import { subjectLine } from '@tolvek/core/notice';
import type { Transaction } from '../platform/database.ts';
import { renewLink } from '../platform/links.ts';
import type { Notice, Posting, Settled } from './outbox.ts';
import { linksIn, worded } from './wording.ts';

/** What becomes of a notice that is about to go in the words of a letter: worded the first time, the same from then on. */
export function settledInWords(
  { config }: Pick<Posting, 'config'>,
  tx: Transaction,
  notice: Notice,
  now: number,
): Settled {
  if (notice.said) {
    for (const link of linksIn(notice.said)) renewLink(tx, config.secret, link);
    return { state: 'sending' };
  }
  const out = worded({ config }, tx, notice, now);
  if (out === null || out === 'hidden') return { state: 'dropped', why: out ?? 'nothing' };
  return { state: 'sending', ...out, subject: subjectLine(out.said.letter.subject) };
}
