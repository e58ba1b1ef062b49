import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { showValue } from '@tolvek/core/register';
import { afterAll, expect, test } from 'vitest';
import { openDatabase } from '../database.ts';
import { placesOfCurrencies } from './steps/places.ts';

const folder = mkdtempSync(join(tmpdir(), 'tolvek-places-'));
const { $client: db } = openDatabase(folder);
afterAll(() => {
  db.close();
  rmSync(folder, { recursive: true, force: true });
});

const shown = (value: { minor: number; currency: string }): string =>
  showValue({ type: { kind: 'money', currency: value.currency } }, value, () => undefined);

test('amounts say what they said, in the minor units their currency has', () => {
  db.pragma('foreign_keys = OFF');
  // As they were kept: all with two places but yen, and dinars of Kuwait and Bahrain.
  const amounts = [
    { minor: 125_000, currency: 'KRW' },
    { minor: 1_250, currency: 'EUR' },
    { minor: 1_234, currency: 'KWD' },
    { minor: 150, currency: 'TND' },
    { minor: 700, currency: 'ISK' },
    { minor: 500, currency: 'JPY' },
  ];
  const design = {
    fields: [{ key: 'won', type: { kind: 'money', currency: 'KRW', least: 100, most: 500_000 } }],
    presets: [{ minor: 300, currency: 'KRW' }],
    // Words that only look like an amount.
    intro: 'currency":"KRW',
  };
  db.prepare("insert into designs (id, kind, key, draft) values ('f', 'form', 'f', ?)").run(JSON.stringify(design));
  db.prepare(
    "insert into history (id, request_id, at, kind, words, changes) values ('h', 'r', 0, 'fields', '', ?)",
  ).run(JSON.stringify([{ field: 'lines', before: null, after: amounts.map((price) => ({ price })) }]));
  db.exec("insert into settings (key, value) values ('claims-of-all', 'yes')");
  placesOfCurrencies(db);

  const read = (query: string) => JSON.parse(db.prepare(query).pluck().get() as string);
  const [{ after }] = read("select changes from history where id = 'h'");
  expect(after.map(({ price }: { price: { minor: number; currency: string } }) => shown(price))).toEqual([
    ...['KRW 1,250', '€ 12.50', 'KWD 1.234', 'TND 1.500', 'ISK 7', 'JPY 500'],
  ]);
  expect(read("select draft from designs where id = 'f'")).toEqual({
    ...design,
    fields: [{ key: 'won', type: { kind: 'money', currency: 'KRW', least: 1, most: 5_000 } }],
    presets: [{ minor: 3, currency: 'KRW' }],
  });
  // What no two may have is claimed anew at the next start.
  expect(db.prepare('select count(*) from settings').pluck().get()).toBe(0);
});
