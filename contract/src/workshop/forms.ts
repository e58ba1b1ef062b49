import type { KnownRegister } from '@tolvek/core/form';
import { z } from 'zod';
import { designChange, doorSettings, finding, formDesign, release } from '../form/shapes.ts';
import { group } from '../people/shapes.ts';
import { accessRules, field, profileField, stage, vocabulary } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import { done, fieldValue, keyed, moment, prefix, visibleChanges, visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { formHeads } from './heads.ts';

const asksFor = z.array(z.string().max(64)).max(500);
const title = z.string().trim().max(200);
const knownRegister = exactly<KnownRegister>()(
  z.object({
    key: z.string(),
    name: z.string(),
    fields: z.array(field).readonly(),
    stages: z.array(z.object({ key: z.string(), label: z.string() })).readonly(),
    restricted: z.array(z.string()).readonly(),
  }),
);
/** One way of a value that was allowed on purpose. */
const disclosed = z.object({
  id: z.string(),
  words,
  source: z.string(),
  what: z.enum(['verdict', 'value']),
  reason: z.string(),
  by: z.string(),
  at: moment,
  /** Whether the draft or the release in force still has this way. */
  stands: z.boolean(),
});

/** Building forms and releasing them. */
export const formRoutes = routesOf(formHeads, {
  askInto: {
    says: 'Makes another form that asks into a register that is there. Nobody can ask with it until it is released.',
    params: keyed,
    body: z.strictObject({
      title,
      /** Keys of the fields it asks for. */
      asks: asksFor,
      doors: z.strictObject({ staff: z.boolean(), outside: z.boolean() }),
    }),
    answer: z.object({ key: z.string() }),
  },
  duplicateForm: {
    says: 'Makes another form of the same register from the draft of one.',
    params: keyed,
    body: z.strictObject({ title }),
    answer: z.object({ key: z.string() }),
  },
  setFormState: {
    says: 'Stops a form, so that nobody can ask by it; takes it up again; or takes it off the shelf for good. Its requests stay.',
    params: keyed,
    body: z.strictObject({ state: z.enum(['in use', 'stopped', 'deleted']) }),
    answer: done,
  },
  recomputation: {
    says: 'What the draft would compute otherwise of the form’s requests that are there.',
    params: keyed,
    answer: z.object({
      /** What is computed otherwise by the draft; none: there is nothing to choose. */
      fields: z.array(z.string()),
      looked: z.int(),
      changed: z.int(),
      /** Whether there may be more that this viewer may not look into. */
      some: z.boolean(),
      requests: z.array(z.object({ number: z.string(), subject: visibleSubject, changes: visibleChanges })),
    }),
  },
  forms: {
    says: 'All forms with their state.',
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
          /** Whether whoever asks builds it. */
          mayChange: z.boolean(),
        }),
      ),
    }),
  },
  ground: {
    says: 'What a new form can stand on: teams, groups that decide, working calendars.',
    answer: z.object({
      groups: z.array(group),
      calendars: z.array(z.object({ key: z.string(), name: z.string() })),
      vocabularies: z.array(vocabulary).readonly(),
      registers: z.array(z.object({ key: z.string(), name: z.string() })),
      /** The fields of people’s profiles, for conditions. */
      profile: z.array(profileField).readonly(),
    }),
  },
  createForm: {
    says: 'Makes a form with a register of its own, from a draft. Nobody can ask with it until it is released.',
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
    answer: z.object({ key: z.string() }),
  },
  form: {
    says: 'A form in the workshop: its draft, releases, doors and access plan.',
    params: keyed,
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
        z.object({
          ...{ key: z.string(), label: z.string(), groups: z.array(z.string()), department: z.string() },
          profile: z.record(z.string(), fieldValue),
        }),
      ),
      /** The fields of people’s profiles, for conditions. */
      profile: z.array(profileField).readonly(),
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
        opened: z.array(z.string()).optional(),
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
      planHistory: z.array(z.object({ at: moment, who: z.string(), words })),
      /** What the release in force tells to somebody who may not read it, as the plan is now. */
      waysInForce: z.array(finding),
      /** The rules of the plan in force that hold while somebody asks as well. */
      asking: accessRules,
      /** The fields that this viewer may read on requests that are not their own. */
      reads: z.array(z.string()),
      /** The same for columns of lines. */
      readsColumns: z.array(z.string()),
      access: z.array(
        z.object({
          name: z.string(),
          fields: z.array(words),
          audience: words,
          level: z.enum(['hidden', 'read', 'write']),
        }),
      ),
      grid: z.array(
        z.object({
          field: z.string(),
          label: z.string(),
          cells: z.array(z.object({ who: words, level: z.enum(['hidden', 'read', 'write']), rule: words })),
        }),
      ),
    }),
  },
  saveDraft: {
    says: 'Keeps the draft of a form.',
    params: keyed,
    body: z.strictObject({ draft: formDesign }),
    answer: z.object({ version: z.int(), findings: z.array(finding), changes: z.array(designChange) }),
  },
  releaseForm: {
    says: 'Releases the draft with the next number.',
    params: keyed,
    body: z.strictObject({
      note: z.string().max(500),
      /** Whether requests that are there are computed anew by it; else they keep what they have. */
      recompute: z.boolean().optional(),
    }),
    answer: z.object({
      number: z.int(),
      version: z.int(),
      /** The work of computing requests anew, where that was wanted. */
      job: z.string().nullable(),
    }),
  },
  draftHistory: {
    says: 'What the draft was: one state for each stretch of work by one person, the newest first, and what each changed.',
    params: keyed,
    answer: z.object({
      states: z.array(
        z.object({ id: z.string(), by: z.string(), at: moment, changes: z.array(designChange), design: formDesign }),
      ),
    }),
  },
  compareRelease: {
    says: 'A release as it was frozen, and what the draft would change against it.',
    params: z.strictObject({ key: z.string().max(64), number: z.coerce.number().int().min(1) }),
    answer: z.object({ design: formDesign, changes: z.array(designChange) }),
  },
});
