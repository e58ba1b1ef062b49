import { OWN_PARTS } from '@tolvek/core/form';
import { z } from 'zod';
import { route } from '../route.ts';
import { doorSettings, empty, field, release, stageDesign, visibleChanges, visibleSubject } from '../schemas.ts';
import { done, keyed, prefix, versioned } from './params.ts';

const asksFor = z.array(z.string().max(64)).max(500);
const title = z.string().trim().max(200);

/** Registers, and the forms that ask into them. */
export const registerRoutes = {
  register: route({
    name: 'register',
    method: 'GET',
    path: '/api/registers/:key',
    says: 'A register as it is in force, the forms that ask into it with what each asks, and what was in force before.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      key: z.string(),
      version: z.int(),
      name: z.string(),
      prefix: z.string(),
      holds: z.enum(['requests', 'things']),
      subject: z.string(),
      deskGroups: z.array(z.string()),
      staysIn: z.boolean(),
      fields: z.array(field).readonly(),
      /** Keys of fields that left: kept with the requests that have them. */
      left: z.array(z.string()).readonly(),
      /** Why a field can’t leave, by its key; those that can are not among them. */
      stays: z.record(z.string(), z.string()),
      /** Keys of the fields that are closed to nobody who works on requests: moves ask for no others. */
      open: z.array(z.string()),
      stages: z.array(stageDesign).readonly(),
      /** How many requests are at each stage, by its key. */
      at: z.record(z.string(), z.int()),
      requests: z.int(),
      forms: z.array(
        z.object({
          key: z.string(),
          title: z.string(),
          release: z.int(),
          stopped: z.boolean(),
          /** Keys of the fields its draft asks for, in its order. */
          asks: z.array(z.string()),
          own: z.array(z.enum(OWN_PARTS)),
          doors: z.array(doorSettings),
          requests: z.int(),
        }),
      ),
      states: z.array(release),
    }),
  }),
  doubles: route({
    name: 'doubles',
    method: 'GET',
    path: '/api/registers/:key/doubles',
    says: 'Requests that share what no two may have, for each rule of a register that says so, as far as the caller may have them looked through.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      rules: z.array(
        z.object({
          /** Labels of the fields that must not be the same together. */
          fields: z.array(z.string()),
          among: z.enum(['all', 'unfinished']),
          /** Whether this caller may be told. */
          told: z.boolean(),
          /** How many answers stand more than once; the first hundred are listed. */
          groups: z.int(),
          doubles: z.array(
            z.object({
              n: z.int(),
              requests: z.array(z.object({ number: z.string(), subject: visibleSubject })),
            }),
          ),
        }),
      ),
    }),
  }),
  changeRegister: route({
    name: 'changeRegister',
    method: 'PUT',
    path: '/api/registers/:key',
    says: 'Changes what a register is called, its stages and the ways between them, who works at its desk, and which fields have left it. In force at once.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({
      name: title,
      prefix,
      deskGroups: z.array(z.string().max(64)).max(50),
      staysIn: z.boolean(),
      left: asksFor,
      /** All there are, in their order; new ones have a key of their own. */
      stages: z.array(stageDesign).max(100),
      /** Why; others read it later. */
      note: z.string().max(500),
    }),
    guard: 'If-Match',
    answer: versioned,
  }),
  goBackToState: route({
    name: 'goBackToState',
    method: 'POST',
    path: '/api/registers/:key/states/:number',
    says: 'Puts a state of a register in force again that was in force before, as far as it is settled here; fields stay.',
    caller: 'coordinator',
    params: z.strictObject({ key: z.string().max(64), number: z.coerce.number().int().min(1) }),
    query: empty,
    body: empty,
    guard: 'If-Match',
    answer: versioned,
  }),
  askInto: route({
    name: 'askInto',
    method: 'POST',
    path: '/api/registers/:key/forms',
    says: 'Makes another form that asks into a register that is there. Nobody can ask with it until it is released.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({
      title,
      /** Keys of the fields it asks for. */
      asks: asksFor,
      doors: z.strictObject({ staff: z.boolean(), outside: z.boolean() }),
    }),
    guard: 'Idempotency-Key',
    answer: z.object({ key: z.string() }),
  }),
  duplicateForm: route({
    name: 'duplicateForm',
    method: 'POST',
    path: '/api/forms/:key/duplicate',
    says: 'Makes another form of the same register from the draft of one.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({ title }),
    guard: 'Idempotency-Key',
    answer: z.object({ key: z.string() }),
  }),
  setFormState: route({
    name: 'setFormState',
    method: 'PUT',
    path: '/api/forms/:key/state',
    says: 'Stops a form, so that nobody can ask by it; takes it up again; or takes it off the shelf for good. Its requests stay.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: z.strictObject({ state: z.enum(['in use', 'stopped', 'deleted']) }),
    guard: 'none',
    answer: done,
  }),
  recomputation: route({
    name: 'recomputation',
    method: 'POST',
    path: '/api/forms/:key/recomputation',
    says: 'What the draft would compute otherwise of the form’s requests that are there.',
    caller: 'coordinator',
    params: keyed,
    query: empty,
    body: empty,
    guard: 'none',
    answer: z.object({
      /** What is computed otherwise by the draft; none: there is nothing to choose. */
      fields: z.array(z.string()),
      looked: z.int(),
      changed: z.int(),
      /** Whether there may be more that this viewer may not look into. */
      some: z.boolean(),
      requests: z.array(z.object({ number: z.string(), subject: visibleSubject, changes: visibleChanges })),
    }),
  }),
} as const;
