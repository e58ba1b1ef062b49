import { type Audience, RIGHTS } from '@tolvek/core/people';
import { z } from 'zod';
import { exactly } from '../wire/exactly.ts';
import { key } from '../wire/shapes.ts';

const audienceOf = (word: z.ZodType<string>) =>
  exactly<Audience>()(
    z.strictObject({
      in: z.union([
        z.strictObject({ everyone: z.literal(true) }),
        z.strictObject({ anyOf: z.array(word).max(50).readonly() }),
        z.strictObject({ allOf: z.array(word).max(50).readonly() }),
      ]),
      outOf: z.array(word).max(50).readonly(),
      requester: z.enum(['in', 'out']).optional(),
    }),
  );
const someone = z.string().regex(/^@[\w-]{1,64}$/);
const meeting = z
  .string()
  .max(2_001)
  .regex(/^\?[\s\S]+$/);
const standing = z.enum(['~handler', '~team', '~decider', '~entered', '~behalf', '~follower', '~contact']);
const entitled = z.enum(RIGHTS.map((right) => `+${right}` as const));
/** Whom a rule about requests is for: groups, people, what somebody is to a request, contacts, and conditions on profiles. */
export const planAudience = audienceOf(z.union([key, someone, standing, meeting]));
/** Whom an edition is for: the same, and whoever has a right. */
export const editionAudience = audienceOf(z.union([key, someone, standing, meeting, entitled]));
/** Whom the rule of a group means: groups, people, contacts, and conditions on profiles. */
export const whoAudience = audienceOf(z.union([key, someone, z.literal('~contact'), meeting]));
/** Whom a door admits: the same, and whoever has a right. */
export const doorAudience = audienceOf(z.union([key, someone, z.literal('~contact'), meeting, entitled]));
/** Whom a shared result is for: all staff, groups and people. */
export const sharedAudience = audienceOf(z.union([key, someone]));
export const person = z.object({ id: z.string(), name: z.string() });
/** Groups and people, found by part of their names. */
export const whoFound = {
  groups: z.array(z.object({ key: z.string(), name: z.string(), members: z.int() })),
  people: z.array(person.extend({ portrait: z.string().nullable() })),
};
export const group = z.object({ key: z.string(), name: z.string(), isTeam: z.boolean(), members: z.int() });
/** A language of pages and emails. */
export const language = z.enum(['en', 'de']);
