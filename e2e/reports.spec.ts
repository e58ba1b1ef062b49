import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

test('a report is made of figures, service times and a chart, frozen, sent, and read by whom it is for', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1280, height: 800 });
  await maren.goto('/floor');
  await maren.getByRole('link', { name: 'New report' }).click();
  await expect(maren.getByText(/^A report is made of parts/)).toBeVisible();
  // The clock of the demo may have gone on.
  await maren.getByLabel('From', { exact: true }).fill('2026-11-01');
  await maren.getByLabel('To', { exact: true }).fill('2026-11-30');
  // Without a part and a name it is refused, and says both.
  await maren.getByRole('button', { name: 'Save the report' }).click();
  await expect(maren.getByText('Give the report a name.')).toBeVisible();
  await expect(maren.getByText(/^Add a part to the report/)).toBeVisible();
  await maren.getByRole('textbox', { name: 'Name of the report' }).fill('Boats this month');

  await maren.getByRole('button', { name: 'words', exact: true }).click();
  await maren.getByRole('textbox', { name: 'Words', exact: true }).fill('How the boats did.');
  await maren.getByRole('button', { name: 'service times', exact: true }).click();
  const times = maren.getByRole('region').or(maren.locator('section')).nth(1);
  await times.getByRole('textbox', { name: 'Heading' }).fill('How long it took');
  await times.getByRole('combobox', { name: 'Requests of' }).selectOption({ label: 'Vessel time' });
  await times.getByRole('combobox', { name: 'By' }).selectOption('handler');
  await expect(times.getByRole('table', { name: 'Service times' }).getByRole('rowheader').first()).toBeVisible();
  await maren.getByRole('button', { name: 'numbers', exact: true }).click();
  const figures = maren.locator('section').nth(2);
  await figures.getByRole('textbox', { name: 'What it is called' }).fill('not finished');
  await figures.getByRole('combobox', { name: 'View' }).selectOption({ label: 'Unfinished by handler' });
  const unfinished = figures.getByRole('listitem').filter({ hasText: 'not finished' });
  await expect(unfinished).toHaveText(/^[1-9]\d*not finished$/);
  await maren.getByRole('button', { name: 'a view', exact: true }).click();
  const chart = maren.locator('section').nth(3);
  await chart.getByRole('textbox', { name: 'Heading' }).fill('Visitors');
  await chart.getByRole('combobox', { name: 'View' }).selectOption({ label: 'Who is on site' });
  await chart.getByRole('combobox', { name: 'Of these days' }).selectOption({ label: 'Arrival' });
  await chart.getByRole('combobox', { name: 'Shown as' }).selectOption({ label: 'Number by Arrival' });
  const week = chart.getByRole('button', { name: /show the rows/i }).first();
  await expect(week).toBeVisible();
  // The chart comes before the figures.
  await maren.getByRole('button', { name: 'Move Visitors up' }).click();
  await expect(maren.locator('section').nth(2).getByRole('heading', { name: 'Visitors' })).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  expect(await spilling(maren)).toEqual([]);

  // To the boats, as soon as the desk opens after the month.
  await maren.getByRole('button', { name: 'To whom it is sent: send it to somebody' }).click();
  await maren.getByLabel('Person or group').fill('Boats');
  await maren
    .getByRole('option', { name: /^Boats/ })
    .filter({ visible: true })
    .first()
    .click();
  await maren.keyboard.press('Escape');
  await maren.getByRole('button', { name: 'Save the report' }).click();
  await expect(maren.getByRole('heading', { name: 'Boats this month', level: 1 })).toBeVisible();
  await expect(maren.getByText(/^Next sent \w+ \d+ \w+, \d\d:\d\d: \w+ 202\d\.$/)).toBeVisible();
  await expect(maren.getByText(/^Done changing|Change the parts/)).toBeVisible();

  // What it tells now is kept.
  const before = (await unfinishedIn(maren)) ?? '';
  await maren.getByRole('button', { name: 'Freeze this' }).click();
  const copy = maren.getByRole('link', { name: /^November 2026, frozen .+ by Maren Okafor$/ });
  await expect(copy).toBeVisible();
  const address = await copy.getAttribute('href');
  // A figure of the chart leads to its rows.
  await maren
    .getByRole('button', { name: /show the rows/i })
    .first()
    .click();
  await expect(maren).toHaveURL(/\/floor\/views\//);
  await expect(maren.getByRole('grid', { name: 'Rows of the view' }).getByRole('row').nth(1)).toBeVisible();

  // A handler of the boats finds it, and reads of the copy what is theirs.
  const bram = await pageOf(browser, 'Bram Solheim', { width: 1280, height: 800 });
  await bram.goto('/floor');
  await bram.getByRole('link', { name: 'Boats this month' }).click();
  await expect(bram.getByRole('button', { name: 'Change the parts' })).toHaveCount(0);
  await bram.goto(address ?? '');
  await expect(bram.getByRole('heading', { name: 'Boats this month: November 2026' })).toBeVisible();
  await expect(bram.getByText('How the boats did.')).toBeVisible();
  await expect(bram.getByRole('rowheader', { name: 'Bram Solheim' })).toBeVisible();
  await expect(unfinishedIn(bram)).resolves.not.toBe(before);
  expect(await seriousTrouble(bram)).toEqual([]);
  expect(await spilling(bram)).toEqual([]);
  // Somebody else does not.
  const tomas = await pageOf(browser, 'Tomas Achterberg', { width: 1280, height: 800 });
  await tomas.goto(address ?? '');
  await expect(tomas.getByText(/This report does not exist, or you may not see it/)).toBeVisible();

  // Taken away, and put back by the same message.
  await maren.goto(address ?? '');
  await expect(unfinishedIn(maren)).resolves.toBe(before);
  await maren.getByRole('button', { name: 'Remove the copy' }).click();
  await expect(maren.getByText('The frozen copy is removed.')).toBeVisible();
  await expect(copy).toHaveCount(0);
  await maren.getByRole('button', { name: 'Put it back' }).click();
  await expect(copy).toBeVisible();
});

/** How many are not finished, as a report says. */
async function unfinishedIn(page: Awaited<ReturnType<typeof pageOf>>): Promise<string | null> {
  const figure = page.getByRole('listitem').filter({ hasText: /^\d+not finished$/ });
  await expect(figure).toBeVisible();
  return figure.textContent();
}
