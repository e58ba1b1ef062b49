import { expect, type Page } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

/** Opens find from the page that is there, and looks for something. */
async function looksFor(page: Page, text: string): Promise<void> {
  const box = page.getByRole('combobox', { name: 'What you are looking for' });
  // The sheet of before may be about to close, and a page that has just come hears no key yet.
  await expect(async () => {
    if (!(await box.isVisible())) await page.keyboard.press('Control+k');
    await box.fill(text, { timeout: 3_000 });
  }).toPass();
  await expect(page.getByRole('status').filter({ hasText: /found$/ })).toBeVisible();
}
const found = (page: Page, group: string) => page.getByRole('group', { name: group }).getByRole('option');

test('a word in an answer is found by who may read it, and by nobody else', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const oskar = await pageOf(browser, 'Oskar Veldhuis');
  await Promise.all([maren, oskar].map((page) => page.goto('/floor')));

  // A word of an answer, by its beginning; the place where it stands is shown.
  await looksFor(maren, 'transect');
  const first = found(maren, 'Requests and things').first();
  await expect(first.locator('mark').first()).toHaveText(/^transect/i);
  expect(await seriousTrouble(maren)).toEqual([]);
  expect(await spilling(maren)).toEqual([]);
  const number = /[A-Z]{2}-\d{5}/.exec((await first.textContent()) ?? '')?.[0] ?? '';

  // By keyboard alone: down and up, and Enter opens the sheet.
  await maren.keyboard.press('ArrowDown');
  await maren.keyboard.press('ArrowUp');
  await maren.keyboard.press('Enter');
  await expect(maren.getByRole('article').getByText(number)).toBeVisible();
  expect(maren.url()).toContain(number);

  // What was looked for is offered again; its number leads there as well.
  await maren.keyboard.press('Control+k');
  await found(maren, 'You looked for').filter({ hasText: 'transect' }).click();
  await expect(found(maren, 'Requests and things').first()).toContainText(number);
  await looksFor(maren, number.toLowerCase());
  await expect(found(maren, 'Requests and things').first()).toContainText(number);

  // A fault in writing, and a day beside the one that is meant.
  await looksFor(maren, 'tarnsect');
  await expect(found(maren, 'Nearly the same').first().locator('mark').first()).toHaveText(/^transect/i);

  // Pages, settings, views and forms by name.
  await looksFor(maren, 'site who');
  await expect(found(maren, 'Views')).toHaveText(['Who is on site']);
  await looksFor(maren, 'calendars');
  await found(maren, 'Pages and settings').filter({ hasText: 'Calendars' }).first().click();
  await expect(maren).toHaveURL(/groundwork\/calendars/);
  await looksFor(maren, 'dive');
  await expect(found(maren, 'Forms you build').first()).toContainText('Dive plan');

  // What is written in confidence is found by whoever reads it, and is nothing to others.
  await looksFor(oskar, 'insulin');
  await expect(found(oskar, 'Requests and things').first()).toContainText('insulin');
  await maren.getByRole('combobox', { name: 'What you are looking for' }).fill('insulin');
  await expect(maren.getByText('Nothing that you may read has “insulin” in it.')).toBeVisible();
  await maren.keyboard.press('Escape');
  await expect(maren.getByRole('dialog', { name: 'Find' })).toHaveCount(0);
});
