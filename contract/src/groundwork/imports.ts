import { BUDGETS } from '@tolvek/core/budget';
import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { moment } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { importHeads } from './heads.ts';

const kind = z.enum(['staff', 'contact']);
const wanted = z.strictObject({
  kind,
  /**
   * What each row says, by what a column is: `name`, or `given` and `family`; `email`, `language`, `groups`,
   * `profile.` and the key of a field. Columns that a file does not have are left out.
   */
  rows: z
    .array(z.record(z.string().max(80), z.string().max(2_000)))
    .min(1)
    .max(BUDGETS.sheet.people),
  /** What a doubtful row means, by its place: somebody by id, or somebody new. Others are left out. */
  decided: z.record(z.string().regex(/^\d{1,6}$/), z.string().max(64)),
});

const counts = { added: z.int(), changed: z.int(), gone: z.int() };
const somebody = z.object({ id: z.string(), name: z.string(), email: z.string(), active: z.boolean() });

/** People out of a file, and back into one. */
export const importRoutes = routesOf(importHeads, {
  lookAtPeople: {
    says: 'What rows of a file would change of people: who is new, changed, doubtful, and who is here and not in the file. Keeps nothing.',
    body: wanted,
    answer: z.object({
      rows: z.array(
        z.object({
          is: z.enum(['new', 'changed', 'same', 'doubtful', 'wrong']),
          name: z.string(),
          email: z.string(),
          /** Whom it means; null for somebody new, and where that is not known. */
          person: z.string().nullable(),
          why: z.enum(['other-address', 'other-name', 'several', 'other-kind', 'inactive']).nullable(),
          candidates: z.array(somebody),
          changes: z.array(z.object({ what: words, before: words, after: words })),
          problems: z.array(z.object({ field: z.string(), message: words, fix: words })),
        }),
      ),
      /** Active people of that kind whom no row means. */
      gone: z.array(somebody),
      /** Stands for all of this: what is imported is what was looked at. */
      seen: z.string(),
    }),
  },
  importPeople: {
    says: 'Imports rows of a file as people: adds who is new and changes who is changed, as it was looked at. Nobody is written to.',
    body: wanted.extend({
      /** What the file is called. */
      file: z.string().max(200),
      /** Whether those whom no row means are made inactive. */
      gone: z.boolean(),
      seen: z.string().max(100),
    }),
    answer: z.object({ id: z.string(), ...counts }),
  },
  peopleImports: {
    says: 'The newest imports of people.',
    answer: z.object({
      imports: z.array(
        z.object({
          ...{ id: z.string(), kind, file: z.string(), by: z.string(), at: moment, ...counts },
          undone: moment.nullable(),
        }),
      ),
    }),
  },
  undoImport: {
    says: 'Undoes an import in one go. What was changed since then stays as it is.',
    params: z.strictObject({ id: z.string().max(64) }),
    answer: z.object({
      undone: z.int(),
      /** People of whom something had changed since, and stays. */
      stayed: z.int(),
    }),
  },
  peopleSheet: {
    says: 'People as a CSV file that can be imported again.',
    query: z.strictObject({ kind }),
    answer: z.string(),
  },
});
