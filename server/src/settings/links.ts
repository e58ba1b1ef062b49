import type { LinkUse } from '@tolvek/core/settings';
import type { Reader, Transaction } from '../platform/database.ts';
import { issueLink, type Link } from '../platform/links.ts';
import { deskOf } from './queries.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;

/** The setting that says how long a link works; what became of a request is asked as long as it can be confirmed. */
const USES = {
  ...{ confirm: 'confirm', sent: 'confirm', decide: 'decide', follow: 'follow', resume: 'resume', invite: 'invite' },
  owed: 'follow',
  accept: 'decide',
} as const satisfies Partial<Record<Link['purpose'], LinkUse>>;

/** Links to a first start and to a new password are made for somebody who waits for them. */
const ONE_HOUR: ReadonlySet<Link['purpose']> = new Set(['first-start', 'reset']);
/** What somebody signs in by, who waits for it: a code of six digits opens no longer. */
const A_MOMENT = 20 * 60_000;

/** When a link made now ends, epoch ms. */
export const linkEnds = (db: Reader, purpose: Link['purpose'], now: number): number =>
  now +
  (purpose === 'sign-in'
    ? A_MOMENT
    : ONE_HOUR.has(purpose)
      ? HOUR
      : deskOf(db).links[USES[purpose as keyof typeof USES]] * DAY);

/** Makes a link that works as long as the desk says. Returns its id and token. */
export const linkFor = (
  tx: Transaction,
  secret: string,
  { now, ...link }: Pick<Link, 'purpose' | 'personId' | 'targetId'> & { readonly now: number },
): { readonly id: string; readonly token: string } =>
  issueLink(tx, secret, { ...link, createdAt: now, expiresAt: linkEnds(tx, link.purpose, now) });
