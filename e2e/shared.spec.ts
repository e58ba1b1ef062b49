import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

test('some fields of some requests are shared by a link, read on a phone without an account, and ended', async ({
  browser,
}) => {
  const page = await pageOf(browser, 'Maren Okafor');
  await page.goto('/floor/all');
  await page.getByRole('link', { name: 'Shared results' }).click();
  await expect(page.getByText('You share nothing yet.')).toBeVisible();
  await page.getByRole('button', { name: 'Share a result' }).click();
  await page.getByLabel('Requests of').selectOption({ label: 'Site access' });
  await page.getByLabel('Name', { exact: true }).fill('Who comes');
  await page.getByLabel('Visitor', { exact: true }).check();
  await page.getByLabel('Arrival', { exact: true }).check();
  // What is hidden from her is not there to be shared.
  await expect(page.getByLabel('Medical note')).toHaveCount(0);
  await page.getByLabel('all staff').check();
  await expect(page.getByText(/have no account yet and can’t open it/)).toBeVisible();
  await page.getByLabel('anybody who has the link').check();
  await expect(page.getByText('For anybody who has the link.')).toBeVisible();
  expect(await seriousTrouble(page)).toEqual([]);
  await page.getByRole('button', { name: 'Share', exact: true }).click();
  const line = page.getByRole('listitem').filter({ hasText: 'Who comes' });
  await expect(line).toContainText('It opens without an account');
  const path = await line.getByRole('link', { name: 'Open' }).getAttribute('href');

  const phone = await browser.newContext({ viewport: { width: 360, height: 740 } });
  const outside = await phone.newPage();
  await outside.goto(path ?? '');
  await expect(outside.getByRole('heading', { name: 'Who comes' })).toBeVisible();
  await expect(outside.getByText('Nothing can be changed here.')).toBeVisible();
  const first = outside.getByRole('row').nth(1);
  await expect(first).toContainText('AC-');
  await expect(first.getByRole('cell')).toHaveCount(3);
  expect(await spilling(outside)).toEqual([]);
  expect(await seriousTrouble(outside)).toEqual([]);
  await outside.getByRole('button', { name: 'Show more' }).click();
  await expect.poll(() => outside.getByRole('row').count()).toBeGreaterThan(60);

  await line.getByRole('button', { name: 'End it' }).click();
  await line.getByRole('button', { name: 'End it now' }).click();
  await expect(page.getByText('You share nothing yet.')).toBeVisible();
  await outside.reload();
  await expect(outside.getByText(/What was shared here is not shown any more/)).toBeVisible();
  await phone.close();
});
