import { expect, type Page } from '@playwright/test';
import { pageOf, phone, seriousTrouble, spilling, test } from './people.ts';

const row = (page: Page, name: string) => page.locator('tr', { hasText: name });

test('people come in from a file that is looked at before, and go again in one go', async ({ browser }) => {
  const page = await pageOf(browser, 'Maren Okafor');
  await page.goto('/workshop/groundwork/people');
  await page.getByRole('link', { name: 'Profile fields' }).click();
  await page.getByRole('button', { name: 'Add a profile field' }).click();
  await page.getByLabel('Name', { exact: true }).fill('Locker');
  await page.getByRole('combobox', { name: 'Used' }).selectOption({ label: 'for staff' });
  await page.getByRole('checkbox', { name: 'Show as a column in the list' }).check();
  await page.getByRole('button', { name: 'Save the changes' }).click();
  await expect(page.getByText('The profile fields are changed.')).toBeVisible();
  expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);

  await page.goto('/workshop/groundwork/people');
  await page.getByRole('link', { name: 'Import a file' }).click();
  const file = [
    'Name;E-mail;Locker;Groups',
    'Bram Solheim;bram.solheim@skerrow.example;A12;Boats',
    'Tove Marlin;tove.marlin@skerrow.example;A13;Dive Safety',
    'Nuala Fenwick-Roe;nuala.fenwick@skerrow.example;A14;',
    'Hanne Istvan;hanne@islands.example;A15;',
    'Somebody;no address;A16;',
  ].join('\n');
  const upload = { name: 'lockers.csv', mimeType: 'text/csv', buffer: Buffer.from(file) };
  await page.getByLabel('Choose a file').or(page.locator('input[type=file]')).first().setInputFiles(upload);
  await expect(page.getByText('New: 1 · Changed: 1 · Unchanged: 0 · Unclear: 2 · Not correct: 1')).toBeVisible();
  await expect(page.getByText('This is not an email address.')).toBeVisible();
  expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);
  const nuala = page.getByRole('combobox', { name: 'Who is meant by Nuala Fenwick-Roe' });
  await nuala.selectOption({ label: 'It is Nuala Fenwick, nuala.fenwick@skerrow.example' });
  await expect(page.getByText('New: 1 · Changed: 2 · Unchanged: 0 · Unclear: 1 · Not correct: 1')).toBeVisible();
  await page.getByRole('button', { name: 'Import: 1 new, 2 changed, 0 inactive' }).click();
  await expect(page.getByText('Imported: 1 new, 2 changed, 0 inactive.')).toBeVisible();

  await page.getByRole('link', { name: 'People', exact: true }).first().click();
  await page.getByRole('searchbox', { name: 'Find by name' }).fill('nuala');
  await expect(row(page, 'Nuala Fenwick-Roe')).toContainText('A14');
  await page.goto('/workshop/groundwork/import/people');
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByText('The import is undone for 3 people.')).toBeVisible();
  await page.goto('/workshop/groundwork/people');
  await page.getByRole('searchbox', { name: 'Find by name' }).fill('nuala');
  await expect(row(page, 'Nuala Fenwick')).not.toContainText('A14');
  await page.getByRole('searchbox', { name: 'Find by name' }).fill('tove');
  await expect(page.getByText('Nobody was found. Try other words.')).toBeVisible();
});

test('somebody is away for some days, and a substitute decides meanwhile', async ({ browser }) => {
  const oskar = await pageOf(browser, 'Oskar Veldhuis');
  await oskar.getByRole('button', { name: 'Oskar Veldhuis' }).click();
  await oskar.getByRole('menuitem', { name: 'My account' }).click();
  await oskar.getByRole('button', { name: 'Add an absence' }).click();
  await oskar.getByLabel('First day').fill('1 Dec');
  await oskar.getByLabel('Last day (empty: until you end it)').fill('4 Dec');
  await oskar.getByLabel('Who decides instead? (empty: nobody)').fill('lorcan');
  await oskar.getByRole('option', { name: /Lorcan Abernethy/ }).click();
  expect(await seriousTrouble(oskar)).toEqual([]);
  await oskar.getByRole('button', { name: 'Add an absence' }).click();
  await expect(oskar.getByText('1 Dec 2026 to 4 Dec 2026')).toBeVisible();
  await expect(oskar.getByText('Lorcan Abernethy decides instead')).toBeVisible();

  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/groundwork/people');
  await maren.getByRole('searchbox', { name: 'Find by name' }).fill('oskar');
  await maren.getByRole('link', { name: 'Oskar Veldhuis' }).click();
  await expect(maren.getByText('Lorcan Abernethy decides instead').first()).toBeVisible();
  await maren.getByRole('button', { name: 'End', exact: true }).click();
  await expect(maren.getByText('No absence is planned.')).toBeVisible();
});

