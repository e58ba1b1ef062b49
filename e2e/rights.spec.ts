import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, test } from './people.ts';

test('a register differs from the desk, says what follows, and is put back', async ({ browser }) => {
  const ada = await pageOf(browser, 'Ada Quillfeather');
  await ada.goto('/workshop');
  await ada.getByRole('link', { name: 'Groundwork' }).click();
  await ada.getByRole('link', { name: /^Registers/ }).click();
  await ada.getByRole('link', { name: 'Rights in Purchase: Differs from the desk in 1' }).click();
  await expect(ada.getByText('“Purchase” has the rights of the whole desk, except for 1 right.')).toBeVisible();
  const exporting = ada.getByRole('combobox', { name: 'Purchasing: Export requests' });
  await expect(exporting).toHaveValue('team');
  await ada.getByRole('combobox', { name: 'All staff: Change requests, write notes and messages' }).selectOption('own');
  await expect(ada.getByText('“Purchase” has the rights of the whole desk, except for 3 rights.')).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  // What somebody may do elsewhere stands on their page.
  await ada.getByRole('link', { name: /^People/ }).click();
  await ada.getByRole('link', { name: 'Anneke Rasmus' }).first().click();
  await expect(ada.getByText('Also: Export the requests of their teams')).toBeVisible();
  await expect(
    ada.getByText('Not here: Change the requests of their teams, and write notes and messages'),
  ).toBeVisible();
  await ada.getByRole('link', { name: 'In “Purchase”' }).click();
  await ada.getByRole('button', { name: 'Count only rights given here' }).click();
  const dialog = ada.getByRole('dialog');
  await expect(dialog.getByText(/people lose the right: Read the requests of their teams/)).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  await ada.keyboard.press('Escape');
  await ada.getByRole('button', { name: 'Put all rights back' }).click();
  await dialog.getByRole('button', { name: 'Put back now' }).click();
  await expect(ada.getByText(/“Purchase” has the rights of the whole desk\. Choose/)).toBeVisible();
  // And back, with a reason.
  const line = ada.getByRole('listitem').filter({ hasText: '“Purchase” has the rights of the desk again' });
  await line.getByRole('button', { name: 'Add a reason' }).click();
  await dialog.getByLabel('Reason').fill('It was a mistake.');
  await dialog.getByRole('button', { name: 'Save the reason' }).click();
  await expect(line.getByText('Reason: It was a mistake.')).toBeVisible();
  await line.getByRole('button', { name: 'Undo' }).click();
  await dialog.getByRole('button', { name: 'Undo' }).click();
  await expect(exporting).toHaveValue('team');
  await ada.getByRole('button', { name: 'Put back: All staff: Change requests, write notes and messages' }).click();
  await expect(ada.getByText('“Purchase” has the rights of the whole desk, except for 1 right.')).toBeVisible();
});

test('a request is shared, decided for those who are asked, deleted, and put back', async ({ browser }) => {
  const ada = await pageOf(browser, 'Ada Quillfeather');
  const emeric = await pageOf(browser, 'Emeric Vantongeren');
  await emeric.goto('/floor/shared');
  await expect(emeric.getByText('Nobody shares a request with you.')).toBeVisible();
  await ada.goto('/floor/all/PU-00179');
  await ada.getByRole('button', { name: 'Share this request' }).click();
  const dialog = ada.getByRole('dialog');
  await dialog.getByRole('combobox', { name: 'Person or group' }).fill('emeric');
  await ada.getByRole('option', { name: /Emeric Vantongeren/ }).click();
  expect(await seriousTrouble(ada)).toEqual([]);
  await dialog.getByRole('button', { name: 'Share now' }).click();
  await expect(ada.getByRole('button', { name: 'Stop sharing with Emeric Vantongeren' })).toBeVisible();
  await emeric.goto('/floor/shared');
  await emeric.locator('tbody a').first().click();
  const sheet = emeric.getByRole('complementary', { name: 'Request sheet' });
  await expect(sheet.getByText('PU-00179')).toBeVisible();
  await expect(sheet.getByText(/You do not have the right to see the rest of the history/)).toBeVisible();
  await sheet.getByText('What you may not do here').click();
  await expect(sheet.getByText('These people can give you the rights: Ada Quillfeather.')).toBeVisible();
  expect(await seriousTrouble(emeric)).toEqual([]);
  // A decision for others needs a reason.
  await ada.getByRole('button', { name: 'Decide for Duty managers' }).click();
  await dialog.getByRole('button', { name: 'Approve' }).click();
  await expect(dialog.getByRole('alert')).toContainText('Please say why');
  await dialog.getByLabel(/Comment/).fill('All duty managers are at sea.');
  await dialog.getByRole('button', { name: 'Approve' }).click();
  await expect(ada.getByText('Approved for Duty managers: Approval')).toBeVisible();
  await ada.getByRole('button', { name: 'Delete', exact: true }).click();
  await expect(dialog.getByText('All answers of this request')).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  await dialog.getByLabel('Reason').fill('It was sent twice.');
  await dialog.getByRole('button', { name: 'Delete now' }).click();
  await expect(ada.getByText('PU-00179 is deleted')).toBeVisible();
  // It is there again at once, with all that it was; and deleted once more, a coordinator puts it back.
  await ada.getByRole('button', { name: 'Undo' }).click();
  await expect(ada.getByText('PU-00179 is restored. We sent no emails.')).toBeVisible();
  await ada.goto('/floor/all/PU-00179');
  await expect(ada.getByText('Approved for Duty managers: Approval')).toBeVisible();
  await ada.getByRole('button', { name: 'Delete', exact: true }).click();
  await dialog.getByLabel('Reason').fill('It was sent twice.');
  await dialog.getByRole('button', { name: 'Delete now' }).click();
  await expect(ada.getByText('PU-00179 is deleted')).toBeVisible();
  await ada.goto('/workshop/registers/purchase');
  await expect(ada.getByText('It was sent twice.')).toHaveCount(2);
  await expect(ada.getByText(/^Can be restored until/)).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  await ada.getByRole('button', { name: 'Restore' }).click();
  await expect(ada.getByText(/^Restored by Ada Quillfeather/)).toHaveCount(2);
});
