import type { AnswerOf } from '@tolvek/contract';
import { holdersOf, type Viewer } from '@tolvek/core/people';
import { and, eq, ne, sql } from 'drizzle-orm';
import { asksWhenChanged } from '../approval/anew.ts';
import { stepOf } from '../approval/queries.ts';
import { canReturn } from '../desk/decide.ts';
import { movesOf } from '../desk/moves.ts';
import { namesOf, personNamed } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Reader } from '../platform/database.ts';
import { listed } from '../platform/prepared.ts';
import { notFound } from '../platform/problem.ts';
import { historyOfRequest } from '../request/history.ts';
import { type OpenRequest, openAtWork, openRequest } from '../request/open.ts';
import { type RequestRow, whoseIs } from '../request/queries.ts';
import { requests } from '../request/tables.ts';
import { vocabulariesFor } from '../vocabulary/queries.ts';
import { finishTold } from './deadlines.ts';
import { whyNotDecide } from './decision.ts';
import { filesOf, looked, momentOr, shownOf, wordsOf } from './sheet.ts';

type Given = AnswerOf<'given'>;

/**
 * A request as somebody from outside sees it who was asked to handle or to decide it: what the plan leaves to them, in the
 * words that requesters read, and what they can do with it.
 *
 * @throws Problem 404 for everybody else, and once they are not asked any more
 */
export function givenView(db: Reader, viewer: Viewer, number: string, now: number): Given {
  const open = openAtWork(db, viewer, number, 'sheet');
  const { request, relation, register, design } = open;
  if (!relation.calledIn) throw notFound('request');
  const handles = relation.onlyReads !== true;
  const about = looked(db, open);
  const { round } = about;
  const decides = round?.state === 'open' && whyNotDecide(db, round, viewer, whoseIs(request)) === null;
  const values = shownOf(open);
  const writable = new Set(values.fields.flatMap((field) => (field.writable ? [field.key] : [])));
  const changing = open.fields.filter((field) => writable.has(field.key));
  return {
    ...{ number: request.number, version: request.version, subject: open.subject, stage: open.publicStage },
    form: open.layout?.edition.title || design.title,
    requester: personNamed(db, request.requesterId),
    due: momentOr(finishTold(db, open)),
    ...{ values, words: wordsOf(open), hops: about.hops('requester', null), handles },
    moves: handles && round?.state !== 'open' ? waysOn(db, open, viewer, now) : [],
    changing: {
      types: about.typesOf(changing),
      help: about.helpOf(changing),
      vocabularies: vocabulariesFor(db, changing, open.spoken),
      asksAgain: asksWhenChanged(db, request, round).filter((key) => writable.has(key)),
    },
    mayWrite: handles && request.requesterId !== null,
    messages: handles ? messagesOf(db, open, viewer) : [],
    decision:
      decides && round
        ? {
            step: stepOf(round).label,
            until: momentOr(stepOf(round).dueAt),
            mayReturn: canReturn(request, register),
            seen: open.seen,
          }
        : null,
  };
}

/** Where whoever handles it can move it to, as requesters read the stages. Why not elsewhere is the desk’s. */
const waysOn = (db: Reader, open: OpenRequest<RequestRow>, viewer: Viewer, now: number): Given['moves'] =>
  movesOf(db, open, viewer, now).flatMap(({ stage: { key, publicLabel }, whyNot }) =>
    whyNot === null ? [{ key, label: publicLabel }] : [],
  );

function messagesOf(db: Reader, open: OpenRequest<RequestRow>, { personId }: Viewer): Given['messages'] {
  const written = historyOfRequest(db, open.request.id).filter((entry) => open.readsWords(entry));
  const names = namesOf(
    db,
    written.flatMap(({ actorId }) => actorId ?? []),
  );
  return written.flatMap(({ at, actorId, comment }) =>
    comment
      ? [
          {
            ...{ at: iso(at), from: names.get(actorId ?? '') ?? '', mine: actorId === personId, text: comment.text },
            ...{ files: filesOf(comment.files), note: comment.visibility === 'internal' },
            alone: comment.visibility === 'handler',
          },
        ]
      : [],
  );
}

/** What somebody from outside was asked to handle or to decide, what is due first. */
export function givenTo(db: Reader, viewer: Viewer, now: number): AnswerOf<'frontDesk'>['given'] {
  const words = listed([...holdersOf(viewer)]);
  const found = db
    .select()
    .from(requests)
    .where(
      and(
        ...[eq(requests.trial, false), ne(requests.phase, 'finished')],
        sql`(${requests.handlerId} = ${viewer.personId} or ${requests.id} in (select request_id from seats where state = 'open' and holder in (select value from json_each(${words}))))`,
      ),
    )
    .limit(MOST)
    .all();
  return found
    .flatMap((request) => {
      const open = openRequest(db, request, viewer, 'list');
      const { calledIn = false, onlyReads = false, as = [] } = open.relation;
      if (!calledIn) return [];
      const due = finishTold(db, open);
      return [
        {
          ...{ number: request.number, subject: open.subject, form: open.design.title },
          ...{ handles: !onlyReads, decides: as.includes('decider') },
          ...{ due: momentOr(due), late: due !== null && due <= now },
        },
      ];
    })
    .toSorted((a, b) => (a.due ?? LAST).localeCompare(b.due ?? LAST) || a.number.localeCompare(b.number));
}

/** So many are listed at most. */
const MOST = 50;
/** After every moment there is. */
const LAST = '~';