test('a contact who is here twice becomes one', async ({ browser }) => {
  const page = await pageOf(browser, 'Maren Okafor');
  await page.goto('/workshop/groundwork/contacts');
  await page.getByRole('searchbox', { name: 'Find by name' }).fill('wim haldane');
  const found = page.getByRole('link', { name: 'Wim Haldane' });
  await expect(page.getByRole('link', { name: 'Orla Fitch' })).toBeHidden();
  await expect(found.nth(1)).toBeVisible();
  const count = await found.count();
  await found.first().click();
  await page.getByRole('button', { name: 'Merge with another record' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Which record is the same person?').fill('wim haldane');
  await dialog
    .getByRole('option', { name: /Wim Haldane/ })
    .first()
    .click();
  await expect(dialog.getByText('It is also found by:')).toBeVisible();
  expect(await seriousTrouble(page)).toEqual([]);
  await dialog.getByRole('button', { name: 'Merge', exact: true }).click();
  await expect(page.getByText('The records are one now.')).toBeVisible();
  await expect(found).toHaveCount(count - 1);
  await expect(page.getByText(/Merged with the record of Wim Haldane/)).toBeVisible();
});

test('a group that is missing where it is picked is made on the spot, and chosen', async ({ browser }) => {
  const page = await pageOf(browser, 'Maren Okafor');
  await page.goto('/workshop/site-access/approval');
  await page
    .getByRole('button', { name: /^Change the step/ })
    .first()
    .click();
  await page.getByRole('button', { name: 'New group …' }).click();
  const dialog = page.getByRole('dialog');
  await dialog.getByLabel('Name', { exact: true }).fill('Night bench');
  await dialog.getByLabel('Who is in it? Choose one person after the other.').fill('tilda');
  await dialog.getByRole('option', { name: /Tilda Okonjo-Reyes/ }).click();
  await expect(dialog.getByRole('listitem')).toHaveText(['Tilda Okonjo-Reyes']);
  await dialog.getByRole('button', { name: 'Add a group' }).click();
  await expect(dialog).toBeHidden();
  await expect(page.getByLabel(/^Asked as number 1 at/)).toHaveValue('night_bench');
  await expect(page.getByRole('option', { name: 'Night bench, 1 person' })).toBeAttached();
  await page.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(page.getByLabel(/^Asked as number 1 at/)).not.toHaveValue('night_bench');
});

test('somebody sets a portrait that colleagues see, and the desk a logo that requesters see', async ({ browser }) => {
  const picture = { name: 'picture.png', mimeType: 'image/png', buffer: Buffer.from(DOT, 'base64') };
  const oskar = await pageOf(browser, 'Oskar Veldhuis');
  await oskar.goto('/account');
  await oskar.getByLabel('Your portrait').setInputFiles({ ...picture, buffer: Buffer.from('no picture') });
  await expect(oskar.getByText('This file cannot be read as a picture.')).toBeVisible();
  await oskar.getByLabel('Your portrait').setInputFiles(picture);
  await expect(oskar.getByRole('img', { name: 'Your portrait' })).toBeVisible();
  expect(await seriousTrouble(oskar)).toEqual([]);

  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/groundwork/people');
  await maren.getByRole('searchbox', { name: 'Find by name' }).fill('oskar');
  await expect(row(maren, 'Oskar Veldhuis').getByRole('presentation')).toBeVisible();
  await maren.getByRole('link', { name: 'Oskar Veldhuis' }).click();
  await maren.getByRole('button', { name: 'Remove the picture' }).click();
  await expect(row(maren, 'Oskar Veldhuis').getByRole('presentation')).toBeHidden();

  await maren.goto('/workshop/groundwork/desk');
  await maren.getByLabel('Logo').setInputFiles(picture);
  await expect(maren.getByRole('img', { name: 'Logo' })).toBeVisible();
  expect([await seriousTrouble(maren), await spilling(maren)]).toEqual([[], []]);
  const outside = await phone(browser);
  await outside.goto('/');
  await expect(outside.getByRole('banner').locator('img')).toBeVisible();
  await maren.getByRole('button', { name: 'Remove the picture' }).click();
  await expect(maren.getByRole('img', { name: 'Logo' })).toBeHidden();
});

/** A picture of one point. */
const DOT = 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==';
