import { expect } from '@playwright/test';
import { bomb, row, spreadsheet } from '../core/laws/spreadsheet.ts';
import { pageOf, test } from './people.ts';

test('a large spreadsheet is read by its worker, and one that unpacks to too much is refused', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const policy: string[] = [];
  maren.on('console', (message) => {
    if (/Content Security Policy/.test(message.text())) policy.push(message.text());
  });
  await maren.goto('/workshop/new');
  const choose = (name: string, buffer: Buffer) =>
    maren
      .getByLabel('A spreadsheet or form file')
      .setInputFiles({ name, mimeType: 'application/octet-stream', buffer });

  // Far beyond what was unpacked on the page itself, and of words that do not pack well.
  const word = (n: number): string => `${((n * 2_654_435_761) >>> 0).toString(36)} tide gauge ${n}`;
  const heads = Array.from({ length: 40 }, (_, at) => `Head ${at}`);
  const rows = Array.from({ length: 1_990 }, (_, at) =>
    row(
      at + 2,
      heads.map((_head, column) => word(at * 40 + column)),
    ),
  );
  const large = spreadsheet(`${row(1, heads)}${rows.join('')}`);
  expect(large.length).toBeGreaterThan(600_000);
  await choose('large.xlsx', large);
  await expect(maren.getByText('Head 39')).toBeVisible({ timeout: 30_000 });

  const packed = bomb(200_000_000);
  expect(packed.length).toBeLessThan(1_000_000);
  await choose('bomb.xlsx', packed);
  await expect(maren.getByText(/Unpacked, this file is larger than/)).toBeVisible();

  const xs = Array.from({ length: 500 }, () => 'x');
  const wide = spreadsheet(xs.map((_, at) => row(at + 1, xs)).join(''));
  await choose('wide.xlsx', wide);
  await expect(maren.getByText(/This file has 250,000 cells/)).toBeVisible({ timeout: 30_000 });

  await choose('none.xlsx', Buffer.from('no spreadsheet at all'));
  await expect(maren.getByText(/This is not an XLSX file that can be read/)).toBeVisible();
  expect(policy).toEqual([]);
});
