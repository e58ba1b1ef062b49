import type {
  AccessPlan,
  Revealed,
  RevealedFacts,
  VisibleChange,
  VisibleReason,
  VisibleValues,
} from '@tolvek/core/access';
import type { Fuse } from '@tolvek/core/deadline';
import {
  type Action,
  type DesignChange,
  type Finding,
  type Fix,
  type FormDesign,
  type FormFile,
  type FormRule,
  OWN_PARTS,
  ofToday,
  type Part,
  type UniqueRule,
} from '@tolvek/core/form';
import { isOfEveryObject } from '@tolvek/core/own';
import type { Audience } from '@tolvek/core/people';
import {
  type Field,
  type ItemColumn,
  isMailAddress,
  type Kind,
  type KnownRequest,
  MOST_TERMS,
  MOVERS,
  OPTION_COLOURS,
  type Preset,
  priorities,
  type SingleKind,
  type Term,
  type Vocabulary,
} from '@tolvek/core/register';
import { z } from 'zod';

/**
 * A value that only core's `reveal` can make; the schema describes its shape, the type asks for the
 * brand.
 */
const revealed = <T>(shape: z.ZodType): z.ZodType<Revealed<T>> => shape as unknown as z.ZodType<Revealed<T>>;

const key = z
  .string()
  .regex(/^[a-z][a-z0-9_-]{0,63}$/, 'Use small letters, figures, “-” and “_”, beginning with a letter.')
  .refine((text) => !isOfEveryObject(text), 'Programs have this name for something else. Use another.');
/** Names in expressions: no hyphen, which would read as minus. */
const fieldKey = z
  .string()
  .regex(/^[a-z][a-z0-9_]{0,63}$/, 'Use small letters, figures and “_”, beginning with a letter.')
  .refine((text) => !isOfEveryObject(text), 'Programs have this name for something else. Use another.');
/** Something that keeps the application from doing all of its work. */
export const trouble = z.object({
  what: z.enum(['locked', 'full', 'disk', 'job']),
  words: z.string(),
  since: z.iso.datetime(),
});
export const moment = z.iso.datetime();
const short = z.string().max(200);
const long = z.string().max(5_000);
export const empty = z.strictObject({});

const money = z.strictObject({ minor: z.int(), currency: z.string().length(3) });
const single = z.union([z.string(), z.number(), z.boolean(), money]);
export const fieldValue = z.union([
  single,
  z.array(z.string()).readonly(),
  z.array(z.record(z.string(), single)).readonly(),
]);
const rawSingle = z.union([z.string().max(20_000), z.number(), z.boolean(), z.null()]);
/** Rows an answer may have before anybody reads it; what a field allows is far less. */
const MOST_SENT = 1_000;
const rawAnswer = z.union([
  rawSingle,
  z.array(z.string().max(200)).max(MOST_SENT, `Send at most ${MOST_SENT} at once.`).readonly(),
  z
    .array(z.record(z.string().max(64), rawSingle))
    .max(MOST_SENT, `Send at most ${MOST_SENT} lines at once.`)
    .readonly(),
]);
export const rawAnswers = z.record(z.string().max(64), rawAnswer);

