import { MOST_OF_PROGRAM, PROGRAM_RIGHTS, type Program } from '@tolvek/core/program';
import { z } from 'zod';
import { release } from '../form/shapes.ts';
import { bearer } from '../groundwork/shapes.ts';
import { exactly } from '../wire/exactly.ts';
import { routesOf } from '../wire/route.ts';
import { done, keyed, moment, versioned } from '../wire/shapes.ts';
import { programHeads } from './heads.ts';

const fields = {
  ...{ name: z.string().trim().max(200), note: z.string().trim().max(500), address: z.string().trim().max(500) },
  may: z
    .array(z.strictObject({ right: z.enum(PROGRAM_RIGHTS), register: z.string().max(64).nullable() }))
    .max(MOST_OF_PROGRAM)
    .readonly(),
  groups: z.array(z.string().max(80)).max(MOST_OF_PROGRAM).readonly(),
  retired: z.boolean().optional(),
};
/** What a program may do, and where it is told; its key stands in the address. */
const plan = z.strictObject(fields);
const program = exactly<Program>()(z.strictObject({ key: z.string().max(64), ...fields }));

const keyAndId = z.strictObject({ key: z.string().max(64), id: z.string().max(64) });
const secret = z.object({
  /** As Standard Webhooks 1.0.0 writes it. */
  secret: z.string(),
  /** Until when the secret before counts as well. */
  untilBoth: moment.nullable(),
});

/** Other programs: what they may do by keys of their own, and what they are told. */
export const programRoutes = routesOf(programHeads, {
  programs: {
    says: 'All programs by name, and what a program can name.',
    answer: z.object({
      programs: z.array(
        z.object({
          ...{ key: z.string(), name: z.string(), retired: z.boolean(), isTold: z.boolean() },
          /** How many of its keys work. */
          keys: z.int(),
          /** How much it was told and did not take. */
          failed: z.int(),
        }),
      ),
      groups: z.array(z.object({ key: z.string(), name: z.string() })),
      registers: z.array(z.object({ id: z.string(), name: z.string() })),
      mayChange: z.boolean(),
    }),
  },
  createProgram: {
    says: 'Adds a program, in force at once. It has no key yet.',
    body: z.strictObject({ program: plan }),
    answer: z.object({ key: z.string() }),
  },
  program: {
    says: 'A program as it is in force, its keys, what tells it, and what it was told last.',
    params: keyed,
    answer: z.object({
      ...{ key: z.string(), version: z.int(), program },
      keys: z.array(bearer),
      /** The notices that tell it, by their forms. */
      toldBy: z.array(z.object({ form: z.string(), title: z.string(), notice: z.string(), name: z.string() })),
      told: z.array(
        z.object({
          ...{ id: z.string(), at: moment, about: z.string(), attempts: z.int() },
          state: z.enum(['waiting', 'sent', 'failed', 'hidden', 'settled', 'off']),
          /** When it is tried next. */
          next: moment.nullable(),
          /** What it answered, or why it did not. */
          error: z.string().nullable(),
          again: z.boolean(),
        }),
      ),
      states: z.array(release.extend({ program })),
    }),
  },
  changeProgram: {
    says: 'Puts another state of a program in force at once.',
    params: keyed,
    body: z.strictObject({
      program: plan,
      /** Why; others read it later. */
      note: z.string().max(500),
    }),
    answer: versioned,
  },
  addProgramKey: {
    says: 'Makes a key for a program. It is told this once.',
    params: keyed,
    body: z.strictObject({
      name: z.string().trim().min(1).max(80),
      /** How many days it works; null until it is ended. */
      days: z.int().min(1).max(3_650).nullable(),
    }),
    answer: z.object({ id: z.string(), key: z.string() }),
  },
  endProgramKey: { says: 'Ends a key of a program at once.', params: keyAndId, answer: done },
  programSecret: {
    says: 'The secret that what a program is told is signed with.',
    params: keyed,
    answer: secret,
  },
  renewProgramSecret: {
    says: 'Gives a program another secret; the one before counts a day longer.',
    params: keyed,
    answer: secret,
  },
  tryProgram: { says: 'Tells a program something that did not happen, as a test.', params: keyed, answer: done },
  tellProgramAgain: {
    says: 'Tells a program once more, under the same id, what it took or did not take.',
    params: keyAndId,
    answer: done,
  },
  hearAsProgram: {
    says: 'Takes what a program is told, in its place, and keeps it. A number at the end of the name is what is answered. Only in demo mode.',
    params: z.strictObject({ name: z.string().max(80) }),
    answer: done,
  },
  toldPrograms: {
    says: 'What the stand-in for other programs received, the newest first. Only in demo mode.',
    answer: z.object({
      told: z.array(
        z.object({
          ...{ id: z.string(), receivedAt: moment, name: z.string(), status: z.int(), body: z.string() },
          headers: z.array(z.object({ name: z.string(), value: z.string() })),
        }),
      ),
    }),
  },
});
