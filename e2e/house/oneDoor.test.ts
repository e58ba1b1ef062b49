import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { Desk, VISIT } from './desk.ts';

let desk: Desk;
beforeAll(async () => {
  desk = await Desk.open();
});
afterAll(() => desk.close());

describe('a request that somebody of its desk asked for', () => {
  it('is read on the Floor as the desk reads it, and on their own page as its requester', async () => {
    const maren = await desk.as('Maren Okafor');
    const sent = await maren.submit('come-on-site', VISIT);
    const number: string = sent.body.number;
    const sheet = await maren.sheet(number);
    const shown = (values: { fields: readonly { key: string; writable: boolean }[] }) =>
      values.fields.map((field) => field.key);
    expect(shown(sheet.values)).toContain('escort');
    expect(sheet.values.fields.some((field: { writable: boolean }) => field.writable)).toBe(true);
    const own = (await maren.call('myRequest', { params: { number } })).body;
    expect(shown(own.values)).toContain('visitor');
    expect(shown(own.values)).not.toContain('escort');
    expect(own.values.withheld).toEqual([]);
    expect(own.values.fields.some((field: { writable: boolean }) => field.writable)).toBe(false);
  });
});
