import { type ApprovalPlan, type ApprovalStep, SILENCES } from '@tolvek/core/approval';
import type { HandlerRule } from '@tolvek/core/assignment';
import {
  type DeadlinePlan,
  MOST_DEADLINES,
  MOST_RINGS,
  MOST_WORKING_DAYS,
  type Ring,
  type RowLength,
} from '@tolvek/core/deadline';
import {
  type Action,
  type DesignChange,
  type Difference,
  type Edition,
  type Finding,
  type Fix,
  type FormDesign,
  type FormFile,
  type FormRule,
  type NamedAction,
  OWN_PARTS,
  OWN_REQUESTS,
  ofToday,
  type Part,
  type Updates,
} from '@tolvek/core/form';

import { isMailAddress, priorities } from '@tolvek/core/register';
import {
  COMPUTED,
  type FollowerPlan,
  HITS,
  LEAVABLE,
  MOST_IN_TABLE,
  type RoutingOutcome,
  type RoutingTable,
} from '@tolvek/core/routing';
import { MOST_NOTICES, NOTICE_WAYS, type NoticePlan, USUAL_KINDS } from '@tolvek/core/telling';
import { z } from 'zod';
import { door } from '../door/shapes.ts';
import { editionAudience, language } from '../people/shapes.ts';
import { accessRules, field, preset, translations, unique, vocabulary } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { clockTime, fieldKey, formula, key, long, moment, short, weekDays } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';

/** Parts that are no questions: their ids have a hyphen, which no field key has. */
const partId = z
  .string()
  .regex(/^[a-z]+(-[a-z0-9]+)+$/, 'say wire:slugSigns')
  .max(64);
