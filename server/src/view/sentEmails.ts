import type { AnswerOf } from '@tolvek/contract';
import type { SentState } from '@tolvek/core/notice';
import { may, type Viewer } from '@tolvek/core/people';
import { type NoticePlan, USUAL_NOTICES } from '@tolvek/core/telling';
import { and, desc, eq, inArray, like, or, type SQL, sql } from 'drizzle-orm';
import { maySendAgain } from '../notice/failed.ts';
import { noticesOf } from '../notice/plan.ts';
import { notices } from '../notice/tables.ts';
import { historyOf, type KnownRequest } from '../notice/told.ts';
import { namesOf } from '../people/queries.ts';
import type { Reader } from '../platform/database.ts';
import { requestByNumber } from '../request/queries.ts';
import { emailTold } from './emailTold.ts';

/** So many are listed at once, and so many are looked at for them. */
const LISTED = 50;
const LOOKED_AT = 1_000;
const PAGE = 100;

const STATES = {
  all: null,
  failed: ['failed'],
  waiting: ['waiting', 'sending'],
  later: ['gathering'],
  sent: ['sent', 'gathered'],
  unsent: ['dropped'],
} as const satisfies Readonly<Record<SentState, readonly (typeof notices.$inferSelect)['state'][] | null>>;

interface Asked {
  readonly state: SentState;
  readonly find: string;
  readonly before?: string | undefined;
}

/** The emails of the desk, the newest first, as far as whoever looks may know of them. */
export function sentEmails(db: Reader, viewer: Viewer, { state, find, before }: Asked): AnswerOf<'sentEmails'> {
  const states = STATES[state];
  const among = and(states ? inArray(notices.state, [...states]) : undefined, found(db, find.trim()));
  // Many emails are about one request: each is opened once.
  const opened = new Map<string, (KnownRequest & { readonly plan: NoticePlan }) | null>();
  const about = (id: string) => {
    const before = opened.get(id);
    if (before !== undefined) return before;
    const known = historyOf(db, viewer, id);
    const found = known && { ...known, plan: noticesOf(db, known.open.request) };
    opened.set(id, found);
    return found;
  };
  const seesPeople = may(viewer, 'people');
  /** That a digest went, or had nothing left to tell, is told to who may know of something in it. */
  const knowsOf = ({ requestId, rule, kind, id }: typeof notices.$inferSelect): boolean => {
    if (requestId !== null) return about(requestId)?.knows(rule) ?? false;
    if (!seesPeople || kind !== 'digest') return seesPeople;
    const within = db.select().from(notices).where(eq(notices.inId, id)).all();
    return within.some((each) => each.requestId === null || about(each.requestId)?.knows(each.rule));
  };
  const emails: AnswerOf<'sentEmails'>['emails'] = [];
  let next = before ?? null;
  for (let looked = 0; looked < LOOKED_AT; looked += PAGE) {
    const rows = db
      .select()
      .from(notices)
      .where(and(among, next === null ? undefined : beforeThis(next)))
      .orderBy(desc(notices.createdAt), desc(notices.id))
      .limit(PAGE)
      .all();
    const names = namesOf(
      db,
      rows.flatMap(({ personId }) => personId ?? []),
    );
    for (const notice of rows) {
      next = `${notice.createdAt} ${notice.id}`;
      const known = notice.requestId === null ? null : about(notice.requestId);
      if (!knowsOf(notice)) continue;
      emails.push({
        ...emailTold(notice, { plan: known?.plan ?? USUAL_NOTICES, names }),
        ...{ number: known?.open.request.number ?? null, again: maySendAgain(notice) },
      });
      if (emails.length === LISTED) return { emails, next };
    }
    if (rows.length < PAGE) return { emails, next: null };
  }
  return { emails, next };
}

function beforeThis(place: string): SQL {
  const [at = '', id = ''] = place.split(' ');
  return sql`(${notices.createdAt}, ${notices.id}) < (${Number(at) || 0}, ${id})`;
}

/** What a name, an address or the number of a request finds. */
function found(db: Reader, words: string): SQL | undefined {
  if (words === '') return undefined;
  const request = requestByNumber(db, words.toUpperCase());
  if (request) return eq(notices.requestId, request.id);
  const pattern = `%${words.replace(/[%_]/g, '')}%`;
  return or(like(notices.toName, pattern), like(notices.toAddress, pattern));
}
