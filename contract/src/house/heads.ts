import type { Heads } from '../wire/route.ts';

/** Of the whole application. */
export const houseHeads = {
  health: { method: 'GET', path: '/api/health', caller: 'anyone' },
  openapi: { method: 'GET', path: '/api/openapi.json', caller: 'anyone', gives: 'json' },
  me: { method: 'GET', path: '/api/me', caller: 'anyone' },
  setLanguage: { method: 'PUT', path: '/api/me/language', caller: 'person' },
  advanceClock: { method: 'POST', path: '/api/demo/clock', caller: 'anyone' },
} as const satisfies Heads;