const formula = z.string().max(4_000);
const option = z.strictObject({
  key: fieldKey,
  label: short,
  help: short.optional(),
  colour: z.enum(OPTION_COLOURS).optional(),
  retired: z.boolean().optional(),
});
const options = z.array(option).max(500).readonly();
const level = z.strictObject({
  worth: z.int().min(0),
  label: short,
  help: short.optional(),
  retired: z.boolean().optional(),
});
/** What a draft names; empty until it is chosen, which is a finding. */
const chosenKey = key.or(z.literal(''));
const singleKinds = [
  z.strictObject({ kind: z.literal('text'), most: z.int().min(1).max(1_000).optional() }),
  z.strictObject({ kind: z.literal('long-text'), most: z.int().min(1).max(20_000).optional() }),
  z.strictObject({
    kind: z.literal('number'),
    places: z.int().min(0).max(6),
    least: z.number().optional(),
    most: z.number().optional(),
    unit: z.string().max(20).optional(),
  }),
  z.strictObject({
    kind: z.literal('money'),
    currency: z.string().regex(/^[A-Z]{3}$/, 'Use a currency code like EUR.'),
    least: z.int().optional(),
    most: z.int().optional(),
  }),
  z.strictObject({ kind: z.literal('date'), notBeforeToday: z.boolean().optional(), notBefore: fieldKey.optional() }),
  z.strictObject({
    kind: z.literal('date-time'),
    notBeforeNow: z.boolean().optional(),
    notBefore: fieldKey.optional(),
  }),
  z.strictObject({ kind: z.literal('yes-no') }),
  z.strictObject({ kind: z.literal('email') }),
  z.strictObject({ kind: z.literal('phone') }),
  z.strictObject({ kind: z.literal('link') }),
  z.strictObject({ kind: z.literal('duration'), most: z.int().min(1).optional() }),
  z.strictObject({ kind: z.literal('choice'), options, other: z.boolean().optional() }),
  z.strictObject({ kind: z.literal('level'), levels: z.array(level).max(100).readonly() }),
  z.strictObject({ kind: z.literal('term'), vocabulary: chosenKey, under: fieldKey.optional() }),
] as const;
const singleKind: z.ZodType<SingleKind, SingleKind> = z.discriminatedUnion('kind', singleKinds);
const column: z.ZodType<ItemColumn, ItemColumn> = z.strictObject({
  key: fieldKey,
  label: short,
  type: singleKind,
  required: z.boolean(),
  formula: formula.optional(),
});
const groupKeys = z.array(key).max(100).readonly();
const pointing = {
  register: chosenKey,
  shows: z.array(fieldKey).max(6, 'Six fields tell enough.').readonly(),
  among: z.enum(['all', 'unfinished', 'finished', 'mine']),
  offered: formula.optional(),
};
const termSchema: z.ZodType<Term, Term> = z.strictObject({
  key: fieldKey,
  label: short,
  under: fieldKey.optional(),
  also: z.array(short).max(20).readonly().optional(),
  retired: z.boolean().optional(),
  now: fieldKey.optional(),
});
export const terms = z.array(termSchema).max(MOST_TERMS, `At most ${MOST_TERMS} terms.`).readonly();
export const vocabulary: z.ZodType<Vocabulary, Vocabulary> = z.strictObject({ key, name: short, terms });
export const kind: z.ZodType<Kind, Kind> = z.discriminatedUnion('kind', [
  ...singleKinds,
  z.strictObject({
    kind: z.literal('choices'),
    options,
    other: z.boolean().optional(),
    least: z.int().min(0).optional(),
    most: z.int().min(1).optional(),
  }),
  z.strictObject({ kind: z.literal('person'), from: groupKeys }),
  z.strictObject({ kind: z.literal('people'), from: groupKeys, most: z.int().min(1).optional() }),
  z.strictObject({
    kind: z.literal('terms'),
    vocabulary: chosenKey,
    under: fieldKey.optional(),
    most: z.int().min(1).optional(),
  }),
  z.strictObject({ kind: z.literal('reference'), ...pointing }),
  z.strictObject({ kind: z.literal('references'), ...pointing, most: z.int().min(1).optional() }),
  z.strictObject({ kind: z.literal('running-number'), prefix: z.string().max(20), digits: z.int().min(1).max(9) }),
  z.strictObject({
    kind: z.literal('files'),
    only: z.enum(['any', 'pictures', 'documents']),
    most: z.int().min(1).max(20).optional(),
    mostBytes: z.int().min(1_000).max(100_000_000).optional(),
  }),
  z.strictObject({
    kind: z.literal('line-items'),
    columns: z.array(column).max(20).readonly(),
    least: z.int().min(0).optional(),
    most: z.int().min(1).max(500, 'At most 500 lines.').optional(),
  }),
]);
const preset: z.ZodType<Preset, Preset> = z.discriminatedUnion('from', [
  z.strictObject({ from: z.literal('fixed'), value: rawAnswer }),
  z.strictObject({ from: z.literal('today'), plus: z.int().min(-3_660).max(3_660) }),
  z.strictObject({ from: z.literal('now') }),
  z.strictObject({ from: z.literal('me') }),
  z.strictObject({ from: z.literal('department') }),
  z.strictObject({ from: z.literal('field'), field: fieldKey }),
  z.strictObject({ from: z.literal('formula'), formula }),
]);
export const field: z.ZodType<Field, Field> = z.discriminatedUnion('source', [
  z.strictObject({
    key: fieldKey,
    label: short,
    type: kind,
    source: z.enum(['asked', 'desk-only']),
    preset: preset.optional(),
  }),
  z.strictObject({ key: fieldKey, label: short, type: kind, source: z.literal('computed'), formula }),
  z.strictObject({ key: fieldKey, label: short, type: kind, source: z.literal('given') }),
  z.strictObject({
    key: fieldKey,
    label: short,
    type: kind,
    source: z.literal('carried'),
    reference: fieldKey,
    field: fieldKey,
    live: z.boolean(),
  }),
]);
/** Parts that are no questions: their ids have a hyphen, which no field key has. */
const partId = z
  .string()
  .regex(/^[a-z]+(-[a-z0-9]+)+$/, 'Use small letters and figures with a hyphen between.')
  .max(64);
