import type { vocabularyRoutes } from '@tolvek/contract';
import type { House } from '../platform/house.ts';
import type { Handlers } from '../platform/serve.ts';
import { createVocabulary, saveVocabulary } from './vocabularies.ts';
import { listVocabularies, vocabularyView } from './vocabularyViews.ts';

export function vocabularyHandlers(house: House): Handlers<typeof vocabularyRoutes> {
  const { db } = house;
  return {
    vocabularies: () => ({ vocabularies: listVocabularies(db) }),
    vocabulary: ({ params, viewer }) => vocabularyView(db, viewer, params.key),
    createVocabulary: ({ viewer, body, key }) => createVocabulary(house, viewer, { name: body.name, key }),
    saveVocabulary: ({ viewer, params, body, version }) =>
      saveVocabulary(house, viewer, { key: params.key, version, ...body }),
  };
}
