import { isValid, ulidToUUID } from 'ulid';
import { expect, it } from 'vitest';
import { newId } from './newId.ts';

it('ids are ULIDs of UUIDs of version 7, each after those before it and after all older ones', () => {
  const ids = Array.from({ length: 20_000 }, newId);
  const old = '01a2ffff-5678-7abc-8def-0123456789ab';
  const kinds = new Set<string>();
  for (const [place, id] of ids.entries()) {
    expect(isValid(id.toUpperCase())).toBe(true);
    const uuid = ulidToUUID(id.toUpperCase());
    kinds.add(`${uuid[14]} ${['8', '9', 'A', 'B'].includes(uuid[19] ?? '')}`);
    expect(id > (ids[place - 1] ?? old)).toBe(true);
  }
  expect([...kinds]).toEqual(['7 true']);
});

it('ids are made now', () => {
  const before = Date.now();
  const moment = Number.parseInt(ulidToUUID(newId().toUpperCase()).replaceAll('-', '').slice(0, 12), 16);
  expect(moment).toBeGreaterThanOrEqual(before - 1_000);
  expect(moment).toBeLessThanOrEqual(Date.now() + 1_000);
});
