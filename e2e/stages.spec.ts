import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, test } from './people.ts';

test('a coordinator adds a stage and says the ways from another; the sheet says what is missing, until it is there', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1280, height: 900 });
  const main = maren.getByRole('main');
  const ledger = await maren.request.get('/api/requests?tray=all&find=FK-');
  const { rows } = (await ledger.json()) as { rows: { number: string; stage: { key: string } }[] };
  const number = rows.find(({ stage }) => stage.key === 'arrived')?.number ?? '';
  expect(number).toMatch(/^FK-\d+$/);

  await test.step('from Arrived a loan goes to one stage only, by its team, and rinsed', async () => {
    await maren.goto('/workshop/registers/field-kit-loan');
    await main.getByLabel('Name of another stage').fill('Packed');
    await main.getByRole('button', { name: 'Add this stage' }).click();
    await main.getByRole('button', { name: 'Moves from Arrived' }).click();
    await main.getByLabel('A request moves only as listed here').check();
    for (const other of ['to In progress', 'to Waiting for the requester', 'to Finished'])
      await main.getByLabel(other, { exact: true }).uncheck();
    await main.getByRole('button', { name: 'Change the move to Packed' }).click();
    await main.getByLabel('Filled in before Packed').selectOption({ label: 'Rinsed' });
    await expect(main.getByText('by the people who work on it, when “Rinsed” is filled in')).toBeVisible();
    // What is looked at stands still by then.
    await expect(main.getByText('Saved', { exact: true })).toBeVisible();
    expect(await seriousTrouble(maren)).toEqual([]);
    // Kept as one goes, and not in force: the ledger knows nothing of it yet.
    await maren.reload();
    await expect(main.getByText('Not in force yet: nothing has changed for its requests.')).toBeVisible();
    await expect(main.getByLabel('Packed, for staff')).toHaveValue('Packed');
    const sheet = await (await maren.request.get(`/api/requests/${number}`)).json();
    expect(JSON.stringify(sheet)).not.toContain('Packed');
    await main.getByLabel('Note').fill('Nothing goes out unrinsed');
    await main.getByRole('button', { name: 'Put in force' }).click();
    await expect(maren.getByText('In force now.')).toBeVisible();
    await expect(main.getByText('Nothing goes out unrinsed')).toBeVisible();
  });

  await test.step('the sheet says what is missing, and lets it go on when it is there', async () => {
    await maren.goto(`/floor/all/${number}`);
    const sheet = maren.getByRole('article');
    await expect(sheet.getByText('Not yet to “Packed”: First fill in “Rinsed”.')).toBeVisible();
    await expect(sheet.getByRole('button', { name: 'Start work' })).toHaveCount(0);
    await expect(sheet.getByRole('button', { name: 'Move on without approval …' })).toBeVisible();
    expect(await seriousTrouble(maren)).toEqual([]);
    await sheet.getByRole('button', { name: 'Change Rinsed' }).click();
    await sheet.getByLabel('Yes').click();
    await sheet.getByRole('button', { name: 'Save', exact: true }).click();
    await sheet.getByRole('button', { name: 'Start work', exact: true }).click();
    await expect(sheet.getByText('Arrived → Packed')).toBeVisible();
  });

  await test.step('going back, a loan goes anywhere again', async () => {
    await maren.goto('/workshop/registers/field-kit-loan');
    await main.getByRole('listitem').filter({ hasText: 'State' }).nth(1).getByRole('button').click();
    await expect(maren.getByText(/are as in state \d+ again/)).toBeVisible();
    await expect(main.getByRole('button', { name: 'Moves from Arrived' })).toHaveText('to any stage');
  });
});