const help = z.string().max(1_000);
const part: z.ZodType<Part, Part> = z.discriminatedUnion('part', [
  z.strictObject({
    part: z.literal('question'),
    field: fieldKey,
    asks: short,
    help,
    required: z.boolean(),
    whenHidden: z.enum(['ignored', 'cleared', 'kept']).optional(),
  }),
  z.strictObject({ part: z.literal('section'), id: partId, title: short, text: long }),
  z.strictObject({ part: z.literal('page'), id: partId, title: short, text: long }),
  z.strictObject({
    part: z.literal('instruction'),
    id: partId,
    text: long,
    mail: z
      .strictObject({
        label: short,
        to: z.string().max(254).refine(isMailAddress, 'Give a mail address like desk@station.example.'),
      })
      .optional(),
  }),
]);
const parts = z.array(part).max(700).readonly();
const partKeys = z.array(z.string().max(64)).max(500).readonly();
const action: z.ZodType<Action, Action> = z.discriminatedUnion('do', [
  z.strictObject({ do: z.enum(['show', 'hide']), parts: partKeys }),
  z.strictObject({ do: z.enum(['require', 'lock', 'clear']), fields: partKeys }),
  z.strictObject({ do: z.literal('set'), field: fieldKey, value: formula }),
  z.strictObject({ do: z.literal('limit'), field: fieldKey, options: partKeys }),
  z.strictObject({ do: z.literal('warn'), field: fieldKey, text: z.string().max(500) }),
  z.strictObject({ do: z.literal('refuse'), field: fieldKey, text: z.string().max(500), fix: z.string().max(500) }),
  z.strictObject({ do: z.literal('jump'), after: z.string().max(64), to: z.string().max(64) }),
]);
const actions = z.array(action).max(50).readonly();
const rule: z.ZodType<FormRule, FormRule> = z.strictObject({
  id: key,
  name: short,
  says: z.string().max(1_000),
  when: formula,
  then: actions,
  otherwise: actions,
  on: z.boolean(),
  runs: z.enum(['filling', 'saving']),
});
const unique: z.ZodType<UniqueRule, UniqueRule> = z.strictObject({
  id: key,
  fields: z.array(fieldKey).min(1).max(10).readonly(),
  among: z.enum(['all', 'unfinished']),
});
const outcome = z.strictObject({
  team: key,
  priority: z.enum(priorities),
  workingDays: z.number(),
  needsApproval: z.boolean(),
});
const routing = z.strictObject({
  columns: z.array(z.strictObject({ id: key, label: short, input: z.string().max(4_000) })).max(40),
  rows: z
    .array(z.strictObject({ id: key, note: short, cells: z.record(key, z.string().max(4_000)), outcome }))
    .max(1_000),
  otherwise: outcome,
});
const approvalPath = z.strictObject({
  steps: z
    .array(
      z.strictObject({
        ...{ id: key, label: short, needed: z.int().min(1).max(20) },
        seats: z
          .array(z.strictObject({ group: key }))
          .min(1)
          .max(20),
      }),
    )
    .min(1)
    .max(10),
});

