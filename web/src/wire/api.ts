import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';
import { language } from './words.ts';

/** What the pages ask the server; each zone brings its own endpoints. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({
    baseUrl: '/',
    prepareHeaders: (headers) => {
      headers.set('Accept-Language', language());
    },
  }),
  tagTypes: [
    'deleted',
    'emails',
    'me',
    'desk',
    'ledger',
    'counts',
    'views',
    'reports',
    'forecast',
    'sheet',
    'mine',
    'shared',
    'forms',
    'form',
    'mailings',
    'register',
    'vocabulary',
    'mail',
    'ground',
    'people',
    'groups',
    'calendar',
    'roster',
    'bell',
    'program',
    'planEffect',
    'editions',
    'door',
    'atWork',
  ],
  endpoints: () => ({}),
});
