import type { Revealed, VisibleChange, VisibleReason, VisibleValues } from '@tolvek/core/access';
import type { Fuse } from '@tolvek/core/deadline';
import type { FormDesign, FormRule, Question } from '@tolvek/core/form';
import { type Field, type Kind, priorities, type RequestFacts } from '@tolvek/core/register';
import { z } from 'zod';

/** A value that only core's `reveal` can make; the schema describes its shape, the type asks for the brand. */
const revealed = <T>(shape: z.ZodType): z.ZodType<Revealed<T>> => shape as unknown as z.ZodType<Revealed<T>>;

const key = z.string().regex(/^[a-z][a-z0-9_-]{0,63}$/, 'Use small letters, figures, “-” and “_”, beginning with a letter.');
/** Names in expressions: no hyphen, which would read as minus. */
const fieldKey = z.string().regex(/^[a-z][a-z0-9_]{0,63}$/, 'Use small letters, figures and “_”, beginning with a letter.');
export const moment = z.iso.datetime();
const short = z.string().max(200);
const long = z.string().max(5_000);
export const empty = z.strictObject({});

const fieldValue = z.union([z.string(), z.number(), z.boolean(), z.strictObject({ minor: z.int(), currency: z.string().length(3) })]);
export const rawAnswers = z.record(z.string().max(64), z.union([z.string().max(20_000), z.number(), z.boolean(), z.null()]));

const option = z.strictObject({ key: fieldKey, label: short, help: short.optional(), retired: z.boolean().optional() });
export const kind: z.ZodType<Kind, Kind> = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('text'), most: z.int().min(1).max(1_000).optional() }),
  z.strictObject({ kind: z.literal('long-text'), most: z.int().min(1).max(20_000).optional() }),
  z.strictObject({ kind: z.literal('number'), places: z.int().min(0).max(6), least: z.number().optional(), most: z.number().optional(), unit: z.string().max(20).optional() }),
  z.strictObject({ kind: z.literal('money'), currency: z.string().regex(/^[A-Z]{3}$/, 'Use a currency code like EUR.'), least: z.int().optional(), most: z.int().optional() }),
  z.strictObject({ kind: z.literal('date'), notBeforeToday: z.boolean().optional(), notBefore: fieldKey.optional() }),
  z.strictObject({ kind: z.literal('yes-no') }),
  z.strictObject({ kind: z.literal('email') }),
  z.strictObject({ kind: z.literal('phone') }),
  z.strictObject({ kind: z.literal('link') }),
  z.strictObject({ kind: z.literal('duration'), most: z.int().min(1).optional() }),
  z.strictObject({ kind: z.literal('choice'), options: z.array(option).max(500) }),
]);
const field: z.ZodType<Field, Field> = z.strictObject({ key: fieldKey, label: short, type: kind, source: z.enum(['asked', 'desk-only']) });
const question: z.ZodType<Question, Question> = z.strictObject({ field: fieldKey, asks: short, help: z.string().max(1_000), required: z.boolean() });
const rule: z.ZodType<FormRule, FormRule> = z.strictObject({ id: key, name: short, when: z.string().max(4_000), show: z.array(fieldKey).max(300), on: z.boolean() });
const outcome = z.strictObject({ team: key, priority: z.enum(priorities), workingDays: z.number(), needsApproval: z.boolean() });
const routing = z.strictObject({
  columns: z.array(z.strictObject({ id: key, label: short, input: z.string().max(4_000) })).max(40),
  rows: z.array(z.strictObject({ id: key, note: short, cells: z.record(key, z.string().max(4_000)), outcome })).max(1_000),
  otherwise: outcome,
});
export const formDesign: z.ZodType<FormDesign, FormDesign> = z.strictObject({
  title: short,
  intro: long,
  subject: short,
  fields: z.array(field).max(500),
  questions: z.array(question).max(500),
  rules: z.array(rule).max(300),
  routing,
  approval: z.strictObject({ step: z.strictObject({ id: key, label: short, group: key }) }),
  deadline: z.strictObject({ calendar: key, remindBefore: z.int().min(0), escalateAfter: z.int().min(0), escalateTo: key }),
});

