import { MAILING } from '@tolvek/core/mailing';
import { inPlace } from '@tolvek/core/people';
import { changeEach, type Done } from '../design/commands.ts';
import type { Transaction } from '../platform/database.ts';

/** Puts other words in the place of some in the audiences of all mailings, as when two records become one person. */
export const renameInMailings = (
  tx: Transaction,
  words: Readonly<Record<string, string>>,
  note: string,
  done: Done,
): void =>
  changeEach(
    tx,
    MAILING,
    (mailing) =>
      'audience' in mailing.to ? { ...mailing, to: { audience: inPlace(mailing.to.audience, words) } } : mailing,
    note,
    done,
  );

/** Sends by the address that a door has now what was sent by the one it had. */
export const sendByAddress = (tx: Transaction, from: string, to: string, done: Done): void =>
  changeEach(tx, MAILING, (mailing) => (mailing.door === from ? { ...mailing, door: to } : mailing), '', done);
