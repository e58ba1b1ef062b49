import { expect, test } from '@playwright/test';
import { pageOf, seriousTrouble } from './people.ts';

test('from a question one gets to who may see it, and to a rule about it by a recipe', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/questions');
  const main = maren.getByRole('main');
  await main.getByRole('button', { name: /^Reason/ }).click();
  await main.getByRole('link', { name: 'Who can see it' }).click();
  const row = main.getByRole('row', { name: /^Reason/ });
  await expect(row).toBeVisible();
  await expect(main.getByRole('row', { name: /^Visitor/ })).toBeHidden();
  await row.getByRole('button', { name: 'reads' }).first().click();
  await expect(main.getByText(/The requester, Reason: reads/)).toBeVisible();
  await main.getByRole('button', { name: 'Show it only to staff' }).click();
  await expect(main.getByLabel('Name', { exact: true })).toHaveValue('Reason: only for staff');
  await expect(row.getByRole('button', { name: /hidden in force: reads/ })).toBeVisible();
  await expect(main.getByText(/can no longer read “Reason”/).first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await main.getByRole('button', { name: 'Discard the draft of the plan' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();
});

test('a rule of access is written, seen in names before it counts, put in force, and taken back', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const tomas = await pageOf(browser, 'Tomas Achterberg');
  await tomas.goto('/floor/all');
  await tomas.locator('tbody tr').filter({ hasText: /AC-\d/ }).first().getByRole('link').first().click();
  const sheet = tomas.getByRole('complementary', { name: 'Request sheet' });
  const withheld = sheet.getByRole('button', { name: 'Why: Escort' });
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
  await expect(withheld).toBeHidden();
  await maren.goto('/workshop');
  await maren.getByRole('link', { name: 'Come on site' }).first().click();
  await maren.getByRole('navigation', { name: 'Contents' }).getByRole('link', { name: '3 Access' }).click();
  await maren.getByRole('button', { name: 'New rule' }).click();
  await maren.getByLabel('Name', { exact: true }).fill('Escorts are for the desk');
  await maren.getByRole('group', { name: 'Fields' }).getByLabel('Escort').check();
  await maren.getByLabel('Add a group that is meant').selectOption({ label: 'Duty managers' });
  // Out instead of in: the names say so at once, and so does the effect.
  await expect(maren.getByText('2 people today: Edda Kilbride, Tomas Achterberg').first()).toBeVisible();
  await expect(maren.getByText(/2 people can no longer read “Escort”/)).toBeVisible();
  await maren.getByLabel('Add a group that is left out').selectOption({ label: 'Duty managers' });
  await expect(maren.getByText('Nobody is in these groups today.')).toBeVisible();
  await expect(
    maren.getByText('Left out although they are in a chosen group: Edda Kilbride, Tomas Achterberg'),
  ).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.getByRole('button', { name: 'Remove Duty managers' }).last().click();
  await maren.getByRole('button', { name: 'Done' }).click();
  // A cell says why.
  const row = maren.getByRole('row', { name: /^Escort/ });
  await row.getByRole('button', { name: /in force: changes/ }).click();
  await expect(maren.getByText('Duty managers, Escort: hidden. Decided by: Escorts are for the desk')).toBeVisible();
  await maren.getByRole('button', { name: 'Show who (2 people)' }).click();
  await expect(maren.getByText(/Escort: changes → hidden/).first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  // Nothing of it counts yet.
  await tomas.reload();
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
  await expect(withheld).toBeHidden();
  await maren.getByLabel('Why', { exact: true }).fill('Fewer eyes');
  await maren.getByRole('button', { name: 'Put in force' }).click();
  await expect(maren.getByText('What you see is in force.')).toBeVisible();
  await tomas.reload();
  await withheld.click();
  await expect(tomas.getByText('Escorts are for the desk')).toBeVisible();
  // One step back, by the same way.
  await maren.getByRole('button', { name: 'Write the plan as it was before' }).click();
  await expect(maren.getByText(/2 people can now change “Escort”/)).toBeVisible();
  await maren.getByRole('button', { name: 'Put in force' }).click();
  await expect(maren.getByText('What you see is in force.')).toBeVisible();
  await expect(maren.getByText(/Rules put in force. Deleted: “Escorts are for the desk”/)).toBeVisible();
  await tomas.reload();
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
  await expect(withheld).toBeHidden();
});
