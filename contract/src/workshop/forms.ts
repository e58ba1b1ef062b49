import { ASKING, type KnownRegister, type Verdict } from '@tolvek/core/form';
import { RIGHTS } from '@tolvek/core/people';
import { z } from 'zod';
import { designChange, doorSettings, finding, formDesign, release, whose } from '../form/shapes.ts';
import { changeable } from '../intake/shapes.ts';
import { group } from '../people/shapes.ts';
import { accessRules, field, profileField, stage, translations, vocabulary } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import {
  done,
  fieldValue,
  keyed,
  labelled,
  moment,
  named,
  prefix,
  visibleChanges,
  visibleSubject,
} from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { calendar } from './calendars.ts';
import { formHeads } from './heads.ts';

const asksFor = z.array(z.string().max(64)).max(500);
const title = z.string().trim().max(200);
const knownRegister = exactly<KnownRegister>()(
  z.object({
    key: z.string(),
    name: z.string(),
    fields: z.array(field).readonly(),
    stages: z.array(labelled).readonly(),
    restricted: z.array(z.string()).readonly(),
  }),
);
const verdict = exactly<Verdict>()(
  z.discriminatedUnion('is', [
    z.object({ is: z.enum(['off', 'stage', 'condition', 'answers']) }),
    z.object({ is: z.literal('out'), by: z.string() }),
    z.object({ is: z.literal('not-in'), missing: z.array(z.string()).readonly() }),
    z.object({ is: z.literal('fits'), by: z.string().nullable() }),
  ]),
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
    says: 'What the draft would compute otherwise of requests that are there.',
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
  replanning: {
    says: 'What the deadlines of the draft would change of open requests.',
    params: keyed,
    answer: z.object({
      /** Whether the draft has other deadlines than the release in force; if not, there is nothing to choose. */
      differs: z.boolean(),
      /** Open requests, and those of them of which something would begin, move or go. */
      looked: z.int(),
      changed: z.int(),
      /** How many would be late by it that are not late now, and how many rings would be held back. */
      late: z.int(),
      held: z.int(),
      /** Some of those that change: what each would be due by next. */
      requests: z.array(
        z.object({ number: z.string(), subject: visibleSubject, from: moment.nullable(), to: moment.nullable() }),
      ),
    }),
  },
  forms: {
    says: 'All forms with their state.',
    answer: z.object({
      forms: z.array(
        z.object({
          key: z.string(),
          title: z.string(),
          /** The heading that its draft stands under; empty: none. */
          topic: z.string(),
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
      calendars: z.array(named),
      vocabularies: z.array(vocabulary).readonly(),
      registers: z.array(named),
      /** The fields of people’s profiles, for conditions. */
      profile: z.array(profileField).readonly(),
    }),
  },
  findPeople: {
    says: 'Active staff and contacts by part of a name or an address, twenty at most; to name one of them in an audience.',
    query: z.strictObject({ find: z.string().max(200).optional() }),
    answer: z.object({
      people: z.array(
        z.object({
          ...{ id: z.string(), name: z.string(), email: z.string(), outside: z.boolean() },
          portrait: z.string().nullable(),
        }),
      ),
    }),
  },
  proofSeat: {
    says: 'Who one of the staff or a contact is to conditions and audiences of a form, to look at it with their eyes.',
    params: z.strictObject({ key: z.string().max(64), person: z.string().max(64) }),
    answer: z.object({
      ...{ key: z.string(), label: z.string(), kind: z.enum(['staff', 'contact']) },
      ...{ groups: z.array(z.string()), department: z.string() },
      profile: z.record(z.string(), fieldValue),
      /** What they may do in the register of the form. */
      rights: z.array(z.enum(RIGHTS)),
    }),
  },
  proofTheirs: {
    says: 'What is theirs that a form would change, of one of the staff or a contact: as far as they and the caller may read it.',
    params: z.strictObject({ key: z.string().max(64), person: z.string().max(64) }),
    query: z.object({ whose }),
    answer: z.object({ theirs: z.array(changeable) }),
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
      /** People from outside whom its approval path asks. */
      outsiders: z
        .array(z.object({ key: z.string(), label: z.string(), groups: z.array(z.string()).readonly() }))
        .readonly(),
      /** Staff to pick from in conditions. */
      people: z.array(
        z.object({
          ...{ key: z.string(), label: z.string(), groups: z.array(z.string()), department: z.string() },
          profile: z.record(z.string(), fieldValue),
        }),
      ),
      /** What people can be able to do; null where the desk does not say where that is kept. */
      skills: z.array(labelled).nullable(),
      /** The rosters by which people are on duty. */
      rosters: z.array(named),
      /** The programs that can be told of what happens. */
      programs: z.array(named),
      /** The fields of people’s profiles, for conditions. */
      profile: z.array(profileField).readonly(),
      /** The fields of the register: they hold answers, and keep their kinds. */
      released: z.array(z.string()),
      stages: z.array(stage.extend({ retired: z.literal(true).optional() })),
      /** What whoever asked reads where no rule of access says otherwise. */
      requesterReads: z.object({
        ...{ answers: z.enum(['hidden', 'read']), made: z.enum(['hidden', 'read']) },
        staffOnly: z.enum(['hidden', 'read']),
      }),
      /** What requesters read of the stages, in all languages. */
      publicStages: z.array(
        z.object({ label: z.string(), publicLabel: z.string(), translations: translations.optional() }),
      ),
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
      /** The calendars that deadlines can count by. */
      calendars: z.array(named),
      /** When each of them is open, those among them that are offered no more. */
      hours: z.array(calendar),
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
  editionsGiven: {
    says: 'Who is given which edition of the draft of a form, with what came of the others, and what the release in force gives.',
    params: keyed,
    query: z.strictObject({
      /** The key of a stage that the request is at; `~asking`: while they fill it in. */
      stage: z.string().max(64).default(ASKING),
      /** How they stand to it, with spaces between: `requester`, `handler`, `team` …; whoever fills it in asks. */
      as: z.string().max(200).default(''),
      /** A part of a name or address. */
      find: z.string().trim().max(100).default(''),
      /** Only who is given this one; empty: who is given the form as it is. */
      edition: z.string().max(64).optional(),
      /** Only who is given something else than by the release in force. */
      changed: z.stringbool().default(false),
    }),
    answer: z.object({
      total: z.int(),
      staff: z.int(),
      editions: z.array(
        z.object({
          id: z.string(),
          gets: z.int(),
          was: z.int(),
          /** Who would be given it if none before fitted, and who is given it. */
          fits: z.int(),
          /** Who is led elsewhere by it if they answer so. */
          byAnswers: z.int(),
          /** Who is kept from it by whom it leaves out alone. */
          caught: z.array(z.string()),
          moreCaught: z.int(),
        }),
      ),
      plain: z.object({ gets: z.int(), was: z.int() }),
      /** Who is given something else than by the release in force; null: the form as it is. */
      moves: z.array(
        z.object({
          ...{ from: z.string().nullable(), to: z.string().nullable(), fromName: z.string() },
          ...{ count: z.int(), names: z.array(z.string()) },
        }),
      ),
      people: z.array(
        z.object({
          ...{ id: z.string(), name: z.string(), email: z.string(), kind: z.enum(['staff', 'contact']) },
          ...{ gets: z.string().nullable(), was: z.string().nullable(), verdicts: z.array(verdict) },
        }),
      ),
      more: z.int(),
      /** Somebody of whom nothing is known yet, at an outside door. */
      unknown: z.object({ gets: z.string().nullable(), verdicts: z.array(verdict) }),
      /** What the words of audiences are called. */
      words: z.record(z.string(), words),
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
      /** Whether open requests have its deadlines from now on; else they keep those they have. */
      replan: z.boolean().optional(),
    }),
    answer: z.object({
      number: z.int(),
      version: z.int(),
      /** The work of computing requests anew, and of giving them its deadlines, where that was wanted. */
      job: z.string().nullable(),
      replanning: z.string().nullable(),
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
