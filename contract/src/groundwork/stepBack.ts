import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done, short } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { stepBackHeads } from './heads.ts';

const withId = z.strictObject({ id: z.string().max(64) });

/** What was set of people, groups and rights, undone one by one. */
export const stepBackRoutes = routesOf(stepBackHeads, {
  stepBackPlan: {
    says: 'What undoing a line of a history would come to: in words, and who would get or lose which right. Keeps nothing.',
    params: withId,
    answer: z.object({ words, effects: z.array(words) }),
  },
  sayWhy: {
    says: 'Says why something was set, by whoever set it: it stands at its line of the history from then on.',
    params: withId,
    body: z.strictObject({ why: short.trim().min(1) }),
    answer: done,
  },
  stepBack: {
    says: 'Undoes what a line of a history says was set, if it is still so.',
    params: withId,
    answer: done,
  },
});
