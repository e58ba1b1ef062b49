import { SHARED_FACTS } from '@tolvek/core/access';
import { z } from 'zod';
import { sharedAudience, whoFound } from '../people/shapes.ts';
import { field, vocabulary } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { day, formula, labelled, named, partKey, revealed, withToken } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { sharedHeads } from './heads.ts';

const fact = z.enum(SHARED_FACTS);
const identified = z.strictObject({ id: z.string().max(64) });
/** What is shared, of which requests of a register, for whom, until when. */
const shared = {
  name: z.string().trim().max(120),
  facts: z.array(fact).max(SHARED_FACTS.length),
  /** Keys of fields, and of columns of lines. */
  fields: z.array(partKey).max(200),
  /** Empty: every request. */
  when: formula,
  /** Null: whoever holds the link. */
  audience: sharedAudience.nullable(),
  /** The last day of it. */
  until: day,
  takesOut: z.boolean(),
};
const paged = z.strictObject({ after: z.string().max(120).optional() });
const row = z.object({
  /** In the order of the facts. */
  facts: z.array(words),
  /** In the order of the columns. */
  cells: revealed<readonly z.output<typeof words>[]>(z.array(words)),
});
const rows = {
  facts: z.array(fact),
  columns: z.array(labelled),
  rows: z.array(row),
  /** How many there are; `more`: at least so many. */
  total: z.int(),
  more: z.boolean(),
};
const page = z.object({
  ...{ name: z.string(), register: z.string(), by: z.string(), until: day, takesOut: z.boolean() },
  ...rows,
  next: z.string().nullable(),
});

/** Shared results: some fields of some requests, for some people or by a link, until a day. */
export const sharedRoutes = routesOf(sharedHeads, {
  sharedResults: {
    says: 'The shared results of the caller, and those that are for them.',
    answer: z.object({
      mine: z.array(
        z.object({
          ...{ id: z.string(), register: z.string(), ...shared },
          /** Whom it is for; null where it is by a link. */
          who: words.nullable(),
          /** The path that opens it. */
          path: z.string(),
          /** Who of those it is for can’t sign in, by name. */
          cannotOpen: z.array(z.string()),
          /** Why nobody is shown it by now; null where it is shown. */
          closed: words.nullable(),
        }),
      ),
      forMe: z.array(z.object({ id: z.string(), name: z.string(), register: z.string(), by: z.string(), until: day })),
      /** The registers of which the caller may share requests. */
      registers: z.array(named),
    }),
  },
  sharable: {
    says: 'What can be shared of a register: its fields, what a condition on its requests may ask for, and for whom, by part of a name.',
    params: z.strictObject({ key: z.string().max(64) }),
    query: z.strictObject({ find: z.string().max(100).default('') }),
    answer: z.object({
      /** The fields that are spoken of here. */
      fields: z.array(field).readonly(),
      /** Keys of the fields, and of columns of lines, that can be shared. */
      shares: z.array(z.string()),
      /** Keys of the fields that a condition may ask for: they are hidden from nobody of the desk. */
      asks: z.array(z.string()),
      stages: z.array(labelled),
      forms: z.array(labelled),
      vocabularies: z.array(vocabulary).readonly(),
      ...whoFound,
    }),
  },
  lookAtShared: {
    says: 'What a shared result would show, as those it is for would see it, before it is shared.',
    body: z.strictObject({ register: z.string().max(64), ...shared }),
    answer: z.object({
      ...rows,
      /** How many people it is for; null where it is by a link. */
      people: z.int().nullable(),
      cannotOpen: z.array(z.string()),
      /** Labels of fields that are hidden from some of those it is for, on every request or some. */
      hiddenFromSome: z.array(z.string()),
    }),
  },
  shareResult: {
    says: 'Shares some fields of the requests of a register that meet a condition, for some of the staff or by a link.',
    body: z.strictObject({ register: z.string().max(64), ...shared }),
    answer: z.object({ id: z.string() }),
  },
  changeShared: {
    says: 'Changes a shared result: what it shows, for whom, until when.',
    params: identified,
    body: z.strictObject(shared),
    answer: z.object({ id: z.string() }),
  },
  endShared: {
    says: 'Ends a shared result: nobody is shown it any more.',
    params: identified,
    answer: z.object({ id: z.string() }),
  },
  sharedResult: {
    says: 'A page of a shared result, for one of the staff it is for, or who shared it.',
    params: identified,
    query: paged,
    answer: page,
  },
  sharedByLink: {
    says: 'A page of a shared result, for whoever holds its link.',
    params: withToken,
    query: paged,
    answer: page,
  },
  sharedFile: {
    says: 'A shared result as a file of comma-separated values, where it can be taken out.',
    params: identified,
    answer: z.string(),
  },
  sharedFileByLink: {
    says: 'The same, for whoever holds its link.',
    params: withToken,
    answer: z.string(),
  },
});
