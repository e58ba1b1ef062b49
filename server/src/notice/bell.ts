import type { AnswerOf } from '@tolvek/contract';
import { spokenLetter } from '@tolvek/core/notice';
import type { Viewer } from '@tolvek/core/people';
import { USUAL_NOTICES } from '@tolvek/core/telling';
import { and, desc, eq, gt, isNotNull, ne, or, sql } from 'drizzle-orm';
import { releaseInForce } from '../form/queries.ts';
import { type PersonRow, personById, viewerIn } from '../people/queries.ts';
import { people } from '../people/tables.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { prepared } from '../platform/prepared.ts';
import { speechFor } from '../platform/words.ts';
import { write } from '../platform/work.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import { isOwnOf, type RequestRow, requestById } from '../request/queries.ts';
import { deskOf } from '../settings/queries.ts';
import { type AboutRequest, letterAbout } from './aboutRequest.ts';
import type { Notice } from './outbox.ts';
import { notices } from './tables.ts';
import { knowsOf } from './told.ts';

/** So far back it is looked for what somebody was told, ms; and so much of it is looked at. */
const BACK = 30 * 86_400_000;
const LOOKED_AT = 60;
/** So much is shown. */
const SHOWN = 20;

const toldTo = prepared((db) =>
  db
    .select()
    .from(notices)
    .where(
      and(
        eq(notices.personId, sql.placeholder('person')),
        gt(notices.createdAt, sql.placeholder('since')),
        isNotNull(notices.requestId),
        // What somebody wants no email of they still find here.
        or(ne(notices.state, 'dropped'), eq(notices.why, 'choice')),
      ),
    )
    .orderBy(desc(notices.createdAt), desc(notices.id))
    .limit(LOOKED_AT)
    .prepare(),
);

/** What somebody was told lately about requests that they may still read, the newest first, and how much of it is new to them. */
export function bellOf(db: Reader, { personId }: Viewer, now: number): AnswerOf<'bell'> {
  const person = personById(db, personId);
  if (!person) return { unseen: 0, items: [] };
  const viewer = viewerIn(db, person);
  const opened = new Map<string, Opened | null>();
  const once = new Set<string>();
  const items: AnswerOf<'bell'>['items'] = [];
  for (const notice of toldTo(db).all({ person: personId, since: now - BACK })) {
    // The same by several ways is told once.
    const same = [notice.requestId, notice.kind, notice.rule, notice.createdAt].join(' ');
    if (once.has(same)) continue;
    const id = notice.requestId ?? '';
    let about = opened.get(id);
    if (about === undefined) opened.set(id, (about = openedFor(db, viewer, id)));
    const words = about?.knows(notice.rule) ? inWords(db, notice, { ...about, person }, now) : null;
    if (!about || words === null) continue;
    once.add(same);
    const { number } = about.request;
    items.push({
      ...{ id: notice.id, at: iso(notice.createdAt), words },
      path: about.isTheirs ? `/my/${number}` : `/floor/all/${number}`,
      isNew: notice.createdAt > (person.bellSeenAt ?? 0),
    });
    if (items.length === SHOWN) break;
  }
  return { unseen: items.filter(({ isNew }) => isNew).length, items };
}

interface Opened {
  readonly request: RequestRow;
  readonly open: OpenRequest;
  readonly isTheirs: boolean;
  readonly knows: (rule: string | null) => boolean;
}

/** A request as somebody has it in emails; null where they may not read it any more. */
function openedFor(db: Reader, viewer: Viewer, id: string): Opened | null {
  const request = requestById(db, id);
  if (!request) return null;
  const open = openRequest(db, request, viewer, 'letter');
  const isTheirs = isOwnOf(request, viewer.personId);
  return open.relation.isDesk || isTheirs ? { request, open, isTheirs, knows: knowsOf(db, open) } : null;
}

/** What the email is called; as it would be now, where it did not go. Null where nothing is left to tell. */
function inWords(
  db: Reader,
  { subject, cause }: Notice,
  { person, request, open }: Opened & { readonly person: PersonRow },
  now: number,
): string | null {
  if (subject !== '') return subject;
  if (!cause) return null;
  const design = releaseInForce(db, request.formId)?.design;
  const out = letterAbout(db, { request, person, open, now }, cause as AboutRequest, {
    ...{ plan: design?.notices ?? USUAL_NOTICES, fields: design?.fields ?? [], readsAnswers: false },
    follows: () => ({ way: null, until: null }),
  });
  if (out === null || out === 'hidden') return null;
  const { zone } = deskOf(db);
  return spokenLetter(out.letter, speechFor({ language: out.language, zone }).told).subject;
}

/** Somebody has looked at what they were told until a moment. */
export function seeBell(house: House, { personId }: Viewer, until: string): void {
  write(house, ({ tx, now }) => {
    tx.update(people)
      .set({ bellSeenAt: Math.min(now, Date.parse(until)) })
      .where(eq(people.id, personId))
      .run();
  });
}
