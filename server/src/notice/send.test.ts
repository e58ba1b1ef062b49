import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pino } from 'pino';
import { SMTPServer } from 'smtp-server';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readConfig } from '../platform/config.ts';
import { type Database, openDatabase } from '../platform/database.ts';
import { Troubles } from '../platform/troubles.ts';
import { lettersLeft } from './failed.ts';
import { BACK_OFF } from './outbox.ts';
import { Sender } from './send.ts';
import { notices } from './tables.ts';

const config = readConfig({ TOLVEK_SECRET: 'x'.repeat(32), TOLVEK_SMTP: 'smtp://127.0.0.1:1' });
let folder: string;
let db: Database;
let now = 1_000_000;
let refusing = true;
let received: string[] = [];
let server: SMTPServer;
let sender: Sender;
const log = pino({ level: 'silent' });

beforeEach(async () => {
  folder = mkdtempSync(join(tmpdir(), 'tolvek-'));
  db = openDatabase(folder);
  now = 1_000_000;
  refusing = true;
  received = [];
  server = new SMTPServer({
    authOptional: true,
    disableReverseLookup: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onData(stream, _session, done) {
      let text = '';
      stream.on('data', (chunk: Buffer) => (text += chunk.toString()));
      stream.on('end', () => {
        if (refusing) return done(new Error('the mailbox is full'));
        received.push(text);
        done();
      });
    },
  });
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  const { port } = server.server.address() as { port: number };
  sender = new Sender(
    { db, clock: { now: () => now }, config, log, troubles: new Troubles(log) },
    `smtp://127.0.0.1:${port}`,
  );
});

afterEach(async () => {
  await sender.close();
  await new Promise<void>((done) => server.close(done));
  db.$client.close();
  rmSync(folder, { recursive: true });
});

function put(id: string, kind = 'received'): void {
  const letter = {
    toName: 'Ada',
    toAddress: 'ada@institute.example',
    subject: `Letter ${id}`,
    said: { text: 'Words', html: '<p>Words</p>' },
  };
  db.insert(notices)
    .values({ id, requestId: null, kind, ...letter, state: 'waiting', nextAttemptAt: now, createdAt: now })
    .run();
}

async function round() {
  sender.wake();
  await sender.idle();
  return db.select().from(notices).all();
}

describe('what is left to send', () => {
  it('is found by an index of it alone, however much went', async () => {
    const asked: string[] = [];
    const prepare = db.$client.prepare;
    db.$client.prepare = ((text: string) => {
      asked.push(text);
      return prepare.call(db.$client, text);
    }) as typeof prepare;
    put('a');
    await round();
    lettersLeft(db);
    db.$client.prepare = prepare;
    const looks = [...new Set(asked)].filter((text) =>
      /from "notices" where|"notices" set .* where \(state/.test(text),
    );
    expect(looks.length).toBeGreaterThan(2);
    for (const text of looks) {
      const plan = db.$client.prepare(`explain query plan ${text}`).all(...(text.match(/\?/g) ?? []).map(() => 0));
      expect(`${text}: ${JSON.stringify(plan)}`).toMatch(/INDEX notices_(left|gathering)/);
    }
  });
});

describe('the notices', () => {
  it('tries a refused letter again after each wait, and not before', async () => {
    put('a');
    const [first] = await round();
    expect(first).toMatchObject({ state: 'waiting', attempts: 1, nextAttemptAt: now + BACK_OFF[0] });
    expect(first?.lastError).toContain('the mailbox is full');
    now += BACK_OFF[0] - 1;
    expect((await round())[0]?.attempts).toBe(1);
    now += 1;
    refusing = false;
    expect((await round())[0]).toMatchObject({ state: 'sent', attempts: 2, lastError: null, sentAt: now });
    expect(received).toHaveLength(1);
  });

  it('gives a letter up after the last wait, keeping what the mail server said', async () => {
    put('a');
    await round();
    for (const wait of BACK_OFF) {
      now += wait;
      await round();
    }
    expect((await round())[0]).toMatchObject({ state: 'failed', attempts: BACK_OFF.length + 1 });
    now += 365 * 24 * 3_600_000;
    expect((await round())[0]?.attempts).toBe(BACK_OFF.length + 1);
  });

  it('sends every letter of a long queue once, each under its own message id', async () => {
    refusing = false;
    for (let index = 0; index < 120; index += 1) put(`letter-${index}`);
    const after = await round();
    expect(after.every((letter) => letter.state === 'sent')).toBe(true);
    const ids = received.map((text) => /^Message-ID: <(.+)@tolvek>/im.exec(text)?.[1]);
    expect(new Set(ids).size).toBe(120);
    expect(received).toHaveLength(120);
  });

  it('looks again for letters that were under way at the last end, when the first look could not be stored', async () => {
    refusing = false;
    put('under-way');
    put('waiting');
    db.$client.exec("update notices set state = 'sending' where id = 'under-way'");
    db.$client.exec(
      "create trigger no before update on notices when new.state = 'sending' begin select raise(abort, 'no'); end",
    );
    expect((await round()).map((letter) => letter.state).sort()).toEqual(['sending', 'waiting']);
    db.$client.exec('drop trigger no');
    expect((await round()).every((letter) => letter.state === 'sent')).toBe(true);
    expect(received).toHaveLength(2);
  });
});
