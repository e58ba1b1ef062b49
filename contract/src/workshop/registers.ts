import { OWN_PARTS, type RegisterSettings } from '@tolvek/core/form';
import { z } from 'zod';
import { doorSettings, release } from '../form/shapes.ts';
import { field, stageDesign } from '../register/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import { keyed, prefix, versioned, visibleSubject } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { registerHeads } from './heads.ts';

const asksFor = z.array(z.string().max(64)).max(500);
const title = z.string().trim().max(200);

/** What is settled of a register, as far as it has come: names may still be missing. */
const settings = exactly<RegisterSettings>()(
  z.strictObject({
    name: z.string().max(200),
    prefix: z.string().max(10),
    deskGroups: z.array(z.string().max(64)).max(50),
    staysIn: z.boolean(),
    stages: z.array(stageDesign).max(100),
  }),
);
const note = z.string().max(500);

/** What a draft would change of what is in force, and what keeps it from being put in force. */
const draftTells = {
  changes: z.array(z.object({ page: z.string(), at: z.string(), words, before: words, after: words })),
  problems: z.array(z.object({ field: z.string(), message: words, fix: words })),
};

/** Registers, and what was in force before. */
export const registerRoutes = routesOf(registerHeads, {
  register: {
    says: 'A register as it is in force, the forms that ask into it with what each asks, and what was in force before.',
    params: keyed,
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
      stays: z.record(z.string(), words),
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
      /** Forms that point to what is in it, by the fields that do. */
      referredBy: z.array(z.object({ form: z.string(), title: z.string(), field: words })),
      states: z.array(release),
      /** What is being settled of it, and not in force yet. */
      draft: settings,
      ...draftTells,
    }),
  },
  doubles: {
    says: 'Requests that share what no two may have, for each rule of a register that says so, as far as the caller may have them looked through.',
    params: keyed,
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
  },
  changeRegister: {
    says: 'Changes what a register is called, its stages and the ways between them, who works at its desk, and which fields have left it. In force at once.',
    params: keyed,
    body: z.strictObject({
      name: title,
      prefix,
      deskGroups: z.array(z.string().max(64)).max(50),
      staysIn: z.boolean(),
      left: asksFor,
      /** All there are, in their order; new ones have a key of their own. */
      stages: z.array(stageDesign).max(100),
      /** Why; others read it later. */
      note,
    }),
    answer: versioned,
  },
  keepRegister: {
    says: 'Keeps the draft of what is settled of a register. Nothing of it is in force before it is put there.',
    params: keyed,
    body: settings,
    answer: versioned.extend(draftTells),
  },
  putRegister: {
    says: 'Puts the draft of a register in force under its next number, for all its requests.',
    params: keyed,
    body: z.strictObject({ note }),
    answer: versioned,
  },
  goBackToState: {
    says: 'Puts a state of a register in force again that was in force before, as far as it is settled here; fields and the access plan stay.',
    params: z.strictObject({ key: z.string().max(64), number: z.coerce.number().int().min(1) }),
    answer: versioned,
  },
});