export const formDesign: z.ZodType<FormDesign, FormDesign> = z.strictObject({
  title: short,
  intro: long,
  subject: short,
  fields: z.array(field).max(500),
  parts,
  rules: z.array(rule).max(300),
  unique: z.array(unique).max(20),
  routing,
  approval: approvalPath,
  deadline: z.strictObject({
    calendar: key,
    remindBefore: z.int().min(0),
    escalateAfter: z.int().min(0),
    escalateTo: key,
  }),
  own: z.array(z.enum(OWN_PARTS)).max(3).optional(),
});

const audience: z.ZodType<Audience, Audience> = z.strictObject({
  in: z.union([
    z.strictObject({ everyone: z.literal(true) }),
    z.strictObject({ anyOf: z.array(key).max(50).readonly() }),
    z.strictObject({ allOf: z.array(key).max(50).readonly() }),
  ]),
  outOf: z.array(key).max(50).readonly(),
  requester: z.enum(['in', 'out']).optional(),
});
/** The rules of an access plan. */
export const accessRules: z.ZodType<AccessPlan['rules'], AccessPlan['rules']> = z
  .array(
    z.strictObject({
      id: key,
      name: short,
      fields: z.union([z.literal('all'), z.array(fieldKey).max(500).readonly()]),
      audience,
      level: z.enum(['hidden', 'read', 'write']),
      overriding: z.boolean().optional(),
    }),
  )
  .max(100)
  .readonly();

const named = z
  .array(z.strictObject({ key: z.string().max(64), name: z.string().max(200) }))
  .max(200)
  .readonly();
const formFileToday: z.ZodType<FormFile> = z.strictObject({
  format: z.literal('tolvek-form'),
  version: z.literal(2),
  design: formDesign,
  needs: z.strictObject({
    groups: named,
    calendars: named,
    vocabularies: z.array(vocabulary).max(50).readonly().default([]),
    registers: named.default([]),
  }),
  /** What protected its answers where it was made. */
  access: z.strictObject({ rules: accessRules, staysIn: z.boolean() }).optional(),
});

/** A form taken along as a file, of today or of an earlier version. */
export const formFileSchema: z.ZodType<FormFile> = z.preprocess(ofToday, formFileToday);

/** The shape of a form file, as JSON Schema 2020-12. */
export const formFileJsonSchema = (): unknown => ({
  title: 'A Tolvek form as a file',
  ...z.toJSONSchema(formFileToday, { io: 'input', unrepresentable: 'any' }),
});

