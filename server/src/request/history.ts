import { ESCALATION } from '@tolvek/core/deadline';
import type { Values } from '@tolvek/core/register';
import type { Happening, Rang } from '@tolvek/core/request';
import { and, asc, desc, eq } from 'drizzle-orm';
import { adding } from '../platform/adding.ts';
import type { Reader } from '../platform/database.ts';
import { newId } from '../platform/newId.ts';
import type { Work } from '../platform/work.ts';
import { undone } from './changes.ts';
import type { RequestRow } from './queries.ts';
import { type HistoryKind, history } from './tables.ts';

const addEntry = adding(history);

/** What an entry is called where entries are looked for by kind. */
const KINDS: Readonly<Record<Exclude<Happening['kind'], 'rang'>, HistoryKind>> = {
  arrived: 'arrived',
  values: 'fields',
  stage: 'stage',
  freed: 'stage',
  withdrawn: 'stage',
  team: 'handler',
  priority: 'handler',
  handler: 'handler',
  'nobody-handles': 'handler',
  said: 'comment',
  decided: 'decision',
  'decided-anew': 'decision',
  seat: 'decision',
  silent: 'decision',
  handed: 'decision',
  returned: 'decision',
  'sent-to-decide': 'decision',
  'taken-back': 'decision',
  answered: 'decision',
  'nobody-decides': 'decision',
  'same-person': 'handler',
  due: 'due',
  shared: 'handler',
  unshared: 'handler',
  followed: 'handler',
  unfollowed: 'handler',
  confirmed: 'fields',
  replanned: 'due',
  'links-ended': 'handler',
  'link-sent': 'handler',
  undelivered: 'handler',
  claimed: 'handler',
  proposed: 'decision',
  'proposal-refused': 'decision',
  'proposal-ended': 'decision',
  'put-back': 'stage',
  merged: 'stage',
  unmerged: 'stage',
  'took-in': 'stage',
  'let-out': 'stage',
};

/** What rang when something was due, or after it, is told as an escalation. */
const rangKind = ({ timer, at }: Rang): HistoryKind =>
  timer === ESCALATION || (at !== undefined && at >= 0) ? 'escalation' : 'reminder';

/**
 * Adds to what happened to a request: as data, from which words are made where it is shown. Values
 * stand in `changes` and what people wrote in `comment`, where they can be revealed; the data holds
 * neither.
 */
export function remember({ tx, now, actor }: Work, requestId: string, change: Happening): void {
  const kind = change.kind === 'rang' ? rangKind(change) : KINDS[change.kind];
  addEntry(tx, {
    ...{ id: newId(), requestId, at: now, actorId: actor, kind, words: '', data: dataOf(change) },
    changes: change.kind === 'values' ? change.changes : [],
    comment: commentOf(change),
  });
}

/** A change without what stands in columns of its own. */
export function dataOf(change: Happening): Happening {
  switch (change.kind) {
    case 'arrived': {
      const { taken: _, ...arrived } = change;
      return arrived;
    }
    case 'sent-to-decide':
    case 'decided-anew': {
      const { path: _, ...anew } = change;
      return anew;
    }
    case 'values':
      return { ...change, changes: [] };
    case 'said': {
      const { files: _, ...words } = change;
      return { ...words, text: '' };
    }
    case 'decided':
      return { ...change, comment: '' };
    case 'returned':
      return { ...change, text: '' };
    case 'team':
    case 'priority': {
      const { reason: _, ...moved } = change;
      return moved;
    }
    case 'freed':
    case 'withdrawn':
    case 'proposal-refused':
      return { ...change, reason: '' };
    default:
      return change;
  }
}

/** What was written with a change, and for whom. */
export function commentOf(change: Happening): (typeof history.$inferInsert)['comment'] {
  switch (change.kind) {
    case 'said':
      return {
        ...{ text: change.text, visibility: change.to === 'desk' ? 'internal' : change.to },
        ...(change.whom === undefined ? {} : { whom: change.whom }),
        ...(change.files && change.files.length > 0 ? { files: change.files } : {}),
      };
    case 'returned':
      return { text: change.text, visibility: 'requester' };
    case 'team':
    case 'priority':
    case 'handler':
      return change.reason ? { text: change.reason, visibility: 'internal' } : null;
    case 'freed':
      return { text: change.reason, visibility: 'internal' };
    case 'withdrawn':
      return change.reason ? { text: change.reason, visibility: 'requester' } : null;
    case 'proposal-refused':
      return { text: change.reason, visibility: 'internal' };
    case 'decided':
      // The reason goes to the requester, so they may read it here too.
      return change.comment ? { text: change.comment, visibility: 'requester' } : null;
    default:
      return null;
  }
}

/** The stages from which a request came to one, the last first. */
export const stagesBefore = (db: Reader, requestId: string, stage: string): readonly string[] =>
  db
    .select({ data: history.data })
    .from(history)
    .where(and(eq(history.requestId, requestId), eq(history.kind, 'stage')))
    .orderBy(desc(history.at), desc(history.id))
    .all()
    .flatMap(({ data }) =>
      (data?.kind === 'stage' || data?.kind === 'freed') && data.to === stage ? [data.from] : [],
    );

/** All that happened to a request, in its order. */
export const historyOfRequest = (db: Reader, requestId: string): readonly (typeof history.$inferSelect)[] =>
  db.select().from(history).where(eq(history.requestId, requestId)).orderBy(asc(history.at), asc(history.id)).all();

/** The values a request arrived with: those of now with all that changed since undone. */
export const arrivedWith = (db: Reader, { id, values }: Pick<RequestRow, 'id' | 'values'>): Values =>
  undone(
    values,
    historyOfRequest(db, id).flatMap((entry) => entry.changes),
  );
