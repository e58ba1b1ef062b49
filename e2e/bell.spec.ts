import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

test('somebody sees under the bell what they were told, and a notice goes as a text message', async ({ browser }) => {
  const bram = await pageOf(browser, 'Bram Solheim', { width: 1280, height: 900 });
  await bram.goto('/floor');
  const bell = bram.getByRole('button', { name: /^Notices to you, \d+ new$/ });
  await bell.click();
  const told = bram.getByRole('dialog', { name: 'Notices to you' });
  await expect(told.getByRole('link').first()).toBeVisible();
  expect(await seriousTrouble(bram)).toEqual([]);
  // Where it leads; and then it is seen.
  const words = await told.getByRole('link').first().innerText();
  const [, number = ''] = /\(([A-Z]+-\d+)\)/.exec(words.replace(/\s+/g, '')) ?? [];
  await told.getByRole('link').first().click();
  await expect(bram).toHaveURL(new RegExp(`/floor/all/${number}$`));
  await expect(bram.getByRole('button', { name: 'Notices to you', exact: true })).toBeVisible();

  // On a phone, by keyboard, and away again.
  const ilse = await pageOf(browser, 'Ilse Brandvold', { width: 360, height: 740 });
  await ilse.goto('/');
  await ilse.getByRole('button', { name: /^Notices to you/ }).press('Enter');
  await expect(ilse.getByRole('dialog', { name: 'Notices to you' })).toBeVisible();
  expect(await spilling(ilse)).toEqual([]);
  expect(await seriousTrouble(ilse)).toEqual([]);
  await ilse.keyboard.press('Escape');
  await expect(ilse.getByRole('dialog')).toHaveCount(0);

  // The form says how its notice goes, and the sentence of the notice says it too.
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1280, height: 900 });
  await maren.goto('/workshop/vessel-time/notices?notice=now-urgent');
  await expect(maren.getByRole('checkbox', { name: 'As a text message' })).toBeChecked();
  await maren.getByRole('checkbox', { name: 'As an email' }).click();
  await maren.getByRole('button', { name: 'Done' }).first().click();
  await expect(maren.getByText(/text message to whoever is on duty by “Boat watch”/)).toBeVisible();
  await expect(maren.getByText('Saved')).toBeVisible();
  await maren.getByRole('button', { name: 'Undo' }).click();
  await expect(maren.getByText(/email and text message to whoever is on duty/)).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
});