const help = z.string().max(1_000);
const namedAction = exactly<NamedAction>()(
  z.discriminatedUnion('does', [
    z.strictObject({ id: key, does: z.literal('take-part'), label: short, back: short, field: fieldKey }),
    z.strictObject({ id: key, does: z.literal('begin'), label: short, path: key }),
    z.strictObject({ id: key, does: z.literal('ask'), label: short, asks: z.union([fieldKey, z.literal('')]) }),
  ]),
);
const part = exactly<Part>()(
  z.discriminatedUnion('part', [
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
          to: z.string().max(254).refine(isMailAddress, 'say wire:emailLike'),
        })
        .optional(),
      actions: z.array(namedAction).max(10).readonly().optional(),
    }),
  ]),
);
export const parts = z.array(part).max(700).readonly();
const partKeys = z.array(z.string().max(64)).max(500).readonly();
const action = exactly<Action>()(
  z.discriminatedUnion('do', [
    z.strictObject({ do: z.enum(['show', 'hide']), parts: partKeys }),
    z.strictObject({ do: z.enum(['require', 'lock', 'clear']), fields: partKeys }),
    z.strictObject({ do: z.literal('set'), field: fieldKey, value: formula }),
    z.strictObject({ do: z.literal('limit'), field: fieldKey, options: partKeys }),
    z.strictObject({ do: z.literal('warn'), field: fieldKey, text: z.string().max(500) }),
    z.strictObject({ do: z.literal('refuse'), field: fieldKey, text: z.string().max(500), fix: z.string().max(500) }),
    z.strictObject({ do: z.literal('jump'), after: z.string().max(64), to: z.string().max(64) }),
  ]),
);
const actions = z.array(action).max(50).readonly();
export const rule = exactly<FormRule>()(
  z.strictObject({
    id: key,
    name: short,
    says: z.string().max(1_000),
    when: formula,
    then: actions,
    otherwise: actions,
    on: z.boolean(),
    runs: z.enum(['filling', 'saving']),
  }),
);
export const handlerRule = exactly<HandlerRule>()(
  z.strictObject({
    ways: z
      .array(
        z.discriminatedUnion('by', [
          z.strictObject({ by: z.enum(['last', 'load', 'turn']) }),
          z.strictObject({ by: z.literal('field'), field: fieldKey }),
          z.strictObject({
            ...{ by: z.literal('skill'), skill: z.string().min(1).max(64), least: z.number().min(0).max(1_000) },
            months: z.int().min(1).max(600).optional(),
          }),
          z.strictObject({ by: z.literal('duty'), roster: key, orNext: z.boolean().optional() }),
          z.strictObject({ by: z.literal('person'), person: z.string().min(1).max(64) }),
        ]),
      )
      .min(1)
      .max(10)
      .readonly(),
    most: z.int().min(1).max(1_000).optional(),
  }),
);
/** How long a deadline can be, wherever that is said. */
const spans = {
  days: z.strictObject({ by: z.literal('days'), days: z.int().min(0).max(MOST_WORKING_DAYS) }),
  time: z.strictObject({ by: z.literal('time'), time: z.int().min(0) }),
  formula: z.strictObject({ by: z.literal('formula'), formula, unit: z.enum(['days', 'hours']) }),
};
export const followerPlans = exactly<readonly FollowerPlan[]>()(
  z
    .array(
      z.union([
        z.strictObject({ group: key }),
        z.strictObject({ person: z.string().min(1).max(64) }),
        z.strictObject({ field: fieldKey }),
      ]),
    )
    .max(20)
    .readonly(),
);
export const rowLengths = exactly<readonly RowLength[]>()(
  z
    .array(
      z.strictObject({
        deadline: key,
        length: z.discriminatedUnion('by', [spans.days, spans.time, spans.formula]).nullable(),
      }),
    )
    .max(MOST_DEADLINES)
    .readonly(),
);
const outcome = exactly<RoutingOutcome>()(
  z.strictObject({
    ...{ team: key, priority: z.enum(priorities), workingDays: z.number(), path: key.nullable() },
    ...{ handler: handlerRule.optional(), stage: key.optional() },
    ...{ deadlines: rowLengths.optional(), followers: followerPlans.optional() },
    formulas: z.partialRecord(z.enum(COMPUTED), z.string().max(4_000)).optional(),
  }),
);
const leaves = z.array(z.enum(LEAVABLE)).max(LEAVABLE.length).readonly().optional();
const cells = z.record(key, z.string().max(4_000));
const routing = exactly<RoutingTable>()(
  z.strictObject({
    hits: z.enum(HITS).optional(),
    wishes: z.strictObject({ priority: fieldKey.optional(), due: fieldKey.optional() }).optional(),
    columns: z
      .array(z.strictObject({ id: key, label: short, input: z.string().max(4_000) }))
      .max(MOST_IN_TABLE.columns)
      .readonly(),
    rows: z
      .array(z.strictObject({ id: key, note: short, cells, outcome, leaves }))
      .max(MOST_IN_TABLE.rows)
      .readonly(),
    otherwise: outcome,
  }),
);
const seatPlan = z.union([
  z.strictObject({ group: key }),
  z.strictObject({ person: z.string().min(1).max(64) }),
  z.strictObject({ field: fieldKey }),
  z.strictObject({ profile: fieldKey }),
  z.strictObject({ duty: key }),
]);
const approvalStep = exactly<ApprovalStep>()(
  z.strictObject({
    ...{ id: key, label: short, needed: z.int().min(1).max(20), when: z.string().max(4_000).optional() },
    seats: z.array(seatPlan).min(1).max(20).readonly(),
    instead: z.array(seatPlan).max(20).readonly().optional(),
    against: z.int().min(0).max(20).optional(),
    limit: z
      .strictObject({
        within: z.int().min(60_000),
        remind: z.int().min(60_000).optional(),
        silence: z.enum(SILENCES),
      })
      .optional(),
  }),
);
const stagesNamed = z.array(key).max(60).readonly();
const deadlineLength = z.discriminatedUnion('by', [
  z.strictObject({ by: z.literal('routing') }),
  ...[spans.days, spans.time, spans.formula],
  z.strictObject({
    by: z.literal('field'),
    field: fieldKey,
    days: z.int().min(-MOST_WORKING_DAYS).max(MOST_WORKING_DAYS),
    counted: z.enum(['working', 'any']),
  }),
]);
const hearer = z.union([
  z.enum(['working', 'team', 'leads', 'requester', 'deciding']),
  z.strictObject({ group: key }),
  z.strictObject({ person: z.string().max(64) }),
  z.strictObject({ field: fieldKey }),
  z.strictObject({ duty: key }),
]);
const ring = exactly<Ring>()(
  z.strictObject({
    key,
    at: z.int(),
    days: z.int().min(-MOST_WORKING_DAYS).max(MOST_WORKING_DAYS).optional(),
    again: z.int().min(60_000).optional(),
    tells: z.array(hearer).max(10).readonly(),
    does: z
      .array(
        z.discriminatedUnion('do', [
          z.strictObject({ do: z.literal('priority'), to: z.enum(priorities) }),
          z.strictObject({ do: z.literal('team'), team: key }),
          z.strictObject({ do: z.literal('stage'), stage: key }),
          z.strictObject({ do: z.literal('decide'), path: key }),
        ]),
      )
      .max(4)
      .readonly(),
  }),
);
const deadlinePlan = exactly<DeadlinePlan>()(
  z.strictObject({
    calendar: key,
    leads: key,
    deadlines: z
      .array(
        z.strictObject({
          key,
          name: short,
          when: z.string().max(4_000).optional(),
          calendar: key.optional(),
          begins: z.discriminatedUnion('on', [
            z.strictObject({ on: z.literal('arrival') }),
            z.strictObject({ on: z.literal('stages'), stages: stagesNamed }),
          ]),
          length: deadlineLength,
          stands: z.discriminatedUnion('on', [
            z.strictObject({ on: z.enum(['paused', 'never']) }),
            z.strictObject({ on: z.literal('stages'), stages: stagesNamed }),
          ]),
          ends: z.discriminatedUnion('on', [
            z.strictObject({ on: z.enum(['finished', 'answered', 'left']) }),
            z.strictObject({ on: z.literal('stages'), stages: stagesNamed }),
          ]),
          rings: z.array(ring).max(MOST_RINGS).readonly(),
        }),
      )
      .max(MOST_DEADLINES)
      .readonly(),
  }),
);
const noticeText = {
  subject: short,
  text: long,
  translations: translations.optional(),
};
const recipient = z.union([z.literal('followers'), z.strictObject({ program: key }), hearer]);
const occasion = z.discriminatedUnion('is', [
  z.strictObject({ is: z.enum(['arrived', 'team', 'handler', 'priority', 'becomes', 'hand']) }),
  z.strictObject({ is: z.literal('changed'), fields: z.array(fieldKey).max(60).readonly() }),
  z.strictObject({ is: z.literal('stage'), stages: stagesNamed }),
  z.strictObject({ is: z.literal('decided'), as: z.enum(['approved', 'refused', 'either']) }),
  z.strictObject({ is: z.literal('message'), from: z.enum(['requester', 'desk', 'either']) }),
  z.strictObject({ is: z.literal('ring'), deadline: key, ring: key }),
  z.strictObject({
    is: z.literal('group'),
    by: fieldKey.nullable(),
    counts: z.enum(['fewer', 'more']),
    than: z.int().min(0).max(1_000),
  }),
]);
const departure = z.discriminatedUnion('goes', [
  z.strictObject({ goes: z.literal('at-once') }),
  z.strictObject({ goes: z.literal('gathered'), minutes: z.int().min(1).max(1_440) }),
  z.strictObject({ goes: z.literal('digest'), at: clockTime, days: weekDays.readonly() }),
]);
const ways = z.array(z.enum(NOTICE_WAYS)).max(NOTICE_WAYS.length).readonly();
const noticePlan = exactly<NoticePlan>()(
  z.strictObject({
    usual: z
      .array(
        z.strictObject({
          ...{ kind: z.enum(USUAL_KINDS), off: z.literal(true).optional(), ways: ways.optional() },
          ...noticeText,
        }),
      )
      .max(USUAL_KINDS.length)
      .readonly(),
    rules: z
      .array(
        z.strictObject({
          ...{ key, name: short, off: z.literal(true).optional(), on: occasion },
          when: z.string().max(4_000).optional(),
          to: z.array(recipient).max(20).readonly(),
          answers: z.boolean(),
          goes: departure,
          ways: ways.optional(),
          urgent: z.string().max(4_000).optional(),
          ...noticeText,
        }),
      )
      .max(MOST_NOTICES)
      .readonly(),
  }),
);
const approvalPlan = exactly<ApprovalPlan>()(
  z.strictObject({
    paths: z
      .array(
        z.strictObject({
          id: key,
          label: short,
          steps: z.array(approvalStep).min(1).max(10).readonly(),
          again: z.array(fieldKey).max(40).readonly().optional(),
        }),
      )
      .min(1)
      .max(20)
      .readonly(),
  }),
);
const difference = exactly<Difference>()(
  z.discriminatedUnion('does', [
    z.strictObject({ does: z.enum(['hide', 'lock', 'require', 'spare']), part: z.string().max(64) }),
    z.strictObject({ does: z.literal('only'), shows: partKeys }),
    z.strictObject({
      ...{ does: z.literal('reword'), part: z.string().max(64) },
      ...{ asks: short.optional(), help: help.optional(), title: short.optional(), text: long.optional() },
    }),
    z.strictObject({ does: z.literal('offer'), part: fieldKey, offers: partKeys }),
    z.strictObject({ does: z.literal('preset'), part: fieldKey, preset: preset.nullable() }),
    z.strictObject({ does: z.literal('move'), part: z.string().max(64), after: z.string().max(64).nullable() }),
    z.strictObject({ does: z.literal('add'), after: z.string().max(64).nullable(), adds: part }),
  ]),
);
const edition = exactly<Edition>()(
  z.strictObject({
    ...{ id: key, name: short, on: z.boolean(), audience: editionAudience },
    stages: z.array(z.string().max(64)).max(60).readonly().optional(),
    when: formula,
    readOnly: z.literal(true).optional(),
    opens: z.literal('changing').optional(),
    title: short.optional(),
    intro: long.optional(),
    differences: z.array(difference).max(500).readonly(),
    elsewhere: z.union([z.strictObject({ form: key }), z.strictObject({ address: z.string().max(2_000) })]).optional(),
  }),
);
/** Whose entries a form changes: what somebody asked for, or where a field names them. */
export const whose = z.union([z.literal(OWN_REQUESTS), fieldKey]);
const updates = exactly<Updates>()(
  z.strictObject({
    ...{ whose, by: z.array(fieldKey).max(20).readonly() },
    none: z.enum(['add', 'refuse']),
    beside: z.literal(true).optional(),
    waits: z.literal(true).optional(),
    stamps: fieldKey.optional(),
  }),
);
export const formDesign = exactly<FormDesign>()(
  z.strictObject({
    title: short,
    intro: long,
    topic: short.optional(),
    subject: short,
    fields: z.array(field).max(500),
    parts,
    rules: z.array(rule).max(300),
    unique: z.array(unique).max(20),
    routing,
    approval: approvalPlan,
    deadline: deadlinePlan,
    notices: noticePlan.optional(),
    own: z.array(z.enum(OWN_PARTS)).max(OWN_PARTS.length).optional(),
    editions: z.array(edition).max(60).readonly().optional(),
    updates: updates.optional(),
    translations: translations.optional(),
    written: language.optional(),
  }),
);
const named = z
  .array(z.strictObject({ key: z.string().max(64), name: z.string().max(200) }))
  .max(200)
  .readonly();
