import { isSame } from '@tolvek/core/design';
import { MAILING, type MailingDesign } from '@tolvek/core/mailing';
import { inPlace } from '@tolvek/core/people';
import { changeAtOnce, type Done } from '../design/commands.ts';
import { designsOf } from '../design/queries.ts';
import type { Transaction } from '../platform/database.ts';

/** Puts other words in the place of some in the audiences of all mailings, as when two records become one person. */
export function renameInMailings(
  tx: Transaction,
  words: Readonly<Record<string, string>>,
  note: string,
  done: Done,
): void {
  for (const design of designsOf<MailingDesign>(tx, MAILING)) {
    const { to } = design.draft;
    if (!('audience' in to)) continue;
    const content = { ...design.draft, to: { audience: inPlace(to.audience, words) } };
    if (!isSame(content, design.draft)) changeAtOnce(tx, design, { version: design.version, content, note }, done);
  }
}
