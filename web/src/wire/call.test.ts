import { routes } from '@tolvek/contract';
import { heads } from '@tolvek/contract/heads';
import { describe, expect, it } from 'vitest';
import { call } from './callAny.ts';

describe('a call of a route', () => {
  it('has its address, method and guard from its head, and what it is given in their places', () => {
    expect(call('changeFields')({ number: 'AC/1', version: 7, body: { changes: { berth: 'B2' } } })).toEqual({
      url: '/api/requests/AC%2F1/fields',
      method: 'PATCH',
      headers: { 'If-Match': '"7"' },
      body: { changes: { berth: 'B2' } },
    });
    const body = { verdict: 'approve', comment: '', seen: 'x' } as const;
    expect(call('decide')({ number: 'AC-1', once: 'a-new-key', body })).toEqual({
      ...{ url: '/api/requests/AC-1/decision', method: 'POST', headers: { 'Idempotency-Key': 'a-new-key' }, body },
    });
  });

  it('sends nothing where nothing is sent, and leaves empty parts of a query out', () => {
    expect(call('me')()).toEqual({ url: '/api/me', method: 'GET' });
    expect(call('confirm')({ token: 'a b', query: {} })).toMatchObject({
      ...{ url: '/api/confirmations/a%20b', body: {} },
    });
    expect(call('ledger')({ query: { tray: 'all', find: '', after: undefined } }).url).toBe('/api/requests?tray=all');
    expect(call('ledger')({ query: { find: 'a&b' } }).url).toBe('/api/requests?find=a%26b');
  });

  it('is known for every route, by the same head as the server has', () => {
    expect(Object.keys(heads).sort()).toEqual(Object.keys(routes).sort());
    for (const [name, head] of Object.entries(heads)) expect(routes[name as keyof typeof routes]).toMatchObject(head);
  });
});
