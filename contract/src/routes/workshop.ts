import { z } from 'zod';
import { route } from '../route.ts';
import { designChange, doorSettings, empty, finding, formDesign, group, release, stage, visibleReason, visibleSubject } from '../schemas.ts';
import { keyed, slugged } from './params.ts';

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
      forms: z.array(z.object({ key: z.string(), title: z.string(), register: z.string(), release: z.int(), changed: z.boolean(), findings: z.int(), requests: z.int() })),
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
      prefix: z.string().regex(/^[A-Z]{2,5}$/, 'Use two to five capital letters, like AC.'),
      /** The group that works at its desk besides the teams requests are routed to. */
      desk: z.string().max(64),
      doors: z.strictObject({ staff: z.boolean(), outside: z.boolean() }),
      draft: formDesign,
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
      doors: z.array(doorSettings),
      groups: z.array(group),
      /** Staff to pick from in conditions. */
      people: z.array(z.object({ key: z.string(), label: z.string(), groups: z.array(z.string()), department: z.string() })),
      /** The fields of the register: they hold answers, and keep their kinds. */
      released: z.array(z.string()),
      stages: z.array(stage),
      calendar: z.object({ name: z.string(), zone: z.string(), open: z.array(z.boolean()), closed: z.array(z.string()) }),
      today: z.string(),
      now: z.string(),
      access: z.array(z.object({ name: z.string(), fields: z.array(z.string()), audience: z.string(), level: z.enum(['hidden', 'read', 'write']) })),
      grid: z.array(
        z.object({ field: z.string(), label: z.string(), cells: z.array(z.object({ who: z.string(), level: z.enum(['hidden', 'read', 'write']), rule: z.string() })) }),
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
    body: z.strictObject({ note: z.string().max(500) }),
    guard: 'If-Match',
    answer: z.object({ number: z.int(), version: z.int() }),
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
      /** Over all requests of the register, when the database can decide the condition; null when it can’t. */
      ever: z.object({ holds: z.int(), of: z.int() }).nullable(),
      tried: z.array(z.object({ number: z.string(), subject: visibleSubject, result: z.boolean().nullable() })),
      explained: z.object({ number: z.string(), reason: visibleReason }).nullable(),
    }),
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
