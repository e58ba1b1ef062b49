import { BUDGETS } from '@tolvek/core/budget';
import type { KnownRegister } from '@tolvek/core/form';
import { z } from 'zod';
import { route } from '../route.ts';
import {
  accessRules,
  allowance,
  designChange,
  doorSettings,
  empty,
  field,
  finding,
  formDesign,
  group,
  knownFile,
  moment,
  offers,
  rawAnswers,
  release,
  stage,
  terms,
  visibleChanges,
  visibleReason,
  visibleSubject,
  vocabulary,
} from '../schemas.ts';
import { asksForOffers, done, keyed, prefix, slugged } from './params.ts';

const knownRegister: z.ZodType<KnownRegister> = z.object({
  key: z.string(),
  name: z.string(),
  fields: z.array(field).readonly(),
  stages: z.array(z.object({ key: z.string(), label: z.string() })).readonly(),
  restricted: z.array(z.string()).readonly(),
});

/** One way of a value that was allowed on purpose. */
const disclosed = z.object({
  id: z.string(),
  words: z.string(),
  source: z.string(),
  what: z.enum(['verdict', 'value']),
  reason: z.string(),
  by: z.string(),
  at: moment,
  /** Whether the draft or the release in force still has this way. */
  stands: z.boolean(),
});

/** Rows taken in at once. */
export const MOST_IMPORTED = BUDGETS.sheet.rows;

/** Where a vocabulary is used: by which form, in which field. */
const use = z.object({ form: z.string(), title: z.string(), field: z.string() });

