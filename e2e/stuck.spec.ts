import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, test } from './people.ts';

test('a request that waits for a decision nobody makes is freed by the coordinator, and handed over to another team', async ({
  browser,
}) => {
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  await priya.goto('/ask/come-on-site');
  await priya.getByLabel('Who is coming?').fill('Sunniva Aldersgate');
  await priya.getByLabel('Where are they from?').selectOption({ index: 1 });
  await priya.getByLabel('What do they come for?').fill('Moorings');
  await priya.getByLabel('First day on site').fill('2026-12-01');
  await priya.getByLabel('Last day on site').fill('2026-12-02');
  await priya.getByLabel('Yes').click();
  await priya.getByLabel('Until when is their sea survival').fill('2027-06-01');
  await priya.getByRole('button', { name: 'Send' }).click();
  const said = await priya
    .getByText(/AC-\d+/)
    .first()
    .textContent();
  const number = /AC-\d+/.exec(said ?? '')?.[0] ?? '';

  const ilse = await pageOf(browser, 'Ilse Brandvold');
  await ilse.goto(`/floor/all/${number}`);
  await expect(ilse.getByText('To be decided').first()).toBeVisible();
  await expect(ilse.getByRole('button', { name: 'Move on without approval …' })).toHaveCount(0);

  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  const sheet = maren.getByRole('article');
  await maren.goto(`/floor/all/${number}`);
  await maren.getByRole('button', { name: 'Move on without approval …' }).click();
  const dialog = maren.getByRole('dialog');
  await expect(dialog.getByText(/If you move it on, it continues without a decision/)).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await dialog.getByLabel('Move to').selectOption({ label: 'In hand' });
  await dialog.getByLabel(/^Reason/).fill('The duty manager is away.');
  await dialog.getByRole('button', { name: 'Move the request on', exact: true }).click();
  await expect(
    sheet.getByText('A coordinator moved the request past the decision: To be decided → In hand'),
  ).toBeVisible();
  await expect(sheet.getByText('The duty manager is away.').first()).toBeVisible();

  await sheet.getByRole('button', { name: 'Change …' }).click();
  await sheet.getByLabel('Team').selectOption({ label: 'Estates' });
  await sheet.getByRole('button', { name: 'Move and email the team' }).click();
  await expect(sheet.getByText('Moved to the team Estates')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);

  await priya.goto(`/my/${number}`);
  await expect(priya.getByText('The duty manager is away.')).toHaveCount(0);
});