const fix: z.ZodType<Fix, Fix> = z.discriminatedUnion('fix', [
  z.strictObject({ fix: z.enum(['drop-rule', 'preset-instead', 'always-show']), rule: key }),
  z.strictObject({ fix: z.literal('drop-part'), rule: key, part: z.string() }),
  z.strictObject({ fix: z.enum(['drop-field', 'ask-field', 'take-off', 'offer-first']), field: z.string() }),
  z.strictObject({
    fix: z.literal('drop-retired'),
    rule: key,
    field: z.string(),
    options: z.array(z.string()).readonly(),
  }),
  z.strictObject({ fix: z.literal('add-row'), column: z.string(), option: z.string() }),
  z.strictObject({
    fix: z.literal('drop-action'),
    rule: z.string(),
    does: z.enum(['show', 'hide', 'require', 'lock', 'clear', 'set', 'limit', 'warn', 'refuse', 'jump']),
    about: z.string(),
  }),
  z.strictObject({ fix: z.enum(['drop-preset', 'drop-limit', 'drop-order']), field: z.string() }),
  z.strictObject({ fix: z.literal('drop-unique'), unique: z.string() }),
  z.strictObject({ fix: z.literal('drop-column'), column: z.string() }),
  z.strictObject({ fix: z.literal('drop-word'), part: z.string(), field: z.string() }),
  z.strictObject({ fix: z.literal('write-as'), rule: z.string(), text: z.string(), shown: z.string() }),
]);
/** One way that a value takes, as it is allowed on purpose. */
export const allowance = z.strictObject({
  sink: z.string().min(1).max(300),
  text: z.string().max(20_000),
  source: z.string().min(1).max(64),
  what: z.enum(['verdict', 'value']),
});
export const finding: z.ZodType<Finding> = z.object({
  severity: z.enum(['error', 'caution']),
  page: z.enum(['questions', 'rules', 'routing', 'approval']),
  at: z.string(),
  message: z.string(),
  fix: fix.optional(),
  way: z.array(z.string()).readonly().optional(),
  protect: z.object({ source: z.string(), field: z.string() }).optional(),
  allow: allowance.optional(),
});
export const designChange: z.ZodType<DesignChange> = z.object({
  page: z.enum(['questions', 'rules', 'routing', 'approval']),
  at: z.string(),
  words: z.string(),
  before: z.string(),
  after: z.string(),
  reaches: z.enum(['form', 'register']),
});

const reason: z.ZodType = z
  .lazy(() => z.object({ words: z.string(), result: z.boolean().nullable(), parts: z.array(reason) }))
  .meta({ id: 'Reason' });
export const visibleReason = revealed<VisibleReason>(reason);
export const visibleValues = revealed<VisibleValues>(
  z.object({
    fields: z.array(
      z.object({
        key: z.string(),
        label: z.string(),
        value: fieldValue.nullable(),
        shown: z.string(),
        writable: z.boolean(),
        source: z.enum(['asked', 'desk-only', 'computed', 'given', 'carried']),
      }),
    ),
    withheld: z.array(z.object({ label: z.string(), rule: z.string() })),
  }),
);
export const visibleSubject = revealed<string>(z.string());
export const visibleChanges = revealed<readonly VisibleChange[]>(
  z.array(z.object({ label: z.string(), before: z.string(), after: z.string() })),
);

/** A request that a reference can point to, as far as whoever answers may know it. */
export const knownRequest = revealed<KnownRequest>(
  z.object({
    id: z.string(),
    register: z.string(),
    number: z.string(),
    label: z.string(),
    values: z.record(z.string(), fieldValue),
  }),
);
export const offers = z.object({ offers: z.array(knownRequest), more: z.boolean() });

export const person = z.object({ id: z.string(), name: z.string() });
export const stage = z.object({
  key: z.string(),
  label: z.string(),
  phase: z.enum(['arrived', 'working', 'paused', 'finished']),
  role: z.string().nullable(),
});
const name = z.string().trim().max(200);
const keys = z.array(z.string().max(64)).max(100).readonly();
/** A stage as its register has it. */
export const stageDesign = z.strictObject({
  key: z.string().max(64),
  label: name,
  publicLabel: name,
  phase: z.enum(['arrived', 'working', 'paused', 'finished']),
  role: z.enum(['deciding', 'refused', 'done', 'withdrawn']).optional(),
  retired: z.literal(true).optional(),
  moves: z
    .array(
      z.strictObject({
        ...{ to: z.string().max(64), relations: z.array(z.enum(MOVERS)).max(MOVERS.length).readonly() },
        ...{ groups: keys, filled: keys, when: z.string().max(2_000) },
      }),
    )
    .max(100)
    .readonly()
    .optional(),
});
export const fuse = z.object({
  state: z.enum(['calm', 'soon', 'late', 'paused', 'done']),
  burned: z.array(z.object({ from: z.number(), to: z.number() })),
  ticks: z.array(z.number()),
  words: z.string(),
  left: z.number(),
}) as unknown as z.ZodType<Fuse>;

