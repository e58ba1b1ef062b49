import { expect, type Page } from '@playwright/test';
import { newestLink, overflows, pageOf, phone, seriousTrouble, test } from './people.ts';

/** Signs in by a code that goes to an address, from where one is led to. */
async function comesIn(page: Page, desk: Page, email: string): Promise<void> {
  await page.getByLabel('Email address').fill(email);
  await page.getByRole('button', { name: 'Send me a code' }).click();
  await page.getByLabel('Code').waitFor();
  await desk.goto('/mailroom');
  await desk.getByRole('searchbox').fill(email);
  const newest = desk.getByRole('listitem').filter({ hasText: 'is your code for' }).first();
  const code = /\d{6}/.exec((await newest.textContent()) ?? '')?.[0] ?? '';
  await page.getByLabel('Code').fill(code);
  await page.getByRole('button', { name: 'Sign in', exact: true }).click();
}

test('a request is given to somebody from outside, who works on it from a phone and gives it back', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  await maren.goto('/floor/all');
  await maren
    .getByRole('link', { name: /Mirela Pettifer/ })
    .first()
    .click();
  const number = /AC-\d{5}/.exec(maren.url())?.[0] ?? '';
  await maren.getByRole('button', { name: 'Somebody from outside…' }).click();
  const asks = maren.getByRole('dialog');
  await asks.getByLabel('Name').fill('Sela Brightwater');
  await asks.getByLabel('Email address').fill('oskar.veldhuis@skerrow.example');
  await asks.getByRole('button', { name: 'Ask them' }).click();
  await expect(asks.getByText('This address is of somebody who works here.')).toBeVisible();
  await expect(asks.getByLabel('Name')).toHaveValue('Sela Brightwater');
  await asks.getByLabel('Email address').fill('sela.brightwater@northmoor.example');
  await asks.getByRole('button', { name: 'Ask them' }).click();
  await expect(maren.getByText('Sela Brightwater is the handler now. We wrote to them.')).toBeVisible();
  await expect(maren.getByLabel('Handler')).toHaveValue(/.+/);

  // The email leads to a page that opens once they have proved that the address is theirs.
  const link = await newestLink(maren, 'Please handle', number);
  const sela = await phone(browser);
  await sela.goto(link);
  await expect(sela.getByRole('heading', { name: 'You were asked about this request' })).toBeVisible();
  await expect(sela.getByText('Mirela Pettifer')).toHaveCount(0);
  await sela.getByRole('link', { name: 'Get a code by email' }).click();
  await comesIn(sela, maren, 'sela.brightwater@northmoor.example');
  await expect(sela.getByRole('heading', { name: /Mirela Pettifer/ })).toBeVisible();
  expect(await overflows(sela)).toBe(false);
  expect(await seriousTrouble(sela)).toEqual([]);
  await sela.getByLabel('Write to the desk').fill('I can come on Friday.');
  await sela.getByRole('button', { name: 'Send the message' }).click();
  await expect(sela.getByText('I can come on Friday.')).toBeVisible();
  await sela.getByRole('button', { name: 'Move on: In hand' }).click();
  await expect(sela.getByText('In hand', { exact: true }).first()).toBeVisible();
  await sela.goto('/');
  await expect(sela.getByRole('heading', { name: 'Asked of you' })).toBeVisible();
  await sela.getByRole('link', { name: `Open ${number}` }).click();
  await sela.getByRole('button', { name: 'Give it back' }).click();
  await sela.getByRole('button', { name: 'Give it back now' }).click();
  await expect(sela.getByText('The reason is missing.')).toBeVisible();
  await sela.getByLabel('Why do you give it back?').fill('I am away until May.');
  await sela.getByRole('button', { name: 'Give it back now' }).click();
  await expect(sela.getByRole('heading', { name: 'You gave it back.' })).toBeVisible();
  await sela.goto(`/given/${number}`);
  await expect(sela.getByText('You are not asked about this request any more.')).toBeVisible();
  await maren.goto(`/floor/all/${number}`);
  await expect(maren.getByText('I am away until May.')).toBeVisible();
  await expect(maren.getByLabel('Handler')).toHaveValue('');
});

test('a link to decide opens where it was opened first, and elsewhere once whoever it is for has signed in', async ({
  browser,
}) => {
  const desk = await phone(browser);
  const link = await newestLink(desk, 'asks for your approval', 'Tomas Achterberg');
  await desk.goto(link);
  await expect(desk.getByText(/please approve or refuse this request/)).toBeVisible();
  const subject = (await desk.getByRole('heading', { level: 1 }).textContent()) ?? '';

  // Passed on, it tells nothing.
  const other = await phone(browser);
  await other.goto(link);
  await expect(other.getByRole('heading', { name: 'Is this email yours?' })).toBeVisible();
  await expect(other.getByText(subject)).toHaveCount(0);
  expect(await overflows(other)).toBe(false);
  expect(await seriousTrouble(other)).toEqual([]);
  await other.getByRole('link', { name: 'Sign in as one of the staff' }).click();
  await other.getByRole('button', { name: /Tomas Achterberg/ }).click();
  await expect(other.getByRole('heading', { level: 1, name: subject })).toBeVisible();
  await desk.reload();
  await expect(desk.getByRole('heading', { level: 1, name: subject })).toBeVisible();
});
