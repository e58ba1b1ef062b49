import { createApi, fetchBaseQuery } from '@reduxjs/toolkit/query/react';

/** What the pages ask the server; each zone brings its own endpoints. */
export const api = createApi({
  reducerPath: 'api',
  baseQuery: fetchBaseQuery({ baseUrl: '/' }),
  tagTypes: ['me', 'desk', 'ledger', 'sheet', 'mine', 'forms', 'form', 'register', 'vocabulary', 'mail'],
  endpoints: () => ({}),
});
