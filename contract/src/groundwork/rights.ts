import { RIGHTS } from '@tolvek/core/people';
import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { day } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { rightHeads } from './heads.ts';
import { groundLine } from './shapes.ts';

const right = z.enum(RIGHTS);
/** `*` for everyone of the staff, the key of a group, or `@` and the id of a person. */
const subject = z.string().max(80);

/** A right, in words, and how many of the staff have it by now. */
const counted = z.object({ right, words, holders: z.int() });
const subjectWith = z.object({
  subject: z.string(),
  kind: z.enum(['everyone', 'group', 'person']),
  name: z.string(),
  rights: z.array(right),
});
/** A register’s key. */
const register = z.string().max(80);
const named = z.object({ id: z.string(), name: z.string() });

/** What of them whoever asks may do with rights. */
const asked = {
  mayChange: z.boolean(),
  /** Who can give rights, by name. */
  givers: z.array(z.string()),
  history: z.array(groundLine),
};

/**
 * `apart`: what the desk gives counts for nothing in a register. `beside`: it counts, but for where the register
 * differs. `desk`: the register differs in nothing any more.
 */
const becomes = z.enum(['apart', 'beside', 'desk']);

/** Who may do what: as the desk’s defaults, and in each register. */
export const rightRoutes = routesOf(rightHeads, {
  rights: {
    says: 'All rights there are, to whom the desk gives each, the packages they are given in, and registers that differ.',
    answer: z.object({
      rights: z.array(counted),
      packages: z.array(z.object({ name: z.enum(['coordinator', 'administrator']), rights: z.array(right) })),
      subjects: z.array(subjectWith),
      registers: z.array(
        z.object({
          key: register,
          name: z.string(),
          apart: z.boolean(),
          /** In how many rights of how many subjects together it differs from the desk. */
          differences: z.int(),
        }),
      ),
      /** Whether whoever asks may look back at days of the past. */
      mayAudit: z.boolean(),
      ...asked,
    }),
  },
  registerRights: {
    says: 'To whom rights are given in a register, and to whom the desk gives them.',
    params: z.strictObject({ key: register }),
    answer: z.object({
      ...{ key: register, name: z.string(), apart: z.boolean() },
      rights: z.array(counted),
      /** `desk`: what the desk gives them. */
      subjects: z.array(subjectWith.extend({ desk: z.array(right) })),
      ...asked,
    }),
  },
  registerRightsPlan: {
    says: 'Who would get or lose which right if a register stood apart from the desk, or no longer. Nothing is changed.',
    params: z.strictObject({ key: register }),
    query: z.strictObject({ to: becomes }),
    answer: z.object({ effects: z.array(words) }),
  },
  setRegisterRights: {
    says: 'Lets a register stand apart from the desk’s rights, or beside them, or puts all back to what the desk gives.',
    params: z.strictObject({ key: register }),
    body: z.strictObject({ to: becomes }),
    answer: z.object({ done: z.literal(true) }),
  },
  rightsOnDay: {
    says: 'Who could do what at the end of a day in the past, at the desk and where registers differed, and what was set of that on the day.',
    params: z.strictObject({ day }),
    answer: z.object({
      /** How many of the staff could come in. */
      staff: z.int(),
      rights: z.array(z.object({ right, words, people: z.array(named) })),
      /** Registers that differed, each with the rights that others had there than at the desk. */
      registers: z.array(
        z.object({ name: z.string(), rights: z.array(z.object({ right, words, people: z.array(named) })) }),
      ),
      /** Who read on that day what is noted, and who looked through the eyes of another; the newest first, 500 at most. */
      looks: z.array(z.object({ id: z.string(), at: z.string(), by: z.string(), words })),
      changes: z.array(groundLine.extend({ about: z.string() })),
    }),
  },
  rightHolders: {
    says: 'Who has a right by now and can come in, by whichever way; at the desk or in a register.',
    params: z.strictObject({ right: z.string().max(40) }),
    query: z.strictObject({ register: register.optional() }),
    answer: z.object({ people: z.array(named) }),
  },
  changeRights: {
    says: 'Gives rights to everyone, a group or a person, and takes them; at the desk or in a register. Nobody is written to.',
    params: z.strictObject({ subject }),
    body: z.strictObject({ give: z.array(right).max(50), take: z.array(right).max(50), register: register.optional() }),
    answer: z.object({ rights: z.array(right) }),
  },
});
