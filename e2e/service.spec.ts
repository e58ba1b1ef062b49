import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, test } from './people.ts';

test('the month is told by what it took, with the requests behind each figure', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/floor');
  await maren.getByRole('link', { name: 'Service times' }).click();
  const table = maren.getByRole('table', { name: 'Service times' });
  await expect(table.getByRole('rowheader').first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  // What is late leads to the requests, and these to their sheets.
  const late = maren.getByRole('button', { name: /^\d+ finished late: show the requests$/ }).first();
  const count = Number.parseInt((await late.textContent()) ?? '', 10);
  await late.click();
  const behind = maren.getByRole('region', { name: 'finished late' });
  await expect(behind.getByRole('listitem')).toHaveCount(count);
  await expect(behind.getByText('late', { exact: true })).toHaveCount(count);
  expect(await seriousTrouble(maren)).toEqual([]);
  // By team, of one register, of the month before: all of it stands in the address.
  await maren.getByRole('combobox', { name: 'By' }).selectOption('team');
  await maren.getByRole('combobox', { name: 'Requests of' }).selectOption({ label: 'Site access' });
  await expect(maren.getByRole('heading', { name: 'In each stage (half within)' })).toBeVisible();
  await maren.getByRole('button', { name: 'Month before' }).click();
  await expect(maren).toHaveURL(/from=2026-10-01&to=2026-10-31/);
  await expect(maren.getByRole('combobox', { name: 'By' })).toHaveValue('team');
  await expect(table.getByRole('rowheader').first()).toBeVisible();
  // Whoever works on little sees what is theirs.
  const bram = await pageOf(browser, 'Bram Solheim');
  await bram.goto('/floor/times?by=team');
  await expect(bram.getByRole('rowheader', { name: 'Boats' })).toBeVisible();
  await expect(bram.getByRole('rowheader', { name: 'Purchasing' })).toHaveCount(0);
});