export const finding = z.object({ severity: z.enum(['error', 'caution']), page: z.enum(['questions', 'rules', 'routing', 'approval']), at: z.string(), message: z.string() });

const reason: z.ZodType = z.lazy(() => z.object({ words: z.string(), result: z.boolean().nullable(), parts: z.array(reason) })).meta({ id: 'Reason' });
export const visibleReason = revealed<VisibleReason>(reason);
export const visibleValues = revealed<VisibleValues>(
  z.object({
    fields: z.array(
      z.object({ key: z.string(), label: z.string(), value: fieldValue.nullable(), shown: z.string(), writable: z.boolean(), source: z.enum(['asked', 'desk-only']) }),
    ),
    withheld: z.array(z.object({ label: z.string(), rule: z.string() })),
  }),
);
export const visibleSubject = revealed<string>(z.string());
export const visibleChanges = revealed<readonly VisibleChange[]>(z.array(z.object({ label: z.string(), before: z.string(), after: z.string() })));

export const person = z.object({ id: z.string(), name: z.string() });
export const stage = z.object({ key: z.string(), label: z.string(), phase: z.enum(['arrived', 'working', 'paused', 'finished']), role: z.string().nullable() });
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
  priority: z.enum(priorities),
  fuse,
  due: moment,
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
  door: z.enum(['staff', 'outside']),
  requester: z.object({ name: z.string(), outside: z.boolean() }),
  stage,
  moves: z.array(stage),
  team: z.string(),
  handler: person.nullable(),
  assignable: z.array(person),
  priority: z.enum(priorities),
  values: visibleValues,
  fieldTypes: z.record(z.string(), kind),
  fuse,
  dueWords: z.string(),
  dueWhy: z.array(z.string()),
  hops: z.array(hop),
  routing: z.object({
    row: z.int(),
    outcome: z.string(),
    rows: z.array(z.object({ row: z.int(), note: z.string(), won: z.boolean(), cells: z.array(visibleReason) })),
  }),
  approval: z
    .object({
      label: z.string(),
      group: z.string(),
      state: z.enum(['waiting', 'approved', 'refused', 'withdrawn']),
      decidedBy: z.string().nullable(),
      comment: z.string().nullable(),
      mayDecide: z.boolean(),
      whyNot: z.string().nullable(),
    })
    .nullable(),
  history: z.array(historyEntry),
});

const facts: z.ZodType<RequestFacts, RequestFacts> = z.object({
  requesterIsOutside: z.boolean(),
  requesterId: z.string().nullable(),
  requesterGroups: z.array(z.string()),
  calendar: z.object({ open: z.array(z.boolean()), closed: z.array(z.string()) }),
  door: z.enum(['staff', 'outside']),
  today: z.string(),
});

export const doorView = z.object({
  slug: z.string(),
  kind: z.enum(['staff', 'outside']),
  title: z.string(),
  /** Null when the viewer isn't admitted; the refusal says why. */
  form: z
    .object({ intro: z.string(), release: z.int(), fields: z.array(field).readonly(), questions: z.array(question).readonly(), rules: z.array(rule).readonly(), facts })
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
export const doorSettings = z.object({ slug: z.string(), kind: z.enum(['staff', 'outside']), open: z.boolean(), closedMessage: z.string() });
export const group = z.object({ key: z.string(), name: z.string(), isTeam: z.boolean(), members: z.int() });

/** An RFC 9457 problem document, with Tolvek's list of fields where fields are involved. */
export const problemDocument = z
  .object({
    type: z.string(),
    title: z.string(),
    status: z.int(),
    detail: z.string(),
    problems: z.array(z.object({ field: z.string(), message: z.string(), fix: z.string() })).optional(),
  })
  .meta({ id: 'Problem' });
export type ProblemDocument = z.infer<typeof problemDocument>;