const formFileToday = exactly<FormFile>()(
  z.strictObject({
    format: z.literal('tolvek-form'),
    version: z.literal(4),
    design: formDesign,
    needs: z.strictObject({
      groups: named,
      calendars: named,
      vocabularies: z.array(vocabulary).max(50).readonly().default([]),
      registers: named.default([]),
    }),
    /** What protected its answers where it was made. */
    access: z.strictObject({ rules: accessRules, staysIn: z.boolean() }).optional(),
  }),
);
/** A form taken along as a file, of today or of an earlier version. */
export const formFileSchema = exactly<FormFile>()(z.preprocess(ofToday, formFileToday));
/** The shape of a form file, as JSON Schema 2020-12. */
export const formFileJsonSchema = (): unknown => ({
  title: 'A Tolvek form as a file',
  ...z.toJSONSchema(formFileToday, { io: 'input', unrepresentable: 'any' }),
});
const fix = exactly<Fix>()(
  z.discriminatedUnion('fix', [
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
    z.strictObject({ fix: z.literal('call-so'), fields: z.array(z.string()).readonly() }),
    z.strictObject({ fix: z.literal('preset-profile'), field: z.string(), profile: z.string() }),
    z.strictObject({ fix: z.literal('drop-unique'), unique: z.string() }),
    z.strictObject({ fix: z.literal('drop-column'), column: z.string() }),
    z.strictObject({ fix: z.literal('drop-formula'), row: z.string(), of: z.enum(COMPUTED) }),
    z.strictObject({ fix: z.literal('always-asked'), step: z.string() }),
    z.strictObject({ fix: z.literal('not-again'), path: z.string(), field: z.string() }),
    z.strictObject({ fix: z.literal('drop-word'), part: z.string(), field: z.string() }),
    z.strictObject({ fix: z.literal('drop-difference'), edition: z.string(), difference: z.string() }),
    z.strictObject({ fix: z.literal('drop-shown'), edition: z.string(), fields: z.array(z.string()).readonly() }),
    z.strictObject({ fix: z.literal('drop-stage'), edition: z.string(), stage: z.string() }),
    z.strictObject({ fix: z.literal('write-as'), rule: z.string(), text: z.string(), shown: z.string() }),
  ]),
);
/** One way that a value takes, as it is allowed on purpose. */
export const allowance = z.strictObject({
  sink: z.string().min(1).max(300),
  text: z.string().max(20_000),
  source: z.string().min(1).max(64),
  what: z.enum(['verdict', 'value']),
});
export const finding = exactly<Finding>()(
  z.object({
    severity: z.enum(['error', 'caution']),
    page: z.enum(['questions', 'rules', 'editions', 'routing', 'approval', 'notices', 'languages']),
    at: z.string(),
    message: words,
    of: z.literal('condition').optional(),
    fix: fix.optional(),
    way: z.array(words).readonly().optional(),
    protect: z.object({ source: z.string(), field: z.string() }).optional(),
    allow: allowance.optional(),
    place: z.array(z.string()).readonly().optional(),
  }),
);
export const designChange = exactly<DesignChange>()(
  z.object({
    page: z.enum(['questions', 'rules', 'editions', 'routing', 'approval', 'notices', 'languages']),
    at: z.string(),
    words,
    before: words,
    after: words,
    reaches: z.enum(['form', 'register']),
  }),
);
export const release = z.object({ number: z.int(), note: z.string(), by: z.string(), at: moment });
/** A door as it is listed with its form. */
export const doorSettings = z.object({
  slug: z.string(),
  name: z.string(),
  kind: z.enum(['staff', 'outside']),
  open: z.boolean(),
  closedMessage: z.string(),
  /** Whether people can come in by it now. */
  state: z.enum(['open', 'closed', 'not-yet']),
  door,
  /** What the words of its audience are called. */
  words: z.record(z.string(), words),
});
