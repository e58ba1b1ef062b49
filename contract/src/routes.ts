import { z } from 'zod';
import { route } from './route.ts';
import {
  doorSettings,
  doorView,
  empty,
  finding,
  formDesign,
  group,
  hop,
  ledgerRow,
  letter,
  moment,
  person,
  rawAnswers,
  release,
  requesterView,
  sheet,
  stage,
  visibleSubject,
  visibleValues,
} from './schemas.ts';

const text = z.string().trim().min(1, 'Write something first.').max(5_000);
const numbered = z.strictObject({ number: z.string().max(20) });
const withToken = z.strictObject({ token: z.string().max(100) });
const keyed = z.strictObject({ key: z.string().max(64) });
const slugged = z.strictObject({ slug: z.string().max(64) });
const done = z.object({ done: z.literal(true) });
const decision = z.strictObject({ verdict: z.enum(['approve', 'refuse'], 'Choose approve or refuse.'), comment: z.string().max(5_000) });
const versioned = z.object({ version: z.int() });

export const trayKeys = ['arrived', 'mine', 'team', 'deciding', 'paused', 'late', 'all'] as const;
export type TrayKey = (typeof trayKeys)[number];

export const routes = {
  health: route({ name: 'health', method: 'GET', path: '/api/health', says: 'Whether the application answers.', caller: 'anyone', params: empty, query: empty, body: empty, guard: 'none', answer: z.object({ status: z.literal('ok'), now: moment }) }),
  openapi: route({ name: 'openapi', method: 'GET', path: '/api/openapi.json', says: 'This document.', caller: 'anyone', params: empty, query: empty, body: empty, guard: 'none', answer: z.looseObject({ openapi: z.string() }) }),
  me: route({
    name: 'me', method: 'GET', path: '/api/me', says: 'Who is signed in, and the state of the desk.', caller: 'anyone', params: empty, query: empty, body: empty, guard: 'none',
    answer: z.object({
      person: z.object({ id: z.string(), name: z.string(), role: z.enum(['administrator', 'coordinator', 'member']), groups: z.array(z.string()), worksFloor: z.boolean() }).nullable(),
      desk: z.object({ name: z.string(), station: z.string(), nowWords: z.string(), hoursWords: z.string() }),
      demo: z.object({ password: z.string(), people: z.array(z.object({ name: z.string(), email: z.string(), does: z.string() })) }).nullable(),
    }),
  }),
  advanceClock: route({ name: 'advanceClock', method: 'POST', path: '/api/demo/clock', says: 'Moves the demo clock forward; what became due happens. Only in demo mode.', caller: 'anyone', params: empty, query: empty, body: z.strictObject({ minutes: z.int().min(1, 'At least one minute.').max(60 * 24 * 60, 'At most 60 days at once.') }), guard: 'none', answer: z.object({ now: moment, happened: z.int() }) }),

  frontDesk: route({
    name: 'frontDesk', method: 'GET', path: '/api/desk', says: 'The forms one can ask with, and one’s own requests.', caller: 'anyone', params: empty, query: empty, body: empty, guard: 'none',
    answer: z.object({
      forms: z.array(z.object({ slug: z.string(), title: z.string(), intro: z.string(), refusal: z.string().nullable() })),
      mine: z.array(z.object({ number: z.string(), form: z.string(), subject: visibleSubject, stage: z.string(), finished: z.boolean(), dueWords: z.string() })),
    }),
  }),
  door: route({ name: 'door', method: 'GET', path: '/api/doors/:slug', says: 'A door and, to whom it admits, the form behind it.', caller: 'anyone', params: slugged, query: empty, body: empty, guard: 'none', answer: doorView }),
  submit: route({
    name: 'submit', method: 'POST', path: '/api/doors/:slug/requests', says: 'Sends a request through a door. At an outside door it waits for the address to be confirmed.', caller: 'anyone', params: slugged, query: empty, guard: 'Idempotency-Key',
    body: z.strictObject({ release: z.int(), answers: rawAnswers, contact: z.strictObject({ name: z.string().trim().max(200), email: z.string().trim().max(254) }).optional() }),
    answer: z.discriminatedUnion('state', [z.object({ state: z.literal('arrived'), number: z.string(), dueWords: z.string() }), z.object({ state: z.literal('to-confirm'), email: z.string() })]),
  }),
  confirmation: route({ name: 'confirmation', method: 'GET', path: '/api/confirmations/:token', says: 'What a confirmation link would send.', caller: 'link', params: withToken, query: empty, body: empty, guard: 'none', answer: z.object({ form: z.string(), name: z.string(), email: z.string() }) }),
  confirm: route({ name: 'confirm', method: 'POST', path: '/api/confirmations/:token', says: 'Confirms the address and sends the request.', caller: 'link', params: withToken, query: empty, body: empty, guard: 'none', answer: z.object({ number: z.string(), dueWords: z.string(), follow: z.string() }) }),
  follow: route({ name: 'follow', method: 'GET', path: '/api/follow/:token', says: 'An outside requester’s own request.', caller: 'link', params: withToken, query: empty, body: empty, guard: 'none', answer: requesterView }),
  followMessage: route({ name: 'followMessage', method: 'POST', path: '/api/follow/:token/messages', says: 'A message from an outside requester to the desk.', caller: 'link', params: withToken, query: empty, body: z.strictObject({ text }), guard: 'none', answer: done }),
  myRequest: route({ name: 'myRequest', method: 'GET', path: '/api/my/requests/:number', says: 'One’s own request as its requester sees it.', caller: 'staff', params: numbered, query: empty, body: empty, guard: 'none', answer: requesterView }),
  myMessage: route({ name: 'myMessage', method: 'POST', path: '/api/my/requests/:number/messages', says: 'A message from a staff requester to the desk.', caller: 'staff', params: numbered, query: empty, body: z.strictObject({ text }), guard: 'none', answer: done }),

  trays: route({
    name: 'trays', method: 'GET', path: '/api/trays', says: 'The trays with their counts, and what is due in the next working days.', caller: 'staff', params: empty, query: empty, body: empty, guard: 'none',
    answer: z.object({
      trays: z.array(z.object({ key: z.enum(trayKeys), label: z.string(), count: z.int() })),
      horizon: z.array(z.object({ label: z.string(), count: z.int(), state: z.enum(['late', 'soon', 'calm']) })),
    }),
  }),
  ledger: route({
    name: 'ledger', method: 'GET', path: '/api/requests', says: 'A page of the ledger: the requests of a tray, the most urgent first.', caller: 'staff', params: empty, body: empty, guard: 'none',
    query: z.strictObject({ tray: z.enum(trayKeys, `Choose one of ${trayKeys.join(', ')}.`).default('arrived'), after: z.string().max(120).optional(), find: z.string().max(100).optional() }),
    answer: z.object({ rows: z.array(ledgerRow), next: z.string().nullable(), total: z.int() }),
  }),
  sheet: route({ name: 'sheet', method: 'GET', path: '/api/requests/:number', says: 'The request sheet.', caller: 'staff', params: numbered, query: empty, body: empty, guard: 'none', answer: sheet }),
  changeFields: route({ name: 'changeFields', method: 'PATCH', path: '/api/requests/:number/fields', says: 'Changes fields of a request.', caller: 'staff', params: numbered, query: empty, body: z.strictObject({ changes: rawAnswers }), guard: 'If-Match', answer: versioned }),
  moveStage: route({ name: 'moveStage', method: 'POST', path: '/api/requests/:number/stage', says: 'Moves a request to another stage.', caller: 'staff', params: numbered, query: empty, body: z.strictObject({ stage: z.string().max(64) }), guard: 'If-Match', answer: versioned }),
  assign: route({ name: 'assign', method: 'POST', path: '/api/requests/:number/handler', says: 'Gives a request to a handler, or takes it back.', caller: 'staff', params: numbered, query: empty, body: z.strictObject({ person: z.string().max(64).nullable() }), guard: 'If-Match', answer: versioned }),
  comment: route({ name: 'comment', method: 'POST', path: '/api/requests/:number/comments', says: 'An internal note, or a message to the requester.', caller: 'staff', params: numbered, query: empty, body: z.strictObject({ text, visibility: z.enum(['internal', 'requester']) }), guard: 'none', answer: done }),
  decide: route({ name: 'decide', method: 'POST', path: '/api/requests/:number/decision', says: 'Approves or refuses.', caller: 'staff', params: numbered, query: empty, body: decision, guard: 'Idempotency-Key', answer: z.object({ state: z.enum(['approved', 'refused']) }) }),
  decisionLink: route({
    name: 'decisionLink', method: 'GET', path: '/api/decisions/:token', says: 'What a decision link asks, as its approver may see it.', caller: 'link', params: withToken, query: empty, body: empty, guard: 'none',
    answer: z.object({ number: z.string(), subject: visibleSubject, form: z.string(), step: z.string(), approver: z.string(), requester: z.string(), dueWords: z.string(), values: visibleValues, hops: z.array(hop) }),
  }),
  decideByLink: route({ name: 'decideByLink', method: 'POST', path: '/api/decisions/:token', says: 'Approves or refuses by the link in a letter.', caller: 'link', params: withToken, query: empty, body: decision, guard: 'Idempotency-Key', answer: z.object({ state: z.enum(['approved', 'refused']), number: z.string() }) }),
  live: route({ name: 'live', method: 'GET', path: '/api/live', says: 'Server-sent events: the numbers of requests that changed, for those who may see them.', caller: 'staff', params: empty, query: empty, body: empty, guard: 'none', answer: z.object({ event: z.literal('changed'), data: z.object({ number: z.string() }) }) }),

  mailroom: route({ name: 'mailroom', method: 'GET', path: '/api/mailroom', says: 'Letters the mail stand-in received. Only in demo mode.', caller: 'anyone', params: empty, query: z.strictObject({ find: z.string().max(100).optional() }), body: empty, guard: 'none', answer: z.object({ letters: z.array(letter.pick({ id: true, receivedAt: true, to: true, subject: true })), waiting: z.int(), failed: z.int() }) }),
  letter: route({ name: 'letter', method: 'GET', path: '/api/mailroom/:id', says: 'One letter as received.', caller: 'anyone', params: z.strictObject({ id: z.string().max(64) }), query: empty, body: empty, guard: 'none', answer: letter }),

  forms: route({ name: 'forms', method: 'GET', path: '/api/forms', says: 'All forms with their state.', caller: 'coordinator', params: empty, query: empty, body: empty, guard: 'none', answer: z.object({ forms: z.array(z.object({ key: z.string(), title: z.string(), register: z.string(), release: z.int(), changed: z.boolean(), findings: z.int(), requests: z.int() })) }) }),
  form: route({
    name: 'form', method: 'GET', path: '/api/forms/:key', says: 'A form in the workshop: its draft, releases, doors and access plan.', caller: 'coordinator', params: keyed, query: empty, body: empty, guard: 'none',
    answer: z.object({
      key: z.string(), version: z.int(), draft: formDesign, findings: z.array(finding), changes: z.array(z.string()), releases: z.array(release), doors: z.array(doorSettings), groups: z.array(group), stages: z.array(stage),
      calendar: z.object({ name: z.string(), zone: z.string() }), today: z.string(),
      access: z.array(z.object({ name: z.string(), fields: z.array(z.string()), audience: z.string(), level: z.enum(['hidden', 'read', 'write']) })),
      grid: z.array(z.object({ field: z.string(), label: z.string(), cells: z.array(z.object({ who: z.string(), level: z.enum(['hidden', 'read', 'write']), rule: z.string() })) })),
    }),
  }),
  saveDraft: route({ name: 'saveDraft', method: 'PUT', path: '/api/forms/:key/draft', says: 'Keeps the draft of a form.', caller: 'coordinator', params: keyed, query: empty, body: z.strictObject({ draft: formDesign }), guard: 'If-Match', answer: z.object({ version: z.int(), findings: z.array(finding), changes: z.array(z.string()) }) }),
  releaseForm: route({ name: 'releaseForm', method: 'POST', path: '/api/forms/:key/releases', says: 'Releases the draft with the next number.', caller: 'coordinator', params: keyed, query: empty, body: z.strictObject({ note: z.string().max(500) }), guard: 'If-Match', answer: z.object({ number: z.int(), version: z.int() }) }),
  setDoor: route({ name: 'setDoor', method: 'PATCH', path: '/api/doors/:slug', says: 'Opens or closes a door, and what people read when it is closed.', caller: 'coordinator', params: slugged, query: empty, body: z.strictObject({ open: z.boolean(), closedMessage: z.string().max(500) }), guard: 'none', answer: doorSettings }),
} as const;

export type Routes = typeof routes;
export type RouteName = keyof Routes;
export type AnswerOf<N extends RouteName> = z.output<Routes[N]['answer']>;
export type BodyOf<N extends RouteName> = z.input<Routes[N]['body']>;
export type ParamsOf<N extends RouteName> = z.input<Routes[N]['params']>;
export type QueryOf<N extends RouteName> = z.input<Routes[N]['query']>;
export type Person = z.infer<typeof person>;
