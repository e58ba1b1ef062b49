import { priorities } from '@tolvek/core/register';
import { z } from 'zod';
import { person, whoFound } from '../people/shapes.ts';
import { routesOf } from '../wire/route.ts';
import {
  day,
  done,
  fieldKey,
  labelled,
  moment,
  named,
  numbered,
  rawAnswers,
  revealed,
  text,
  versioned,
  visibleSubject,
  withToken,
} from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { deskHeads } from './heads.ts';
import { decision, MOST_AT_ONCE } from './shapes.ts';

const changed = z.strictObject({ changes: rawAnswers });
/** Why, where they want to say it. */
const why = z.strictObject({ reason: z.string().max(500) });
const keptChange = versioned.extend({
  /** What rules say about the change that was kept; at “form” what is about no field in view. */
  warnings: z.array(z.object({ field: z.string(), text: z.string() })),
});

/** What is done: taking part or no longer, or a question. */
const acting = z.discriminatedUnion('does', [
  z.strictObject({ does: z.literal('take-part'), takes: z.boolean() }),
  z.strictObject({ does: z.literal('ask'), text }),
  z.strictObject({ does: z.literal('begin') }),
]);
const anAction = z.string().max(64);

/** What is sent with a message, as it was named when it was taken in. */
const messageFiles = z.array(z.string().max(200)).max(5).optional();
/** The keys of fields that somebody has begun to change. */
const begun = z.strictObject({ fields: z.array(z.string().max(64)).max(500) });
const ofRequest = numbered.extend({ id: z.string().max(64) });

/** Ids of links; null for all. */
const onlyLinks = z.strictObject({ only: z.array(z.string().max(64)).max(500).nullable().default(null) });

/** What a decision has come to. `more`: others have to decide besides, now or next. */
const decided = z.object({ state: z.enum(['approved', 'refused', 'returned']), more: z.boolean() });