/** Building forms and releasing them. */
export const workshopRoutes = {
  forms: route({
    name: 'forms',
    method: 'GET',
    path: '/api/forms',
    says: 'All forms with their state.',
    caller: 'coordinator',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      forms: z.array(
        z.object({
          key: z.string(),
          title: z.string(),
          register: z.string(),
          registerKey: z.string(),
          stopped: z.boolean(),
          holds: z.enum(['requests', 'things']),
          release: z.int(),
          changed: z.boolean(),
          /** Null while the draft is being looked through. */
          findings: z.int().nullable(),
          requests: z.int(),
        }),
      ),
    }),
  }),
  ground: route({
    name: 'ground',
    method: 'GET',
    path: '/api/ground',
    says: 'What a new form can stand on: teams, groups that decide, working calendars.',
    caller: 'coordinator',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      groups: z.array(group),
      calendars: z.array(z.object({ key: z.string(), name: z.string() })),
      vocabularies: z.array(vocabulary).readonly(),
      registers: z.array(z.object({ key: z.string(), name: z.string() })),
    }),
  }),
  createForm: route({
    name: 'createForm',
    method: 'POST',
    path: '/api/forms',
    says: 'Makes a form with a register of its own, from a draft. Nobody can ask with it until it is released.',
    caller: 'coordinator',
    params: empty,
    query: empty,
    body: z.strictObject({
      prefix,
      /** The group that works at its desk besides the teams requests are routed to. */
      desk: z.string().max(64),
      doors: z.strictObject({ staff: z.boolean(), outside: z.boolean() }),
      /**
       * Requests go through a desk; things are in use from the start, for references to point to.
       */
      holds: z.enum(['requests', 'things']).default('requests'),
      draft: formDesign,
      /** The access plan it begins with: what a recipe promises, or what protected the form it is a copy of. */
      access: z.strictObject({ rules: accessRules }).optional(),
      staysIn: z.boolean().optional(),
      /** Vocabularies that come with the form and are not here yet. */
      vocabularies: z.array(vocabulary).max(50).optional(),
    }),
    guard: 'Idempotency-Key',
    answer: z.object({ key: z.string() }),
  }),
  form: route({
    name: 'form',
    method: 'GET',
    path: '/api/forms/:key',
    says: 'A form in the workshop: its draft, releases, doors and access plan.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      key: z.string(),
      version: z.int(),
      draft: formDesign,
      findings: z.array(finding),
      changes: z.array(designChange),
      releases: z.array(release),
      trials: z.array(z.object({ number: z.string(), at: moment })),
      doors: z.array(doorSettings),
      groups: z.array(group),
      /** Staff to pick from in conditions. */
      people: z.array(
        z.object({ key: z.string(), label: z.string(), groups: z.array(z.string()), department: z.string() }),
      ),
      /** The fields of the register: they hold answers, and keep their kinds. */
      released: z.array(z.string()),
      stages: z.array(stage),
      /** What it asks into, and the other forms that do. */
      register: z.object({ key: z.string(), name: z.string(), holds: z.enum(['requests', 'things']) }),
      others: z.array(z.object({ key: z.string(), title: z.string() })),
      /** Nobody can ask by it while it is stopped. */
      stopped: z.boolean(),
      /** Its requests are read here and never taken out. */
      staysIn: z.boolean(),
      calendar: z.object({
        name: z.string(),
        zone: z.string(),
        open: z.array(z.boolean()),
        closed: z.array(z.string()),
      }),
      today: z.string(),
      now: z.string(),
      vocabularies: z.array(vocabulary).readonly(),
      /** The forms whose references point to this form’s register. */
      pointedBy: z.array(z.string()),
      /** What references can point to. */
      registers: z.array(knownRegister),
      /** The rules of the access plan in force, as a copy of this form takes them along. */
      plan: z.object({ rules: accessRules }),
      /** Ways of values that were allowed on purpose. */
      allowed: z.array(disclosed),
      planHistory: z.array(z.object({ at: moment, who: z.string(), words: z.string() })),
      /** What the release in force tells to somebody who may not read it, as the plan is now. */
      waysInForce: z.array(finding),
      /** The fields that this viewer may read on requests that are not their own. */
      reads: z.array(z.string()),
      access: z.array(
        z.object({
          name: z.string(),
          fields: z.array(z.string()),
          audience: z.string(),
          level: z.enum(['hidden', 'read', 'write']),
        }),
      ),
      grid: z.array(
        z.object({
          field: z.string(),
          label: z.string(),
          cells: z.array(z.object({ who: z.string(), level: z.enum(['hidden', 'read', 'write']), rule: z.string() })),
        }),
      ),
    }),
  }),
  saveDraft: route({
    name: 'saveDraft',
    method: 'PUT',
    path: '/api/forms/:key/draft',
    says: 'Keeps the draft of a form.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({ draft: formDesign }),
    guard: 'If-Match',
    answer: z.object({ version: z.int(), findings: z.array(finding), changes: z.array(designChange) }),
  }),
  releaseForm: route({
    name: 'releaseForm',
    method: 'POST',
    path: '/api/forms/:key/releases',
    says: 'Releases the draft with the next number.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({
      note: z.string().max(500),
      /** Whether requests that are there are computed anew by it; else they keep what they have. */
      recompute: z.boolean().optional(),
    }),
    guard: 'If-Match',
    answer: z.object({
      number: z.int(),
      version: z.int(),
      /** The work of computing requests anew, where that was wanted. */
      job: z.string().nullable(),
    }),
  }),
  job: route({
    name: 'job',
    method: 'GET',
    path: '/api/jobs/:id',
    says: 'How far long work has come, for whoever began it.',
    caller: 'coordinator',
    params: z.strictObject({ id: z.string().max(64) }),
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      state: z.enum(['waiting', 'running', 'done', 'failed', 'stopped']),
      looked: z.int(),
      of: z.int().nullable(),
      /** Requests that changed, of what whoever began it may read. */
      changed: z.int(),
    }),
  }),
  stopJob: route({
    name: 'stopJob',
    method: 'POST',
    path: '/api/jobs/:id/stop',
    says: 'Stops long work: what it did stays done, the rest is left as it is.',
    caller: 'coordinator',
    params: z.strictObject({ id: z.string().max(64) }),
    query: empty,
    body: empty,
    guard: 'none',
    answer: done,
  }),
  allowWay: route({
    name: 'allowWay',
    method: 'POST',
    path: '/api/forms/:key/disclosures',
    says: 'Allows one way of a value on purpose, by somebody who may read it. It is in force at once.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({ ...allowance.shape, reason: z.string().trim().max(500) }),
    guard: 'Idempotency-Key',
    answer: z.object({ id: z.string() }),
  }),
  endWay: route({
    name: 'endWay',
    method: 'POST',
    path: '/api/forms/:key/disclosures/:id/end',
    says: 'Ends what was allowed: from then on it is withheld again from whoever may not read it.',
    caller: 'coordinator',
    params: z.strictObject({ key: z.string().max(64), id: z.string().max(64) }),
    query: empty,
    body: empty,
    guard: 'none',
    answer: done,
  }),
  protectAlike: route({
    name: 'protectAlike',
    method: 'POST',
    path: '/api/forms/:key/protects',
    says: 'Lets the rules of the access plan that protect one field protect another as well. In force at once.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({ source: z.string().min(1).max(64), field: z.string().min(1).max(64) }),
    guard: 'none',
    answer: done,
  }),
  draftUpload: route({
    name: 'draftUpload',
    method: 'POST',
    path: '/api/forms/:key/draft/uploads',
    says: 'Takes a file for a question of the draft in, for its proof and its trials; its bytes are the body. It is looked at by content, and forgotten unless a trial names it within fifteen days.',
    caller: 'coordinator',
    params: keyed,
    query: z.strictObject({ field: z.string().max(64), name: z.string().min(1).max(200) }),
    body: empty,
    guard: 'none',
    answer: knownFile,
  }),
  draftOffers: route({
    name: 'draftOffers',
    method: 'POST',
    path: '/api/forms/:key/offers',
    says: 'What a reference of the draft offers, for its proof.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: asksForOffers.extend({ person: z.string().max(64).nullable(), outside: z.boolean() }),
    guard: 'none',
    answer: offers,
  }),
  sendTrial: route({
    name: 'sendTrial',
    method: 'POST',
    path: '/api/forms/:key/trials',
    says: 'Sends a trial request from the proof of the draft: marked, uncounted, telling nobody.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({ answers: rawAnswers, person: z.string().max(64).nullable(), outside: z.boolean() }),
    guard: 'Idempotency-Key',
    answer: z.object({ number: z.string() }),
  }),
  clearTrials: route({
    name: 'clearTrials',
    method: 'POST',
    path: '/api/forms/:key/trials/clear',
    says: 'Takes all trial requests of a form away.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({ cleared: z.int() }),
  }),
  draftHistory: route({
    name: 'draftHistory',
    method: 'GET',
    path: '/api/forms/:key/draft/history',
    says: 'What the draft was: one state for each stretch of work by one person, the newest first, and what each changed.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      states: z.array(
        z.object({ id: z.string(), by: z.string(), at: moment, changes: z.array(designChange), design: formDesign }),
      ),
    }),
  }),
  compareRelease: route({
    name: 'compareRelease',
    method: 'GET',
    path: '/api/forms/:key/releases/:number',
    says: 'A release as it was frozen, and what the draft would change against it.',
    caller: 'coordinator',
    params: z.strictObject({ key: z.string().max(64), number: z.coerce.number().int().min(1) }),
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({ design: formDesign, changes: z.array(designChange) }),
  }),
  overExisting: route({
    name: 'overExisting',
    method: 'POST',
    path: '/api/forms/:key/rules/:rule/existing',
    says: 'What a rule of the draft would do to the requests that are there, unfinished or all; with what stood for that dry run, does just that.',
    caller: 'coordinator',
    params: z.strictObject({ key: z.string().max(64), rule: z.string().max(64) }),
    query: empty,
    body: z.strictObject({
      /** `shown` of the dry run that is to be done; null for a dry run. */
      shown: z.string().max(64).nullable(),
      among: z.enum(['unfinished', 'all']).default('unfinished'),
    }),
    guard: 'none',
    answer: z.object({
      looked: z.int(),
      changed: z.int(),
      /** Left as they are, as the rule refuses them. */
      refused: z.int(),
      applied: z.boolean(),
      /** Stands for the dry run; another one when the rule or a request has changed. */
      shown: z.string(),
      /** The last run of this rule that can be taken back. */
      last: z.object({ run: z.string(), at: moment, changed: z.int() }).nullable(),
      requests: z.array(
        z.object({
          number: z.string(),
          subject: visibleSubject,
          refused: z.string().nullable(),
          changes: visibleChanges,
        }),
      ),
    }),
  }),
  takeRunBack: route({
    name: 'takeRunBack',
    method: 'POST',
    path: '/api/forms/:key/runs/:run/back',
    says: 'Takes back what a run of a rule changed, as far as nobody changed it since.',
    caller: 'coordinator',
    params: z.strictObject({ key: z.string().max(64), run: z.string().max(64) }),
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      back: z.int(),
      /** Requests of which something was changed since, and stays. */
      left: z.int(),
    }),
  }),
  takeOut: route({
    name: 'takeOut',
    method: 'GET',
    path: '/api/forms/:key/requests.csv',
    says: 'The requests of a form as a sheet (CSV, RFC 4180), each with what the caller may read of it; the answer is its bytes.',
    caller: 'coordinator',
    params: keyed,
    query: z.strictObject({ among: z.enum(['unfinished', 'all']).default('all') }),
    body: empty,
    guard: 'none',
    answer: z.string(),
  }),
  takeInRows: route({
    name: 'takeInRows',
    method: 'POST',
    path: '/api/forms/:key/rows',
    says: 'Takes rows of a sheet in as requests, by the form’s rules, routing and deadlines, and without letters. Without apply it is a dry run: everything is looked at, nothing is kept.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({
      rows: z
        .array(
          z.strictObject({
            cells: z.record(z.string().max(64), z.string().max(20_000)),
            requester: z.string().max(254),
          }),
        )
        .min(1, 'There is no row.')
        .max(MOST_IMPORTED, `At most ${MOST_IMPORTED} rows at once.`),
      apply: z.boolean(),
    }),
    guard: 'Idempotency-Key',
    answer: z.object({
      applied: z.boolean(),
      good: z.int(),
      bad: z.int(),
      /** By the place of the row: the number it got or would get, or what is wrong with it. */
      rows: z.array(
        z.object({
          number: z.string().nullable(),
          problems: z.array(z.object({ field: z.string(), message: z.string(), fix: z.string() })),
        }),
      ),
    }),
  }),
  tryCondition: route({
    name: 'tryCondition',
    method: 'POST',
    path: '/api/forms/:key/tries',
    says: 'Tries a condition on the last requests of the form’s register: how many it holds for, and why it does or does not for one of them.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({
      condition: z.string().max(4_000),
      /** The request to explain; the newest when none is named. */
      number: z.string().max(20).nullable(),
    }),
    guard: 'none',
    answer: z.object({
      /** Why it could not be tried; null when it was. */
      refused: z.string().nullable(),
      holds: z.int(),
      fails: z.int(),
      /** Requests for which it can’t be said, as something it needs is empty. */
      unsaid: z.int(),
      /**
       * Over all requests of the register, when the database can decide the condition; null when it
       * can’t.
       */
      ever: z.object({ holds: z.int(), of: z.int() }).nullable(),
      tried: z.array(z.object({ number: z.string(), subject: visibleSubject, result: z.boolean().nullable() })),
      explained: z.object({ number: z.string(), reason: visibleReason }).nullable(),
    }),
  }),
  vocabularies: route({
    name: 'vocabularies',
    method: 'GET',
    path: '/api/vocabularies',
    says: 'All vocabularies.',
    caller: 'coordinator',
    params: empty,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      vocabularies: z.array(z.object({ key: z.string(), name: z.string(), terms: z.int(), uses: z.array(use) })),
    }),
  }),
  vocabulary: route({
    name: 'vocabulary',
    method: 'GET',
    path: '/api/vocabularies/:key',
    says: 'A vocabulary with its terms, where it is used, and how many requests hold each term.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      key: z.string(),
      name: z.string(),
      version: z.int(),
      terms,
      uses: z.array(use),
      /** Requests that hold a term, by its key. */
      held: z.record(z.string(), z.int()),
    }),
  }),
  createVocabulary: route({
    name: 'createVocabulary',
    method: 'POST',
    path: '/api/vocabularies',
    says: 'Makes a vocabulary without terms.',
    caller: 'coordinator',
    params: empty,
    query: empty,
    body: z.strictObject({ name: z.string().trim().min(1, 'Name it.').max(200) }),
    guard: 'Idempotency-Key',
    answer: z.object({ key: z.string() }),
  }),
  saveVocabulary: route({
    name: 'saveVocabulary',
    method: 'PUT',
    path: '/api/vocabularies/:key',
    says: 'Keeps a vocabulary. Requests that hold a merged term hold the other from then on.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({ name: z.string().trim().min(1, 'Name it.').max(200), terms }),
    guard: 'If-Match',
    answer: z.object({ version: z.int(), moved: z.int() }),
  }),
  setDoor: route({
    name: 'setDoor',
    method: 'PATCH',
    path: '/api/doors/:slug',
    says: 'Opens or closes a door, and what people read when it is closed.',
    caller: 'coordinator',
    params: slugged,
    query: empty,
    body: z.strictObject({ open: z.boolean(), closedMessage: z.string().max(500) }),
    guard: 'none',
    answer: doorSettings,
  }),
} as const;