export const hop = z.object({
  label: z.string(),
  state: z.enum(['past', 'now', 'ahead']),
  detail: z.string(),
});

export const ledgerRow = z.object({
  number: z.string(),
  subject: visibleSubject,
  requester: z.string(),
  form: z.string(),
  stage,
  team: z.string(),
  handler: z.string().nullable(),
  /** Priority and all about time are null for things. */
  priority: z.enum(priorities).nullable(),
  /** Something other forms point to: nothing is due, nobody handles it. */
  thing: z.boolean(),
  fuse: fuse.nullable(),
  due: moment.nullable(),
  updatedAt: moment,
});

export const historyEntry = z.object({
  id: z.string(),
  at: moment,
  who: z.string(),
  what: z.string(),
  changes: visibleChanges,
  comment: z.object({ text: z.string(), visibility: z.enum(['internal', 'requester']) }).nullable(),
});

export const requesterView = z.object({
  number: z.string(),
  form: z.string(),
  subject: visibleSubject,
  stage: z.string(),
  finished: z.boolean(),
  sentAt: moment,
  /** What the requester may count on: “you hear from us by …”. Empty when finished. */
  promise: z.string(),
  values: visibleValues,
  hops: z.array(hop),
  messages: z.array(z.object({ at: moment, from: z.string(), mine: z.boolean(), text: z.string() })),
});

export const sheet = z.object({
  number: z.string(),
  version: z.int(),
  subject: visibleSubject,
  form: z.string(),
  release: z.int(),
  trial: z.boolean(),
  /** Something other forms point to: nothing is due, nobody handles it. */
  thing: z.boolean(),
  /** Null where the desk made it itself. */
  door: z.enum(['staff', 'outside']).nullable(),
  /** Without a name where nobody said who asks. */
  requester: z.object({ name: z.string(), outside: z.boolean() }),
  /** On whose behalf, and who typed it in, where these are others. */
  onBehalf: z.string().nullable(),
  enteredBy: z.string().nullable(),
  stage,
  /** The ways on from here. */
  moves: z.array(stage),
  /** The ways on that this viewer can’t take now, by the stage they lead to, and why not. */
  notNow: z.array(z.object({ label: z.string(), whyNot: z.string() })),
  team: z.string(),
  handler: person.nullable(),
  assignable: z.array(person),
  /** The teams it can be handed over to, and its own among them. */
  teams: z.array(z.object({ key: z.string(), name: z.string(), here: z.boolean() })),
  /** Where a coordinator can free it to; nowhere for anybody else. */
  frees: z.array(stage),
  /** Priority, routing and all about time are null for things. */
  priority: z.enum(priorities).nullable(),
  values: visibleValues,
  fieldTypes: z.record(z.string(), kind),
  /** What the form says to whoever fills a field in, by field; the same helps at the desk. */
  help: z.record(z.string(), z.string()),
  /** Who can be picked in its fields for people. */
  people: z.array(z.object({ id: z.string(), name: z.string(), groups: z.array(z.string()) })),
  /** What its fields take terms from, and what its references point to. */
  vocabularies: z.array(vocabulary).readonly(),
  references: z.array(knownRequest),
  /** The numbers of those the viewer works on, and may open. */
  opens: z.array(z.string()),
  /** Requests that point to this one, as far as the viewer works on them. */
  pointing: z.array(z.object({ number: z.string(), subject: visibleSubject, field: z.string() })),
  fuse: fuse.nullable(),
  dueWords: z.string().nullable(),
  dueWhy: z.array(z.string()),
  hops: z.array(hop),
  routing: z
    .object({
      /** Null where it rests on what this reader may not read. */
      row: z.int().nullable(),
      outcome: z.string(),
      rows: z.array(z.object({ row: z.int(), note: z.string(), won: z.boolean(), cells: z.array(visibleReason) })),
    })
    .nullable(),
  approval: z
    .object({
      label: z.string(),
      group: z.string(),
      state: z.enum(['waiting', 'approved', 'refused', 'withdrawn']),
      decidedBy: z.string().nullable(),
      comment: z.string().nullable(),
      mayDecide: z.boolean(),
      /** Stands for what is in view; a decision says it, so that it is on what was read. */
      seen: z.string(),
      whyNot: z.string().nullable(),
    })
    .nullable(),
  history: z.array(historyEntry),
});

