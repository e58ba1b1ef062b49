import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { NEW_DESK } from '@tolvek/core/settings';
import { eq } from 'drizzle-orm';
import { afterAll, expect, test } from 'vitest';
import { waitingSubmissions } from '../door/tables.ts';
import { notices } from '../notice/tables.ts';
import { openDatabase } from '../platform/database.ts';
import { AT_ONCE } from '../platform/kept.ts';
import { jobs } from '../platform/tables.ts';
import { layDesk } from '../settings/commands.ts';
import { RETENTION } from './retention.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-retention-'));
const db = openDatabase(folder);
afterAll(() => {
  db.$client.close();
  rmSync(folder, { recursive: true, force: true });
});

const DAY = 24 * 3_600_000;
const letter = (id: string, sentAt: number, state: 'sent' | 'failed' = 'sent'): typeof notices.$inferInsert => ({
  id,
  requestId: null,
  kind: 'received',
  toName: 'Ada Quill',
  toAddress: 'ada@example.org',
  subject: 'Received',
  said: { text: 'words', html: '<p>words</p>' },
  state,
  nextAttemptAt: sentAt,
  createdAt: sentAt,
  sentAt,
});

test('takes the text of old letters away a few at a time, and leaves that they went', () => {
  const now = 100 * DAY;
  const old = Array.from({ length: AT_ONCE + 5 }, (_, n) => letter(`old ${n}`, now - 31 * DAY - n));
  db.insert(notices)
    .values([...old, letter('fresh', now - 29 * DAY), letter('failed', now - 40 * DAY, 'failed')])
    .run();
  const letters = RETENTION.find((each) => each.what.startsWith('The text of emails'));
  const counts = Array.from({ length: 3 }, () => db.transaction((tx) => letters?.sweep(tx, now)));
  expect(counts).toEqual([AT_ONCE, 5, 0]);
  const kept = db.select().from(notices).all();
  expect(kept).toHaveLength(old.length + 2);
  expect(kept.filter((each) => each.said !== null).map((each) => each.id)).toEqual(['fresh', 'failed']);
  expect(kept.every((each) => each.subject === 'Received' && each.sentAt !== null)).toBe(true);
});

test('keeps long work for a month after its end, however long it took', () => {
  const now = 100 * DAY;
  const job = (id: string, endedAt: number | null) => ({
    ...({
      id,
      kind: 'recompute',
      about: {},
      by: '',
      state: endedAt === null ? 'running' : 'done',
      result: null,
    } as const),
    ...{ createdAt: now - 60 * DAY, endedAt },
  });
  db.insert(jobs)
    .values([job('under way', null), job('lately', now - DAY), job('long ago', now - 31 * DAY)])
    .run();
  const work = RETENTION.find((each) => each.what.startsWith('Long work'));
  expect(db.transaction((tx) => work?.sweep(tx, now))).toBe(1);
  expect(
    db
      .select({ id: jobs.id })
      .from(jobs)
      .all()
      .map(({ id }) => id)
      .sort(),
  ).toEqual(['lately', 'under way']);
});

test('looks for what is past keeping by an index of it, however much is kept', () => {
  const asked = new Set<string>();
  const prepare = db.$client.prepare;
  db.$client.prepare = ((text: string) => {
    asked.add(text);
    return prepare.call(db.$client, text);
  }) as typeof prepare;
  for (const { sweep } of RETENTION) db.transaction((tx) => sweep(tx, 0));
  db.$client.prepare = prepare;
  expect(asked.size).toBe(RETENTION.length);
  for (const text of asked) {
    const plan = db.$client.prepare(`explain query plan ${text}`).all(
      ...text
        .split('?')
        .slice(1)
        .map(() => 0),
    ) as {
      detail: string;
    }[];
    const found = plan
      .map((each) => each.detail)
      .filter(
        (detail) => !/LIST SUBQUERY|USING (COVERING )?INDEX sqlite_autoindex|INTEGER PRIMARY KEY|rowid=/.test(detail),
      );
    console.log(found.join(' · ') || plan.map((each) => each.detail).join(' · '));
    expect(found.join(), text).not.toMatch(/SCAN (?!.*USING (COVERING )?INDEX)/);
    expect(found.join(), text).toMatch(/[<>]/);
  }
});

test('keeps as long as the desk says', () => {
  const now = 300 * DAY;
  const letters = RETENTION.find((each) => each.what.startsWith('The text of emails'));
  const waiting = RETENTION.find((each) => each.what.startsWith('Requests from outside'));
  const keeps = { emails: 90, unconfirmed: 0 };
  const desk = { ...NEW_DESK, name: 'Desk', sender: { name: '', address: 'desk@example.org' }, keeps };
  const said = (id: string): boolean =>
    db.select({ said: notices.said }).from(notices).where(eq(notices.id, id)).get()?.said != null;
  db.transaction((tx) => {
    while ((letters?.sweep(tx, now) ?? 0) > 0);
  });
  db.insert(notices)
    .values([letter('of last month', now - 60 * DAY), letter('of before', now - 91 * DAY)])
    .run();
  const row = { doorId: 'door', releaseId: 'release', name: 'A', email: 'a@example.org', answers: {}, createdAt: 0 };
  db.$client.pragma('foreign_keys = OFF');
  db.insert(waitingSubmissions)
    .values([
      { ...row, id: 'ended', expiresAt: now - 1 },
      { ...row, id: 'works', expiresAt: now + 1 },
    ])
    .run();
  db.transaction((tx) => layDesk(tx, desk, '', { viewer: { personId: '' }, now }));
  expect(db.transaction((tx) => [letters?.sweep(tx, now), waiting?.sweep(tx, now)])).toEqual([1, 1]);
  expect([said('of last month'), said('of before')]).toEqual([true, false]);
  expect(
    db
      .select()
      .from(waitingSubmissions)
      .all()
      .map(({ id }) => id),
  ).toEqual(['works']);
});
