import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

test('a program is let in by a key, told by a notice, and what it did not take is sent again', async ({ browser }) => {
  const ada = await pageOf(browser, 'Ada Quillfeather', { width: 1280, height: 900 });
  await ada.goto('/workshop/groundwork/programs');
  const main = ada.getByRole('main');
  await expect(main.getByRole('link', { name: 'Trip into the boat log' })).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  expect(await spilling(ada)).toEqual([]);

  await main.getByRole('link', { name: 'Add a program' }).click();
  await main.getByRole('button', { name: 'Create the program' }).waitFor();
  await main.getByLabel('Name', { exact: true }).fill('Gate screen');
  await main.getByRole('combobox', { name: 'Let it do something …' }).selectOption({ label: 'read their history' });
  await expect(main.getByLabel('Where: read requests')).toBeVisible();
  await main.getByLabel('Where it is told what happens').fill('http://gate.example/in');
  await main.getByRole('button', { name: 'Create the program' }).click();
  await expect(main.getByText('This is not an address that can be used.', { exact: false })).toBeVisible();
  const stand = `${new URL(ada.url()).origin}/api/stand-in/programs`;
  await main.getByLabel('Where it is told what happens').fill(`${stand}/gate-410`);
  expect(await seriousTrouble(ada)).toEqual([]);
  await main.getByRole('button', { name: 'Create the program' }).click();
  await expect(main.getByText('It has no key, so it cannot ask anything.')).toBeVisible();

  // A key is shown once, and opens what the program may read.
  await main.getByRole('button', { name: 'Add a key' }).click();
  await ada.getByLabel('Where it is used').fill('The screen itself');
  await ada.getByRole('button', { name: 'Create the key' }).click();
  const key = await ada.getByRole('textbox', { name: 'New key for a program' }).inputValue();
  await ada.getByRole('button', { name: 'I have copied it' }).click();
  const headers = { authorization: `Bearer ${key}` };
  const origin = new URL(ada.url()).origin;
  expect((await fetch(`${origin}/api/requests?tray=all`, { headers })).status).toBe(200);
  expect((await fetch(`${origin}/api/people`, { headers })).status).toBe(403);

  // It wants nothing more, and says so; somebody corrects the address and sends it again.
  await main.getByRole('button', { name: 'Send a test' }).click();
  await expect(main.getByText('not taken', { exact: true })).toBeVisible();
  await expect(main.getByText('It answered 410.', { exact: false })).toBeVisible();
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1280, height: 900 });
  await maren.goto('/floor');
  await expect(maren.getByText('Gate screen did not take 1 thing it was told.')).toBeVisible();
  await main.getByLabel('Where it is told what happens').fill(`${stand}/gate`);
  const change = main.getByRole('region', { name: 'Your changes are not in force yet.' });
  await change.getByRole('button', { name: 'Put in force' }).click();
  await expect(change).toHaveCount(0);
  await main.getByRole('button', { name: 'Send again' }).click();
  await expect(main.getByText('taken', { exact: true })).toBeVisible();
  await maren.goto('/mailroom/programs');
  await expect(maren.getByText('This is a test. Nothing happened.', { exact: false }).first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);

  // Ended, it opens nothing.
  await main.getByRole('button', { name: 'End …' }).click();
  await ada.getByRole('button', { name: 'End the key' }).click();
  await expect(main.getByText('The screen itself · ended', { exact: false })).toBeVisible();
  expect((await fetch(`${origin}/api/requests?tray=all`, { headers })).status).toBe(401);
});
