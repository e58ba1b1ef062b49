import { expect } from '@playwright/test';
import { overflows, pageOf, phone, reported, seriousTrouble, test } from './people.ts';

test('emails wait for the morning and for the end of the night: chosen on a phone, gathered in one, and told in the sheet', async ({
  browser,
}) => {
  const oskar = await phone(browser);
  await oskar.goto('/sign-in');
  await oskar.getByRole('button', { name: /Oskar Veldhuis/ }).click();
  await oskar.getByRole('heading', { name: 'What do you need?' }).waitFor();
  await oskar.goto('/account');
  await oskar.getByLabel('New requests for your teams').selectOption('together in one email');
  await oskar.getByLabel('Together at').fill('06:30');
  await oskar.getByLabel('Emails on').selectOption('every day');
  await oskar.getByLabel('No emails at night').check();
  expect(await overflows(oskar)).toBe(false);
  expect(await seriousTrouble(oskar)).toEqual([]);
  await oskar.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(oskar.getByText('Your choice is saved.')).toBeVisible();

  const numbers = [
    await reported(browser, { door: 'concern-report', what: 'A rope is worn.' }),
    await reported(browser, { door: 'concern-report', what: 'A lamp is out.' }),
  ];
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  await maren.goto(`/floor/all/${numbers[0]}`);
  await maren.getByText('Emails about this request').click();
  const line = maren.getByRole('listitem').filter({ hasText: 'Oskar Veldhuis: a new request for the team' });
  await expect(line).toContainText(/goes \w+ \d+ \w+, 07:00, together with others/);
  expect(await seriousTrouble(maren)).toEqual([]);

  // The night goes by.
  await maren.request.post('/api/demo/clock', {
    headers: { Origin: new URL(maren.url()).origin },
    data: { minutes: 24 * 60 },
  });
  await maren.goto('/mailroom');
  await maren.getByRole('searchbox').fill(numbers[1] ?? '');
  const digest = maren.getByRole('listitem').filter({ hasText: 'Oskar Veldhuis' });
  await expect(digest).toHaveCount(1);
  await expect(digest).toContainText('2 things from your requests');
  await digest.getByRole('link').click();
  const letter = maren.frameLocator('iframe');
  for (const number of numbers) await expect(letter.getByRole('link', { name: new RegExp(number) })).toBeVisible();
  await maren.goto(`/floor/all/${numbers[0]}`);
  await maren.getByText('Emails about this request').click();
  await expect(line).toContainText('sent together with others');
});
