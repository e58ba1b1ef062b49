import { z } from 'zod';
import { knownPerson, profileField, vocabulary } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { moment, named, versioned } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { profileHeads } from './heads.ts';

const fields = z.array(profileField).max(60).readonly();

/** What the desk knows of people besides their names and addresses. */
export const profileRoutes = routesOf(profileHeads, {
  profile: {
    says: 'The fields of people’s profiles, what they are filled in from, and what they were before.',
    answer: z.object({
      /** 0 before any were chosen. */
      version: z.int(),
      fields,
      /** How many people have something in a field. */
      filled: z.record(z.string(), z.int()),
      /** Where conditions and forms read a field. */
      uses: z.array(z.object({ field: z.string(), title: z.string(), to: z.string() })),
      people: z.array(knownPerson),
      vocabularies: z.array(vocabulary).readonly(),
      groups: z.array(named),
      today: z.string(),
      now: z.string(),
      states: z.array(
        z.object({
          number: z.int(),
          by: z.string(),
          at: moment,
          fields,
          changes: z.array(z.object({ words, before: words, after: words })),
        }),
      ),
    }),
  },
  changeProfile: {
    says: 'Puts other fields of profiles in force, at once. What stands in fields that are gone stays.',
    body: z.strictObject({ fields }),
    answer: versioned,
  },
});
