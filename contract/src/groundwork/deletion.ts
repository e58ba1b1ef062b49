import { z } from 'zod';
import { routesOf } from '../wire/route.ts';
import { done } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { groundDeletionHeads } from './heads.ts';

const which = z.strictObject({ kind: z.enum(['group', 'calendar', 'roster', 'vocabulary']), key: z.string().max(80) });

/** What is deleted of the ground, where nothing uses it. */
export const groundDeletionRoutes = routesOf(groundDeletionHeads, {
  groundDeletion: {
    says: 'What uses a group, a calendar, a roster or a vocabulary, and what would go with it. Nothing is deleted.',
    params: which,
    answer: z.object({
      name: z.string(),
      /** What keeps it from being deleted. */
      uses: z.array(z.object({ title: words, at: words })),
      goes: z.array(words),
    }),
  },
  deleteGround: {
    says: 'Deletes a group, a calendar, a roster or a vocabulary that nothing uses.',
    params: which,
    answer: done,
  },
});
