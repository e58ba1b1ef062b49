import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, test } from './people.ts';

test('two requests about the same become one, for both who asked, and two again', async ({ browser }) => {
  const ada = await pageOf(browser, 'Ada Quillfeather');
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  await ada.goto('/floor/all/AC-00331');
  await ada.getByRole('button', { name: 'Merge with another request' }).click();
  const dialog = ada.getByRole('dialog');
  // What is none is said, and nothing is lost that was typed.
  await dialog.getByLabel('Number of the request that stays').fill('PU-00179');
  await dialog.getByRole('button', { name: 'Compare' }).click();
  await expect(dialog.getByText('PU-00179 is in another register than AC-00331.')).toBeVisible();
  await dialog.getByLabel('Number of the request that stays').fill('AC-00333');
  await dialog.getByRole('button', { name: 'Compare' }).click();
  await expect(dialog.getByText(/answers differ\. Choose which ones stay\./)).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  await dialog
    .getByRole('radio', { name: /: as in AC-00331$/ })
    .first()
    .check();
  await dialog.getByRole('button', { name: 'Merge AC-00331 into AC-00333' }).click();
  await expect(ada).toHaveURL(/AC-00333$/);
  await expect(ada.getByText('Also about this:')).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  // Both numbers find it.
  await ada.goto('/floor/all/AC-00331');
  await expect(ada.getByText(/^Merged into Aoife|^Merged into .* AC-00333$/).first()).toBeVisible();
  await priya.goto('/my/AC-00331');
  await expect(priya.getByText('Handled together with another request about the same matter')).toBeVisible();
  await expect(priya.getByText('AC-00333')).toHaveCount(0);
  expect(await seriousTrouble(priya)).toEqual([]);
  await ada.getByRole('button', { name: 'Separate again' }).click();
  await expect(ada.getByText('AC-00331 is separate again')).toBeVisible();
  await expect(ada.getByRole('button', { name: 'Separate again' })).toHaveCount(0);
  await priya.reload();
  await expect(priya.getByText('Handled together with another request about the same matter')).toHaveCount(0);
});
