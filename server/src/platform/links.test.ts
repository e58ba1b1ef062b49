import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { RETENTION } from '../house/retention.ts';
import { type Database, openDatabase } from './database.ts';
import { once } from './idempotency.ts';
import { issueLink, openLink, renewLink, spendLink, tokenOf } from './links.ts';

const SECRET = 'x'.repeat(32);
let folder: string;
let db: Database;
beforeAll(() => {
  folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
  db = openDatabase(folder);
});
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true });
});

describe('one-time links', () => {
  const decide = { purpose: 'decide', personId: 'p', targetId: 't', expiresAt: 14 * 24 * 3_600_000 } as const;

  it('open for what they were made for, until they are used', () => {
    const token = db.transaction((tx) => issueLink(tx, SECRET, decide)).token;
    const link = openLink(db, token, 'decide', 1);
    expect(link.targetId).toBe('t');
    expect(() => openLink(db, token, 'follow', 1)).toThrow(expect.objectContaining({ status: 404 }));
    db.transaction((tx) => spendLink(tx, link, 5));
    expect(() => openLink(db, token, 'decide', 6)).toThrow(expect.objectContaining({ status: 410 }));
  });

  it('end at their moment, and not a millisecond before', () => {
    const token = db.transaction((tx) => issueLink(tx, SECRET, decide)).token;
    const ends = decide.expiresAt;
    expect(openLink(db, token, 'decide', ends - 1).targetId).toBe('t');
    expect(() => openLink(db, token, 'decide', ends)).toThrow(expect.objectContaining({ status: 410 }));
  });

  it('have a token that can be made again, by who knows the secret alone', () => {
    const { id, token } = db.transaction((tx) => issueLink(tx, SECRET, decide));
    expect(tokenOf(SECRET, id)).toBe(token);
    expect(tokenOf('y'.repeat(32), id)).not.toBe(token);
    expect(token).toMatch(/^[\w-]{32}$/);
  });

  it('open by the token of today when their letter goes again, also with another secret', () => {
    const { id, token } = db.transaction((tx) => issueLink(tx, SECRET, decide));
    const other = 'z'.repeat(32);
    db.transaction((tx) => renewLink(tx, SECRET, id));
    expect(openLink(db, token, 'decide', 1).id).toBe(id);
    db.transaction((tx) => renewLink(tx, other, id));
    expect(openLink(db, tokenOf(other, id), 'decide', 1).id).toBe(id);
    expect(() => openLink(db, token, 'decide', 1)).toThrow(expect.objectContaining({ status: 404 }));
  });

  it('are kept as a fingerprint only', () => {
    const token = db.transaction((tx) => issueLink(tx, SECRET, decide)).token;
    const kept = JSON.stringify(db.$client.prepare('select * from links').all());
    expect(kept).not.toContain(token);
  });
});

describe('a write that is sent again', () => {
  const input = { key: 'k', scope: 'submit', content: { a: 1 }, now: 0 };

  it('gets the first answer and does its work once', () => {
    let done = 0;
    const run = () => db.transaction((tx) => once(tx, input, () => ({ number: (done += 1) })));
    expect([run(), run()]).toEqual([{ number: 1 }, { number: 1 }]);
    expect(done).toBe(1);
  });

  it('is refused with other content under the same key', () => {
    expect(() => db.transaction((tx) => once(tx, { ...input, content: { a: 2 } }, () => 1))).toThrow(
      expect.objectContaining({ status: 422 }),
    );
  });

  it('is a new one for somebody else, and after a week', () => {
    expect(db.transaction((tx) => once(tx, { ...input, scope: 'other' }, () => 'new'))).toBe('new');
    for (const { sweep } of RETENTION) db.transaction((tx) => sweep(tx, 8 * 24 * 3_600_000));
    expect(db.transaction((tx) => once(tx, input, () => 'anew'))).toBe('anew');
  });

  it('leaves nothing behind when its work fails', () => {
    const failing = { ...input, key: 'fails' };
    const fail = () =>
      db.transaction((tx) =>
        once(tx, failing, () => {
          throw new Error('no');
        }),
      );
    expect(fail).toThrow('no');
    expect(db.transaction((tx) => once(tx, failing, () => 'done'))).toBe('done');
  });
});