export const knownFile = z.object({ ref: z.string(), bytes: z.int(), media: z.string() });
const facts: z.ZodType<RevealedFacts> = z.object({
  requesterIsOutside: z.boolean(),
  requesterId: z.string().nullable(),
  requesterGroups: z.array(z.string()),
  department: z.string(),
  calendar: z.object({ open: z.array(z.boolean()), closed: z.array(z.string()) }),
  door: z.enum(['staff', 'outside']),
  today: z.string(),
  now: z.string(),
  people: z.array(z.object({ id: z.string(), name: z.string(), groups: z.array(z.string()) })),
  files: z.array(knownFile),
  vocabularies: z.array(vocabulary).readonly(),
  references: z.array(knownRequest),
  numbers: z.record(z.string(), z.string()),
});

/** What was typed and not sent, with the files and requests it names. */
export const keptAnswers = z.object({
  answers: rawAnswers,
  typedAt: z.int(),
  files: z.array(knownFile),
  references: z.array(knownRequest),
});

export const doorView = z.object({
  slug: z.string(),
  kind: z.enum(['staff', 'outside']),
  title: z.string(),
  /** Null when the viewer isn't admitted; the refusal says why. */
  form: z
    .object({
      intro: z.string(),
      release: z.int(),
      fields: z.array(field).readonly(),
      parts,
      rules: z.array(rule).readonly(),
      facts,
      /**
       * Fields whose answers the house looks at together while they are filled in: what no two
       * requests may have, and what limits a reference.
       */
      together: z.array(z.array(fieldKey)),
      /** What the caller, signed in, typed here before and has not sent. */
      kept: keptAnswers.nullable(),
    })
    .nullable(),
  refusal: z.string().nullable(),
});

export const letter = z.object({
  id: z.string(),
  receivedAt: moment,
  from: z.string(),
  to: z.string(),
  subject: z.string(),
  text: z.string(),
  html: z.string(),
  headers: z.array(z.object({ name: z.string(), value: z.string() })),
});

export const release = z.object({ number: z.int(), note: z.string(), by: z.string(), at: moment });
export const doorSettings = z.object({
  slug: z.string(),
  kind: z.enum(['staff', 'outside']),
  open: z.boolean(),
  closedMessage: z.string(),
});
export const group = z.object({ key: z.string(), name: z.string(), isTeam: z.boolean(), members: z.int() });

/** An RFC 9457 problem document, with Tolvek's list of fields where fields are involved. */
export const problemDocument = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    detail: z.string(),
    problems: z
      .array(
        z.object({
          field: z.string(),
          message: z.string(),
          fix: z.string(),
          place: z.object({ row: z.int(), column: z.string() }).optional(),
        }),
      )
      .optional(),
  })
  .meta({ id: 'Problem' });
export type ProblemDocument = z.infer<typeof problemDocument>;