/** What people do to requests. */
export const deskRoutes = routesOf(deskHeads, {
  changeFields: {
    says: 'Changes fields of a request.',
    params: numbered,
    body: changed,
    answer: keptChange,
  },
  changeMine: {
    says: 'Changes answers of one’s own request, as far as the access plan lets its requester.',
    params: numbered,
    body: changed,
    answer: keptChange,
  },
  withdrawMine: {
    says: 'Withdraws one’s own request, as long as the door it came by allows it.',
    params: numbered,
    body: why,
    answer: versioned,
  },
  withdrawFollowed: {
    says: 'Withdraws one’s own request, as an outside requester, as long as the door it came by allows it.',
    params: withToken,
    body: why,
    answer: versioned,
  },
  changeFollowed: {
    says: 'Changes answers of one’s own request, as an outside requester, as far as the access plan lets them.',
    params: withToken,
    body: changed,
    answer: keptChange,
  },
  endLinks: {
    says: 'Ends links by which a request is followed without signing in: they open nothing any more.',
    params: numbered,
    /** Their ids; null for all that work. */
    body: z.strictObject({ only: z.array(z.string().max(64)).max(500).nullable() }),
    answer: z.object({ ended: z.int() }),
  },
  sendLink: {
    says: 'Sends whoever asked from outside a new link to their request; those they had end.',
    params: numbered,
    answer: done,
  },
  renewMyLink: {
    says: 'Sends whoever is signed in a new link to their own request, as somebody from outside; those they had end.',
    params: numbered,
    answer: done,
  },
  renewLink: {
    says: 'Sends whoever follows their request by a link a new one to their address; those they had end.',
    params: withToken,
    answer: done,
  },
  endMyLinks: {
    says: 'Ends the links to one’s own request.',
    params: numbered,
    body: onlyLinks,
    answer: z.object({ ended: z.int() }),
  },
  endOtherLinks: {
    says: 'Ends the links to one’s own request: those that are named, else all but the one that is shown.',
    params: withToken,
    body: onlyLinks,
    answer: z.object({ ended: z.int() }),
  },
  acceptProposal: {
    says: 'Accepts a change of a request that somebody sent by a form: it counts from now on.',
    params: ofRequest,
    body: z.strictObject({ seen: z.string().max(64), comment: z.string().max(4_000) }),
    answer: done,
  },
  refuseProposal: {
    says: 'Refuses a change of a request that somebody sent by a form: everything stays as it was.',
    params: ofRequest,
    body: z.strictObject({ reason: text }),
    answer: done,
  },
  decideProposal: {
    says: 'Accepts or refuses a change of a request by the link in an email about it; once.',
    params: withToken,
    body: z.strictObject({
      verdict: z.enum(['approve', 'refuse']),
      comment: z.string().max(4_000),
      seen: z.string().max(64),
    }),
    answer: z.object({ accepted: z.boolean(), number: z.string() }),
  },
  endProposal: {
    says: 'Takes back a change that the caller sent and that nobody has accepted yet.',
    params: z.object({ id: z.string().max(64) }),
    answer: done,
  },
  moveStage: {
    says: 'Moves a request to another stage.',
    params: numbered,
    body: z.strictObject({ stage: z.string().max(64) }),
    answer: versioned,
  },
  freeRequest: {
    says: 'Moves a request on from where nobody else can, by a coordinator with a reason; a decision that waits is withdrawn.',
    params: numbered,
    body: z.strictObject({ stage: z.string().max(64), reason: text }),
    answer: versioned,
  },
  reroute: {
    says: 'Hands a request over to another team, or gives it another priority.',
    params: numbered,
    body: z.strictObject({
      team: z.string().max(64),
      priority: z.enum(priorities),
      /** Why; staff read it in the history. */
      reason: z.string().max(500).optional(),
    }),
    answer: versioned,
  },
  changeCells: {
    says: 'Changes fields of several requests by what cells of a sheet say: what is good is changed, of the rest it is told why not. Without apply it says what would change.',
    body: z.strictObject({
      rows: z
        .array(
          z.strictObject({
            number: z.string().max(20),
            version: z.int(),
            cells: z.record(z.string().max(64), z.string().max(20_000)),
          }),
        )
        .min(1)
        .max(MOST_AT_ONCE),
      apply: z.boolean(),
    }),
    answer: z.object({
      applied: z.boolean(),
      rows: z.array(
        z.object({
          number: z.string(),
          /** As it is now; that of before where nothing of it is changed. */
          version: z.int(),
          /** Keys of the fields that become otherwise. */
          changed: z.array(z.string()),
          /** What can’t be changed so, and why; at null all of the request. */
          refused: z.array(z.object({ field: z.string().nullable(), why: words, fix: words })),
        }),
      ),
    }),
  },
  takeBackCells: {
    says: 'Gives fields of several requests back what they held before the caller changed them last, where nothing has happened to the request since.',
    body: z.strictObject({
      rows: z
        .array(z.strictObject({ number: z.string().max(20), version: z.int() }))
        .min(1)
        .max(MOST_AT_ONCE),
    }),
    answer: z.object({
      /** How many requests are as they were. */
      back: z.int(),
      refused: z.array(z.object({ number: z.string(), why: words })),
    }),
  },
  writeMany: {
    says: 'Writes the same to the requesters of several requests, each alone, or notes it for the desk. Without apply it says to how many.',
    body: z.strictObject({
      /** Their numbers. */
      requests: z.array(z.string().max(20)).min(1).max(MOST_AT_ONCE),
      text,
      visibility: z.enum(['internal', 'requester']),
      apply: z.boolean(),
    }),
    answer: z.object({
      applied: z.boolean(),
      written: z.int(),
      refused: z.array(z.object({ number: z.string(), why: words })),
    }),
  },
  moveMany: {
    says: 'Moves requests to a stage, each as from its sheet. Without apply it says what would be moved, and where else they could be.',
    body: z.strictObject({
      requests: z
        .array(z.strictObject({ number: z.string().max(20), version: z.int() }))
        .min(1)
        .max(MOST_AT_ONCE),
      /** The key of the stage; left out to hear where they can be moved to. */
      stage: z.string().max(64).optional(),
      apply: z.boolean(),
    }),
    answer: z.object({
      applied: z.boolean(),
      moved: z.int(),
      refused: z.array(z.object({ number: z.string(), why: words })),
      /** Where some of them can be moved to, and how many. */
      stages: z.array(labelled.extend({ count: z.int() })),
    }),
  },
  rerouteMany: {
    says: 'Gives requests to another team or handler, or another priority. Without apply it says what would change.',
    body: z.strictObject({
      requests: z
        .array(z.strictObject({ number: z.string().max(20), version: z.int() }))
        .min(1)
        .max(MOST_AT_ONCE),
      team: z.string().max(64).optional(),
      priority: z.enum(priorities).optional(),
      /** Somebody of the team, nobody, or whoever is found by the rule of their row. */
      handler: z
        .union([z.strictObject({ person: z.string().max(64).nullable() }), z.strictObject({ by: z.literal('rule') })])
        .optional(),
      reason: z.string().max(500),
      apply: z.boolean(),
    }),
    answer: z.object({
      applied: z.boolean(),
      /** How many become otherwise in what; `letsGo`: their handler is not of the new team. */
      changes: z.object({ team: z.int(), priority: z.int(), handler: z.int(), letsGo: z.int() }),
      /** How many become otherwise at all. */
      changed: z.int(),
      /** Those that can’t be changed so, and why. */
      refused: z.array(z.object({ number: z.string(), why: words })),
      teams: z.array(named),
      /** Who could handle all of them: those of their team, where they have one team. */
      people: z.array(person),
    }),
  },
  assign: {
    says: 'Gives a request to a handler, or takes it back.',
    params: numbered,
    body: z.strictObject({ person: z.string().max(64).nullable() }),
    answer: versioned,
  },
  giveOutside: {
    says: 'Makes somebody from outside the handler of one request. They are written to, and need no account.',
    params: numbered,
    body: z.strictObject({ name: z.string().max(200), email: z.string().max(320) }),
    answer: versioned,
  },
  giveBack: {
    says: 'Gives a request back to its team, as whoever handles it from outside.',
    params: numbered,
    body: z.strictObject({ reason: z.string().max(4_000) }),
    answer: versioned,
  },
  shareTargets: {
    says: 'Groups and staff with whom a request can be shared, by part of their names.',
    params: numbered,
    query: z.strictObject({ find: z.string().max(100).default('') }),
    answer: z.object(whoFound),
  },
  shareRequest: {
    says: 'Lets one of the staff or a group read a request. Nobody is written to.',
    params: numbered,
    body: z.strictObject({
      with: z.union([z.strictObject({ person: z.string().max(64) }), z.strictObject({ group: z.string().max(64) })]),
      /** The last day of it; null for no end. */
      until: day.nullable(),
    }),
    answer: done,
  },
  unshareRequest: {
    says: 'Ends what somebody could read of a request because it was shared with them.',
    params: numbered.extend({ holder: z.string().max(80) }),
    answer: done,
  },
  askAbout: {
    says: 'Sends a mailing because of one request, now: to whom it goes where it is about that request. Whoever has the same form still open is not sent it again.',
    params: numbered,
    body: z.strictObject({ mailing: z.string().max(64) }),
    answer: z.object({ people: z.int() }),
  },
  act: {
    says: 'Does what the words beside a request offer to whoever is given them: takes part or no longer, or asks a question.',
    params: numbered.extend({ action: anAction }),
    body: acting,
    answer: done,
  },
  actOnMine: {
    says: 'Does what the words beside one’s own request offer.',
    params: numbered.extend({ action: anAction }),
    body: acting,
    answer: done,
  },
  actFollowed: {
    says: 'Does what the words beside one’s own request offer, as an outside requester.',
    params: withToken.extend({ action: anAction }),
    body: acting,
    answer: done,
  },
  changing: {
    says: 'Says which fields of a request whoever calls has begun to change and not saved; said again while they do, with none when they are done.',
    params: numbered,
    body: begun,
    answer: done,
  },
  changingMine: {
    says: 'The same for one’s own request.',
    params: numbered,
    body: begun,
    answer: done,
  },
  changingFollowed: {
    says: 'The same for one’s own request, by the link in its emails.',
    params: withToken,
    body: begun,
    answer: done,
  },
  followRequest: {
    says: 'Has whoever calls hear of what becomes of a request they may read, by email, or no longer.',
    params: numbered,
    body: z.strictObject({ follows: z.boolean() }),
    answer: done,
  },
  requestMergePlan: {
    says: 'What merging a request into another of its register would come to: where they differ. Without another: which are alike.',
    params: numbered,
    query: z.strictObject({ into: z.string().max(40).default('') }),
    answer: z.object({
      /** `same`: how many answers are the same; `isTheirs`: whether the same person asked. */
      alike: z.array(z.object({ number: z.string(), subject: visibleSubject, same: z.int(), isTheirs: z.boolean() })),
      into: z
        .object({
          ...{ number: z.string(), version: z.int(), subject: visibleSubject },
          /** Where they differ; `takes`: whether the other takes it when nobody chooses. */
          fields: z.array(z.object({ key: z.string(), label: z.string(), mayTake: z.boolean(), takes: z.boolean() })),
          /** What they say there, in the order of the fields: the other, and the one that is merged. */
          here: revealed<readonly z.output<typeof words>[]>(z.array(words)),
          theirs: revealed<readonly z.output<typeof words>[]>(z.array(words)),
          /** How many requests refer to the one that is merged. */
          pointing: z.int(),
        })
        .nullable(),
    }),
  },
  mergeRequest: {
    says: 'Merges a request into another that is about the same. Both who asked are told, without learning of each other.',
    params: numbered,
    body: z.strictObject({
      ...{ into: z.string().max(40), intoVersion: z.int() },
      /** Keys of the fields that the other takes. */
      take: z.array(fieldKey).max(500),
    }),
    answer: z.object({ into: z.string() }),
  },
  unmergeRequest: {
    says: 'Undoes the merging of a request, in one step.',
    params: numbered,
    answer: z.object({ number: z.string() }),
  },
  deletionPlan: {
    says: 'What deleting a request would come to, and what points to it. Nothing is deleted.',
    params: numbered,
    answer: z.object({
      lines: z.array(words),
      /** Requests whose references point to it: how many, and those that whoever asks may read. */
      pointing: z.object({
        count: z.int(),
        some: z.array(z.object({ number: z.string(), subject: visibleSubject })),
      }),
    }),
  },
  deleteRequest: {
    says: 'Deletes a request, with its files, history and emails. It can be put back for 30 days; that it was there is kept for good.',
    params: numbered,
    body: z.strictObject({ reason: text }),
    /** The id by which it is put back. */
    answer: z.object({ id: z.string() }),
  },
  putBackRequest: {
    says: 'Puts back a request that was deleted, as it was. Nobody is told.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: z.object({ number: z.string() }),
  },
  deleteForGood: {
    says: 'Deletes for good what could still be put back.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: done,
  },
  deletedIn: {
    says: 'The requests of a register that were deleted: number, who, when and why.',
    params: z.strictObject({ key: z.string().max(80) }),
    answer: z.object({
      deleted: z.array(
        z.object({
          ...{ id: z.string(), number: z.string(), at: moment, by: z.string(), reason: z.string() },
          /** Until when it can be put back; null: it is gone for good, or back. */
          until: moment.nullable(),
          putBack: z.object({ at: moment, by: z.string() }).nullable(),
        }),
      ),
    }),
  },
  comment: {
    says: 'An internal note, a message to the requester, or one to somebody from outside who handles it.',
    params: numbered,
    body: z.strictObject({ text, visibility: z.enum(['internal', 'requester', 'handler']), files: messageFiles }),
    answer: done,
  },
  sendNotice: {
    says: 'Sends a notice of the form that somebody sends by hand, with words of theirs.',
    params: numbered,
    body: z.strictObject({ notice: z.string().max(64), text: z.string().max(10_000) }),
    /** How many get it. */
    answer: z.object({ people: z.int() }),
  },
  deciderTargets: {
    says: 'Groups and staff who can be asked to decide in place of whoever is asked, by part of their names.',
    params: numbered,
    query: z.strictObject({ find: z.string().max(100).default('') }),
    answer: z.object(whoFound),
  },
  handDecision: {
    says: 'Asks a group or one of the staff to decide in place of whoever is asked. They are written to.',
    params: numbered,
    body: z.strictObject({
      to: z.union([z.strictObject({ person: z.string().max(64) }), z.strictObject({ group: z.string().max(64) })]),
    }),
    answer: done,
  },
  takeBackDecision: {
    says: 'Takes back what the caller has said at a step of a decision, while others still have to say something there.',
    params: numbered,
    answer: done,
  },
  decide: {
    says: 'Approves, refuses, or asks whoever asked for more before that.',
    params: numbered,
    body: decision,
    answer: decided,
  },
  decideByLink: {
    says: 'Approves, refuses or asks for more by the link in a letter.',
    params: withToken,
    body: decision,
    answer: decided.extend({ number: z.string() }),
  },
  followMessage: {
    says: 'A message from an outside requester to the desk.',
    params: withToken,
    body: z.strictObject({ text, files: messageFiles }),
    answer: done,
  },
  passOn: {
    says: 'Passes a form that was sent to the caller on to a colleague, who has to fill it in from now on.',
    params: z.strictObject({ id: z.string().max(64) }),
    body: z.strictObject({ to: z.string().max(64) }),
    answer: z.object({ to: z.string() }),
  },
  myMessage: {
    says: 'A message from a staff requester to the desk.',
    params: numbered,
    body: z.strictObject({ text, files: messageFiles }),
    answer: done,
  },
});
