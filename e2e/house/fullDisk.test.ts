import { spawnSync } from 'node:child_process';
import { mkdtempSync, readdirSync, rmdirSync, statfsSync, truncateSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { letters, notices, requests, uploads } from '@tolvek/server/schema';
import { ne } from 'drizzle-orm';
import { afterAll, describe, expect, it } from 'vitest';
import { Desk, VISIT } from './desk.ts';
import { MOST, makePermit, PDF, upload } from './permit.ts';

/**
 * A disk of a few megabytes, in memory. Where no disk may be mounted, what a limit on the database’s
 * pages shows has to do (“a full disk” among the faults that are survived).
 */
const disk = mkdtempSync(join(tmpdir(), 'tolvek-disk-'));
const isMounted = spawnSync('mount', ['-t', 'tmpfs', '-o', 'size=24m,mode=700', 'tmpfs', disk]).status === 0;
afterAll(() => {
  if (isMounted) spawnSync('umount', ['--lazy', disk]);
  rmdirSync(disk);
});

const wait = (ms: number): Promise<void> => new Promise((done) => setTimeout(done, ms));
const ballast = join(disk, 'ballast');
const free = (): number => {
  const { bavail, bsize } = statfsSync(disk);
  return bavail * bsize;
};
/** Leaves so many bytes. */
const fillUpTo = (left: number): void =>
  writeFileSync(ballast, Buffer.alloc(Math.max(0, free() - left)), { flag: 'a' });
const makeRoom = (): void => truncateSync(ballast, 0);

describe.skipIf(!isMounted)('a disk that has no room', () => {
  it('refuses requests and files in words, answers what can be read, and takes up again, with nothing lost or twice', async () => {
    const desk = await Desk.open(0, join(disk, 'data'));
    const { db } = desk.running.house;
    const [maren, priya, stranger] = [
      await desk.as('Maren Okafor'),
      await desk.as('Priya Nakamura-Lind'),
      await desk.as(),
    ];
    await makePermit(maren);
    await desk.running.lettersSent();
    const stored = (): number => db.select().from(requests).all().length;
    const files = (): readonly string[] => readdirSync(join(desk.folder, 'files')).sort();
    const ask = (n: number) =>
      priya.submit('come-on-site', { ...VISIT, visitor: `Visitor ${n}` }, { key: `full-disk-${n}` });
    const before = { stored: stored(), files: files(), uploads: db.select().from(uploads).all().length };

    // Twice: what was learned the first time must not be needed the second time.
    let asked = 0;
    const told = { taken: 0, refused: 0, files: 0 };
    for (let turn = 0; turn < 2; turn += 1) {
      fillUpTo(200_000);
      let last = await ask(asked);
      for (; last.status === 200 && asked < 400; last = await ask(asked)) {
        asked += 1;
        told.taken += 1;
      }
      expect([last.status, last.body.type]).toEqual([503, 'urn:tolvek:problem:disk']);
      told.refused += 1;
      fillUpTo(0);
      const large = Buffer.concat([PDF, Buffer.alloc(MOST - 1_000 - PDF.length, turn)]);
      const file = await upload(desk.running.url, priya, 'papers.pdf', large);
      expect([file.status, file.body.type]).toEqual([503, 'urn:tolvek:problem:disk']);
      told.files += 1;
      // Nothing half written is left.
      expect(files()).toEqual(before.files);
      expect(db.select().from(uploads).all()).toHaveLength(before.uploads);
      expect((await maren.call('ledger')).status).toBe(200);
      const health = (await stranger.call('health')).body;
      expect(health.troubles.map((each: { what: string }) => each.what)).toContain('full');
      expect((await maren.call('trays')).body.troubles.length).toBeGreaterThan(0);
      // Timers, letters and the taking away turn meanwhile, and end nothing.
      await wait(1_500);
      makeRoom();
      // The same again, under the same key, is stored once.
      expect((await ask(asked)).status).toBe(200);
      expect((await ask(asked)).status).toBe(200);
      asked += 1;
      told.taken += 1;
      expect(stored()).toBe(before.stored + told.taken);
      await stranger.call('advanceClock', { body: { minutes: 60 } });
      await desk.running.lettersSent();
      await desk.allWell();
    }

    const sent = db.select({ id: letters.messageId }).from(letters).all();
    expect(new Set(sent.map((each) => each.id)).size).toBe(sent.length);
    expect(db.select().from(notices).where(ne(notices.state, 'sent')).all()).toEqual([]);
    expect(db.$client.pragma('integrity_check', { simple: true })).toBe('ok');
    expect(db.$client.pragma('foreign_key_check')).toEqual([]);
    await desk.running.stop();
    console.log('a disk of 24 MB, full twice:', told, `${sent.length} letters, each once`);
  });
});
