import type { AccessPlan, Activity, OfferCard, RequestReader } from '@tolvek/core/access';
import type { Translations } from '@tolvek/core/design';
import type { UniqueRule } from '@tolvek/core/form';
import {
  DIRECTORY_ATTRIBUTES,
  type Field,
  type ItemColumn,
  type Kind,
  type KnownRequest,
  MOST_TERMS,
  MOVERS,
  type OfferCards,
  OPTION_COLOURS,
  type Preset,
  type ProfileField,
  type ProfileKind,
  type SingleKind,
  type Term,
  type Vocabulary,
} from '@tolvek/core/register';
import { LANGUAGES } from '@tolvek/words';
import { z } from 'zod';
import { planAudience } from '../people/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import {
  fieldKey,
  fieldValue,
  formula,
  groupKeys,
  key,
  keys,
  name,
  partKey,
  rawAnswer,
  rawAnswers,
  revealed,
  short,
} from '../wire/shapes.ts';
import { words } from '../wire/words.ts';

/** Texts in other languages, by language and place. */
export const translations = exactly<Translations>()(
  z.partialRecord(
    z.enum(LANGUAGES),
    z.record(z.string().min(1).max(300), z.strictObject({ of: z.string().max(10_000), says: z.string().max(10_000) })),
  ),
);
const translatedToo = { translations: translations.optional() };
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
    currency: z.string().regex(/^[A-Z]{3}$/, 'say wire:currencyLike'),
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
const singleKind = exactly<SingleKind>()(z.discriminatedUnion('kind', singleKinds));
const column = exactly<ItemColumn>()(
  z.strictObject({
    key: fieldKey,
    label: short,
    type: singleKind,
    required: z.boolean(),
    formula: formula.optional(),
  }),
);
const pointing = {
  register: chosenKey,
  shows: z.array(fieldKey).max(6).readonly(),
  among: z.enum(['all', 'unfinished', 'finished', 'mine']),
  offered: formula.optional(),
  cards: exactly<OfferCards>()(
    z.strictObject({
      picture: fieldKey.optional(),
      facts: z.array(fieldKey).max(8).readonly(),
      unavailable: z.enum(['grey', 'absent']),
    }),
  ).optional(),
};
const termSchema = exactly<Term>()(
  z.strictObject({
    key: fieldKey,
    label: short,
    under: fieldKey.optional(),
    also: z.array(short).max(20).readonly().optional(),
    retired: z.boolean().optional(),
    now: fieldKey.optional(),
    translations: translations.optional(),
  }),
);
export const terms = z.array(termSchema).max(MOST_TERMS).readonly();
export const vocabulary = exactly<Vocabulary>()(z.strictObject({ key, name: short, terms }));
const profileKinds = [
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
] as const;
const profileKind = exactly<ProfileKind>()(z.discriminatedUnion('kind', profileKinds));
/** Somebody who can be picked. */
export const knownPerson = z.object({
  id: z.string(),
  name: z.string(),
  /** Where others have the same name: what tells them apart. */
  email: z.string().optional(),
  groups: z.array(z.string()),
});
/** A field of people’s profiles. */
export const profileField = exactly<ProfileField>()(
  z.strictObject({
    key: fieldKey,
    label: short,
    type: profileKind,
    of: z.enum(['staff', 'contact', 'everybody']),
    directory: z.enum(DIRECTORY_ATTRIBUTES).optional(),
    listed: z.boolean().optional(),
    retired: z.boolean().optional(),
  }),
);
export const kind = exactly<Kind>()(
  z.discriminatedUnion('kind', [
    ...profileKinds,
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
      most: z.int().min(1).max(500).optional(),
    }),
  ]),
);
export const preset = exactly<Preset>()(
  z.discriminatedUnion('from', [
    z.strictObject({ from: z.literal('fixed'), value: rawAnswer }),
    z.strictObject({ from: z.literal('today'), plus: z.int().min(-3_660).max(3_660) }),
    z.strictObject({ from: z.literal('now') }),
    z.strictObject({ from: z.literal('me') }),
    z.strictObject({ from: z.literal('department') }),
    z.strictObject({ from: z.literal('field'), field: fieldKey }),
    z.strictObject({ from: z.literal('formula'), formula }),
  ]),
);
/** What requesters read in place of a label. */
const called = short.optional();
export const field = exactly<Field>()(
  z.discriminatedUnion('source', [
    z.strictObject({
      key: fieldKey,
      label: short,
      called,
      type: kind,
      source: z.enum(['asked', 'desk-only']),
      preset: preset.optional(),
      ...translatedToo,
    }),
    z.strictObject({
      ...{ key: fieldKey, label: short, called, type: kind, source: z.literal('computed'), formula },
      ...translatedToo,
    }),
    z.strictObject({ key: fieldKey, label: short, called, type: kind, source: z.literal('given'), ...translatedToo }),
    z.strictObject({
      key: fieldKey,
      label: short,
      called,
      type: kind,
      ...translatedToo,
      source: z.literal('carried'),
      reference: fieldKey,
      field: fieldKey,
      live: z.boolean(),
    }),
  ]),
);
export const unique = exactly<UniqueRule>()(
  z.strictObject({
    id: key,
    fields: z.array(fieldKey).min(1).max(10).readonly(),
    among: z.enum(['all', 'unfinished']),
  }),
);
/** What is done with a request, as rules of access speak of it. */
export const activity = exactly<Activity>()(z.enum(['working', 'browsing', 'searching', 'taking-out', 'letters']));
/** Who reads whole requests by a condition. */
export const requestReaders = exactly<readonly RequestReader[]>()(
  z
    .array(z.strictObject({ id: key, name: short, audience: planAudience, when: formula }))
    .max(50)
    .readonly(),
);
/** The rules of an access plan. */
export const accessRules = exactly<AccessPlan['rules']>()(
  z
    .array(
      z.strictObject({
        id: key,
        name: short,
        about: z.string().max(500).optional(),
        /** By key; a column of lines as `items.price`. */
        fields: z.union([z.literal('all'), z.array(partKey).max(500).readonly()]),
        audience: planAudience,
        level: z.enum(['hidden', 'read', 'write']),
        overriding: z.boolean().optional(),
        exceptions: z
          .array(
            z.strictObject({
              id: key,
              level: z.enum(['hidden', 'read', 'write', 'none']),
              activities: z.array(activity).max(5).readonly().optional(),
              stages: z.array(z.string().max(64)).max(100).readonly().optional(),
              when: formula.optional(),
            }),
          )
          .max(10)
          .readonly()
          .optional(),
        from: z.iso.date().optional(),
        until: z.iso.date().optional(),
        looksEmpty: z.literal(true).optional(),
        /** It also holds while somebody asks. */
        asking: z.literal(true).optional(),
      }),
    )
    .max(100)
    .readonly(),
);
const cardFacts = z.array(z.object({ label: z.string(), words })).readonly();
/** What stands on the card of a request that a reference offers. */
export const offerCard = revealed<OfferCard>(
  z.object({
    /** The id of the picture’s file. */
    picture: z.string().nullable(),
    facts: cardFacts,
    /** What keeps it from being chosen just now; null where it can be. */
    unavailable: cardFacts.nullable(),
  }),
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
/** `cards`: what stands on the card of each that is offered, by id, and of those that are not just now; none without cards. */
export const offers = z.object({
  offers: z.array(knownRequest),
  cards: z.record(z.string(), offerCard),
  more: z.boolean(),
});
export const stage = z.object({
  key: z.string(),
  label: z.string(),
  phase: z.enum(['arrived', 'working', 'paused', 'finished']),
  role: z.string().nullable(),
});
/** A stage as its register has it. */
export const stageDesign = z.strictObject({
  key: z.string().max(64),
  label: name,
  publicLabel: name,
  translations: translations.optional(),
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
export const knownFile = z.object({ ref: z.string(), bytes: z.int(), media: z.string() });
/** What is looked for in a reference, and the answers that limit what is offered. */
export const asksForOffers = z.strictObject({
  field: z.string().max(64),
  find: z.string().max(100),
  answers: rawAnswers,
});
