import { RIGHTS } from '@tolvek/core/people';
import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { words } from '../wire/words.ts';
import { rightHeads } from './heads.ts';
import { day, groundLine } from './shapes.ts';

const right = z.enum(RIGHTS);
/** `*` for everyone of the staff, the key of a group, or `@` and the id of a person. */
const subject = z.string().max(80);

/** Who may do what, as the desk’s defaults. */
export const rightRoutes = routesOf(rightHeads, {
  rights: {
    says: 'All rights there are, to whom each is given, and the packages they are given in.',
    answer: z.object({
      rights: z.array(z.object({ right, words })),
      packages: z.array(z.object({ name: z.enum(['coordinator', 'administrator']), rights: z.array(right) })),
      subjects: z.array(
        z.object({
          subject: z.string(),
          kind: z.enum(['everyone', 'group', 'person']),
          name: z.string(),
          rights: z.array(right),
        }),
      ),
      /** Whether whoever asks may change them. */
      mayChange: z.boolean(),
      /** Whether whoever asks may look back at days of the past. */
      mayAudit: z.boolean(),
      /** Who can give rights, by name. */
      givers: z.array(z.string()),
      history: z.array(groundLine),
    }),
  },
  rightsOnDay: {
    says: 'Who could do what at the end of a day in the past, and what was set of that on the day.',
    params: z.strictObject({ day }),
    answer: z.object({
      /** How many of the staff could come in. */
      staff: z.int(),
      rights: z.array(z.object({ right, words, people: z.array(z.object({ id: z.string(), name: z.string() })) })),
      changes: z.array(groundLine.extend({ about: z.string() })),
    }),
  },
  rightHolders: {
    says: 'Who has a right by now and can come in, by whichever way.',
    params: z.strictObject({ right: z.string().max(40) }),
    answer: z.object({ people: z.array(z.object({ id: z.string(), name: z.string() })) }),
  },
  changeRights: {
    says: 'Gives rights to everyone, a group or a person, and takes them. Nobody is written to.',
    params: z.strictObject({ subject }),
    body: z.strictObject({ give: z.array(right).max(50), take: z.array(right).max(50) }),
    answer: z.object({ rights: z.array(right) }),
  },
});
