import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliDecompressSync, gunzipSync } from 'node:zlib';
import Sqlite from 'better-sqlite3';
import { drizzle } from 'drizzle-orm/better-sqlite3';
import { afterAll, beforeEach, describe, expect, it } from 'vitest';
import { Alike, Written } from './alike.ts';
import type { House } from './house.ts';
import { listening, mayHaveTold } from './reads.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-alike-'));
afterAll(() => rmSync(folder, { recursive: true, force: true }));

let client: Sqlite.Database;
let other: Sqlite.Database;
let alike: Alike;
let now = 0;
let worked = 0;
let made = 0;
const ask = (key = 'door'): unknown => {
  const answer = alike.answer(key, () => {
    worked += 1;
    return { key, worked };
  });
  return answer instanceof Written ? JSON.parse(answer.text) : answer;
};

beforeEach(() => {
  made += 1;
  const path = join(folder, `${made}.sqlite`);
  [client, other] = [new Sqlite(path), new Sqlite(path)];
  client.pragma('journal_mode = WAL');
  client.exec('create table doors (places integer); insert into doors values (3)');
  [now, worked] = [5_000, 0];
  alike = new Alike({ db: drizzle(client), clock: { now: () => now } } as unknown as House);
});

/** A call that says what it can unpack, and what it is sent. */
function sent(written: Written<unknown>, accepts: string) {
  const headers: Record<string, string> = {};
  let body: unknown;
  const response = {
    vary: () => response,
    setHeader: (name: string, value: string | number) => {
      headers[name] = String(value);
    },
    end: (given: unknown) => {
      body = given;
    },
  };
  const request = { acceptsEncodings: (ways: readonly string[]) => ways.find((way) => accepts.includes(way)) ?? false };
  written.send(request as never, response as never);
  expect(headers['Content-Length']).toBe(String((body as Buffer).length));
  return { way: headers['Content-Encoding'], body: body as Buffer };
}

describe('what is answered alike', () => {
  it('is worked out once while nothing is written, for each who asks something else', () => {
    expect([ask(), ask(), ask('other'), ask()]).toEqual([
      ...[
        { key: 'door', worked: 1 },
        { key: 'door', worked: 1 },
        { key: 'other', worked: 2 },
      ],
      { key: 'door', worked: 1 },
    ]);
  });

  it('is worked out anew once anything is written, by this program or another one, and not for what was given up', () => {
    ask();
    client.exec('update doors set places = 2');
    expect(ask()).toMatchObject({ worked: 2 });
    other.exec('update doors set places = 1');
    expect(ask()).toMatchObject({ worked: 3 });
    other.exec('delete from doors');
    expect([ask(), ask()]).toEqual([
      { key: 'door', worked: 4 },
      { key: 'door', worked: 4 },
    ]);
  });

  it('is worked out anew the next second: doors open and close by the clock', () => {
    ask();
    now = 5_999;
    expect(ask()).toMatchObject({ worked: 1 });
    now = 6_000;
    expect(ask()).toMatchObject({ worked: 2 });
  });

  it('is kept of nothing whose reading may be noted, and of nothing that fails', () => {
    const telling = () =>
      listening(() =>
        alike.answer('told', () => {
          worked += 1;
          mayHaveTold(() => ({ by: 'somebody', registerId: 'r', number: 'AC-1', fields: ['f'] }));
          return worked;
        }),
      );
    expect([telling(), telling()].map(({ value, reads }) => [value, reads.length])).toEqual([
      [1, 1],
      [2, 1],
    ]);
    const failing = () =>
      alike.answer('gone', () => {
        worked += 1;
        throw new Error(`no door ${worked}`);
      });
    expect(failing).toThrow('no door 3');
    expect(failing).toThrow('no door 4');
  });

  it('is packed once for each way that somebody can unpack, and sent as it is where it is short', () => {
    const long = new Written<unknown>(JSON.stringify({ says: 'x'.repeat(2_000) }));
    const [packed, zipped, plain] = [sent(long, 'br, gzip'), sent(long, 'gzip'), sent(long, 'identity')];
    expect([packed.way, zipped.way, plain.way, plain.body.toString()]).toEqual(['br', 'gzip', undefined, long.text]);
    expect(brotliDecompressSync(packed.body).toString()).toBe(long.text);
    expect(gunzipSync(zipped.body).toString()).toBe(long.text);
    expect(sent(long, 'br').body).toBe(packed.body);
    const short = sent(new Written<unknown>('{}'), 'br');
    expect([short.way, short.body.toString()]).toEqual([undefined, '{}']);
  });
});
