import { z } from 'zod';
import { terms } from '../register/shapes.ts';
import { routesOf } from '../wire/route.ts';
import { keyed } from '../wire/shapes.ts';
import { words } from '../wire/words.ts';
import { vocabularyHeads } from './heads.ts';

/** Where a vocabulary is used: by which form, in which field. */
const use = z.object({ form: z.string(), title: z.string(), field: words });

/** Vocabularies, and where they are used. */
export const vocabularyRoutes = routesOf(vocabularyHeads, {
  vocabularies: {
    says: 'All vocabularies.',
    answer: z.object({
      vocabularies: z.array(z.object({ key: z.string(), name: z.string(), terms: z.int(), uses: z.array(use) })),
    }),
  },
  vocabulary: {
    says: 'A vocabulary with its terms, where it is used, and how many requests hold each term.',
    params: keyed,
    answer: z.object({
      key: z.string(),
      name: z.string(),
      version: z.int(),
      terms,
      uses: z.array(use),
      /** Requests that hold a term, by its key. */
      held: z.record(z.string(), z.int()),
    }),
  },
  createVocabulary: {
    says: 'Makes a vocabulary without terms.',
    body: z.strictObject({ name: z.string().trim().min(1, 'say wire:nameMissing').max(200) }),
    answer: z.object({ key: z.string() }),
  },
  saveVocabulary: {
    says: 'Keeps a vocabulary. Requests that hold a merged term hold the other from then on.',
    params: keyed,
    body: z.strictObject({ name: z.string().trim().min(1, 'say wire:nameMissing').max(200), terms }),
    answer: z.object({ version: z.int(), moved: z.int() }),
  },
});
