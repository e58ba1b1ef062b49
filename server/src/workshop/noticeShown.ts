import type { AnswerOf, BodyOf } from '@tolvek/contract';
import { groupsIn, type NoticeCause, spokenLetter } from '@tolvek/core/notice';
import { rightsAt, type Viewer } from '@tolvek/core/people';
import {
  type NoticePlan,
  noticeIn,
  type Recipient,
  SLOT_WORDS,
  USUAL_KINDS,
  USUAL_NOTICES,
  type UsualKind,
  usualIn,
} from '@tolvek/core/telling';
import type { Words } from '@tolvek/words';
import { and, desc, eq } from 'drizzle-orm';
import { openSeats, roundOf } from '../approval/queries.ts';
import { calendarOf } from '../calendar/queries.ts';
import { formNamed } from '../form/queries.ts';
import { type AboutRequest, letterAbout } from '../notice/aboutRequest.ts';
import { addresseeOf } from '../notice/addressee.ts';
import { countIn, isOfGroup } from '../notice/groups.ts';
import { goingBy, goingTo } from '../notice/notify.ts';
import { asking, fieldsRead, type ReadyNotice, readyNotice } from '../notice/ready.ts';
import { causeFor, mailboxMeant, recipientsOf } from '../notice/rules.ts';
import { personById } from '../people/queries.ts';
import { iso } from '../platform/clock.ts';
import type { Transaction } from '../platform/database.ts';
import type { House } from '../platform/house.ts';
import { newId } from '../platform/newId.ts';
import { notFound } from '../platform/problem.ts';
import { readLog } from '../platform/tables.ts';
import { speechFor } from '../platform/words.ts';
import { write } from '../platform/work.ts';
import { registerById } from '../register/queries.ts';
import { type OpenRequest, openRequest } from '../request/open.ts';
import type { RequestRow } from '../request/queries.ts';
import { requests } from '../request/tables.ts';

type Shown = AnswerOf<'showNotice'>;
type Reader = Shown['readers'][number];

/** So many requests are there to choose from, and so many readers are told of. */
const REQUESTS = 12;
const READERS = 20;

/** Who gets one of the usual emails. */
const USUALLY: Readonly<Record<UsualKind, Recipient>> = {
  ...({ received: 'requester', returned: 'requester', approved: 'requester', refused: 'requester' } as const),
  ...({ message: 'requester', stage: 'requester', proposal: 'requester', due: 'requester' } as const),
  ...({ 'new-request': 'team', assigned: 'working', proposed: 'working', reminder: 'working' } as const),
  ...({ 'approval-asked': 'deciding', news: 'followers', escalation: 'leads', undecided: 'leads' } as const),
  ...({ 'nobody-decides': 'leads', 'nobody-handles': 'leads' } as const),
};

/** The group of a request that a notice is about, with how many it has now. */
function groupShown(tx: Transaction, request: RequestRow, notice: ReadyNotice | null | undefined, now: number) {
  if (!notice || !isOfGroup(notice)) return {};
  const [value = null] = groupsIn(request.values, notice.rule.on.by);
  return { group: { value, count: countIn(tx, notice, value, { registerId: request.registerId, now }) } };
}

/** What would have happened for one of the usual emails; null where the request gives no occasion for it now. */
function occasionFor(tx: Transaction, request: RequestRow, kind: UsualKind, by: string): AboutRequest | null {
  const text = '…';
  switch (kind) {
    case 'new-request':
    case 'nobody-handles':
      return { kind, team: request.team ?? '' };
    case 'approval-asked': {
      const round = roundOf(tx, request.id);
      const seat = round?.state === 'open' ? openSeats(round)[0] : undefined;
      return seat ? { kind, seat: seat.id } : null;
    }
    case 'returned':
    case 'message':
      return { kind, by, text };
    case 'approved':
    case 'refused':
      return { kind, by, comment: text };
    case 'assigned':
      return { kind, by };
    case 'stage':
      return { kind, stage: request.stage, finished: request.phase === 'finished' };
    case 'news':
      return { kind, by, change: { kind: 'stage', from: request.stage, to: request.stage }, text: '' };
    case 'undecided':
    case 'nobody-decides':
      return { kind, step: text };
    case 'proposed':
      return null;
    case 'proposal':
      return { kind, accepted: true, by, reason: '' };
    default:
      return { kind };
  }
}

interface Showing {
  readonly tx: Transaction;
  readonly now: number;
  readonly looker: OpenRequest<RequestRow>;
  readonly plan: NoticePlan;
}

/**
 * A notice of the draft of a form as its readers would get it for a real request. What is hidden from whoever looks stays
 * hidden from them; that they looked with the eyes of somebody is written down.
 *
 * @throws Problem 403 for who does not build forms of its register, 404 for a notice that is not there.
 */
