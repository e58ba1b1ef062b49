import type { House } from '../platform/house.ts';
import type { Serve } from '../platform/serve.ts';
import { createVocabulary, saveVocabulary } from './vocabularies.ts';
import { listVocabularies, vocabularyView } from './vocabularyViews.ts';

export function vocabularyRoutes(serve: Serve, house: House): void {
  const { db } = house;
  serve('vocabularies', () => ({ vocabularies: listVocabularies(db) }));
  serve('vocabulary', ({ params, viewer }) => vocabularyView(db, viewer, params.key));
  serve('createVocabulary', ({ viewer, body, key }) => createVocabulary(house, viewer, { name: body.name, key }));
  serve('saveVocabulary', ({ viewer, params, body, version }) =>
    saveVocabulary(house, viewer, { key: params.key, version, ...body }),
  );
}