export function showNotice(
  house: House,
  viewer: Viewer,
  { key, notice, number, reader }: BodyOf<'showNotice'> & { readonly key: string },
): Shown {
  return write(house, ({ tx, now }) => {
    const form = formNamed(tx, key);
    if (!rightsAt(viewer, form.registerId).includes('configure')) throw house.rightMissing('configure');
    const { fields, notices: plan = USUAL_NOTICES, deadline } = form.draft;
    const usual = USUAL_KINDS.find((kind) => kind === notice);
    const rule = noticeIn(plan, notice);
    if (!usual && !rule) throw notFound('notice');
    const register = registerById(tx, form.registerId);
    const newest = tx
      .select()
      .from(requests)
      .where(and(eq(requests.registerId, register.id), eq(requests.formId, form.id), eq(requests.trial, false)))
      .orderBy(desc(requests.createdAt))
      .limit(REQUESTS)
      .all()
      .map((request) => openRequest(tx, request, viewer, 'letter', { register }))
      .filter(({ relation }) => relation.isDesk);
    const looker = newest.find(({ request }) => request.number === number) ?? newest[0];
    const choices = newest.map(({ request, subject }) => ({ number: request.number, subject }));
    const nothing = { requests: choices, number: null, holds: null, readers: [], more: 0, letter: null };
    if (!looker) return nothing;
    const { request } = looker;
    const showing: Showing = { tx, now, looker, plan };
    const ready = rule && readyNotice(rule, fields);
    const holds = asking(tx, request, fields, now);
    const isReadable = !rule || fieldsRead(rule, fields).every((field) => looker.readable.has(field));
    const tos = rule ? rule.to : [USUALLY[usual as UsualKind]];
    const people = new Map<
      string,
      { readonly to: Recipient; readonly personId: string | null; readonly groupKey: string | null }
    >();
    /** Those who get it with others of a group. */
    const together = new Set<string>();
    for (const to of tos) {
      // Who is named where whoever looks may not read is not told to them.
      if (typeof to === 'object' && 'field' in to && !looker.readable.has(to.field)) continue;
      const group = mailboxMeant(tx, request, to);
      const ids = recipientsOf({ tx, now }, request, to);
      if (group) {
        people.set(`group ${group.key}`, { to, personId: null, groupKey: group.key });
        for (const id of ids) together.add(id);
      } else
        for (const id of ids)
          if (!people.has(id) && !together.has(id)) people.set(id, { to, personId: id, groupKey: null });
    }
    const by = viewer.personId;
    const told = [...people].slice(0, READERS).flatMap(([id, { to, ...whom }]) => {
      const addressee = addresseeOf(tx, whom, request.requesterId);
      if (!addressee) return [];
      const person = whom.personId === null ? undefined : personById(tx, whom.personId);
      const cause: AboutRequest | null = rule
        ? causeFor(rule, to, by, { text: '…', ...groupShown(tx, request, ready, now) })
        : occasionFor(tx, request, usual as UsualKind, by);
      const out = cause && emailFor(showing, addressee, cause, fields);
      const leaves = (): ReturnType<typeof goingBy> =>
        // A group has chosen nothing: it goes as the notice says.
        !person
          ? {}
          : cause?.kind === 'rule' && rule
            ? goingBy({ tx, now }, request, person, cause, {
                goes: rule.goes,
                isUrgent: isReadable && holds(ready?.urgent ?? null, false),
              })
            : goingTo({ tx, now }, request, person, cause as NoticeCause);
      const isOff = rule ? rule.off : usualIn(plan, usual as UsualKind)?.off;
      return [{ id, whom, out, is: stateOf({ id, name: addressee.to.name }, out, isOff === true, leaves) }];
    });
    const chosen = told.find(({ id }) => id === reader) ?? told.find((each) => isLetter(each.out)) ?? told[0];
    const out = chosen?.out;
    if (chosen)
      tx.insert(readLog)
        .values({
          ...{ id: newId(), at: now, by, registerId: register.id, numbers: [request.number] },
          about: {
            kind: 'seen-as',
            as:
              chosen.whom.personId === null
                ? { groups: [chosen.whom.groupKey ?? ''] }
                : { person: chosen.whom.personId },
            plan: 'force',
            stage: null,
          },
        })
        .run();
    const nameOf = (name: string): Words =>
      SLOT_WORDS[name as keyof typeof SLOT_WORDS] ?? fields.find((field) => field.key === name)?.label ?? name;
    const { zone } = calendarOf(tx, deadline.calendar);
    return {
      ...{ requests: choices, number: request.number, more: Math.max(0, people.size - READERS) },
      holds: ready?.applies && isReadable ? holds(ready.applies) : null,
      readers: told.map(({ is }) => is),
      letter:
        chosen && isLetter(out)
          ? {
              ...lettered(out, zone),
              reader: chosen.id,
              left: out.left.map(({ sentence, names }) => ({ sentence, names: names.map(nameOf) })),
            }
          : null,
    };
  });
}

type Out = ReturnType<typeof emailFor>;
const isLetter = (out: Out | undefined): out is Exclude<Out, 'hidden' | null> => !!out && out !== 'hidden';

/** What somebody would be written, as far as whoever looks may read it. */
const emailFor = (
  { tx, now, looker, plan }: Showing,
  { to: person, viewer }: NonNullable<ReturnType<typeof addresseeOf>>,
  cause: AboutRequest,
  fields: Parameters<typeof letterAbout>[3]['fields'],
) =>
  letterAbout(
    tx,
    {
      ...{ request: looker.request, person, now },
      open: openRequest(tx, looker.request, viewer, 'letter', { register: looker.register, looker }),
    },
    cause,
    { plan, fields, readsAnswers: false, follows: () => ({ way: null, until: null }) },
  );

function lettered({ letter, language }: Exclude<Out, 'hidden' | null>, zone: string) {
  const { subject, greeting, paragraphs, facts, action } = spokenLetter(letter, speechFor({ language, zone }).told);
  return { language, subject, greeting, paragraphs, facts, action: action.label };
}

/** Whether and when somebody would get it. */
function stateOf(
  { id, name }: Pick<Reader, 'id' | 'name'>,
  out: Out,
  isOff: boolean,
  leaves: () => ReturnType<typeof goingBy>,
): Reader {
  const is = (how: Reader['how'], at: number | null = null): Reader => ({
    id,
    name,
    how,
    at: at === null ? null : iso(at),
  });
  if (isOff) return is('off');
  if (out === 'hidden') return is('hidden');
  if (out === null) return is('nothing');
  const { state, nextAttemptAt = null } = leaves();
  if (state === 'dropped') return is('unwanted');
  return state === 'gathering' ? is('later', nextAttemptAt) : is('now');
}
