import { expect } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

test('a roster is made, its gaps are seen before it counts, and a duty passes from one to the other on a phone', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1280, height: 900 });
  await maren.goto('/workshop/groundwork/rosters');
  const main = maren.getByRole('main');
  await expect(main.getByRole('region', { name: 'The next 6 weeks' })).toContainText(/Signe Halvard/);
  expect(await seriousTrouble(maren)).toEqual([]);
  expect(await spilling(maren)).toEqual([]);

  await main.getByRole('link', { name: 'Add a roster' }).click();
  // Until it is there, the name is that of the roster before.
  await main.getByRole('button', { name: 'Save the roster' }).waitFor();
  await main.getByLabel('Name', { exact: true }).fill('Gate');
  await expect(main.getByText('Nobody has this shift. Add somebody.')).toBeVisible();
  await main.getByLabel('Add somebody to Shift 1').selectOption({ label: 'Bram Solheim' });
  await main.getByLabel('Add somebody to Shift 1').selectOption({ label: 'Tomas Achterberg' });
  await main.getByLabel('Shift 1: start').fill('00:00');
  await main.getByLabel('Shift 1: end').fill('00:00');
  await main.getByLabel('When somebody has to be on duty').selectOption({ label: 'Always' });
  // The weekend is free still: a gap from Saturday on.
  await expect(main.getByRole('status')).toContainText(/times in the next six weeks have nobody on duty/);
  await expect(main.getByRole('region', { name: 'The next 6 weeks' })).toContainText('nobody');
  await main.getByRole('button', { name: 'Saturday' }).click();
  await main.getByRole('button', { name: 'Sunday' }).click();
  await expect(main.getByRole('status')).toHaveCount(0);
  expect(await seriousTrouble(maren)).toEqual([]);
  await main.getByRole('button', { name: 'Save the roster' }).click();
  await expect(main.getByRole('link', { name: /^Gate now Bram Solheim/ })).toBeVisible();
  await expect(main.getByText('No form asks this roster yet.')).toBeVisible();

  // What a change alters is said before it counts.
  await main.getByRole('button', { name: 'Tomas Achterberg earlier' }).click();
  const change = main.getByRole('region', { name: 'Your changes are not in force yet.' });
  await expect(change).toContainText(/Tomas Achterberg instead of Bram Solheim/);
  // It is there still when one has looked at another roster.
  await main.getByRole('link', { name: /^Boat watch/ }).click();
  await expect(main.getByText(/^Asked by “Vessel time”/)).toBeVisible();
  await expect(change).toHaveCount(0);
  await main.getByRole('link', { name: /^Gate/ }).click();
  await expect(change).toContainText(/instead of Bram Solheim/);
  await change.getByRole('button', { name: 'Undo my changes' }).click();
  await expect(change).toHaveCount(0);

  // Whoever is on duty asks somebody to take over, on a phone.
  const bram = await pageOf(browser, 'Bram Solheim', { width: 360, height: 740 });
  await bram.goto('/floor/duty');
  const gate = bram.getByRole('listitem').filter({ hasText: 'Gate' });
  await expect(gate.first()).toContainText('Bram Solheim until');
  await gate.filter({ hasText: 'Ask somebody' }).first().getByRole('button', { name: 'Ask somebody' }).click();
  await bram.getByLabel('Who', { exact: true }).selectOption({ label: 'Tomas Achterberg' });
  await bram.getByLabel('Why (if you like)').fill('School play');
  expect(await spilling(bram)).toEqual([]);
  expect(await seriousTrouble(bram)).toEqual([]);
  await bram.getByRole('button', { name: 'Ask', exact: true }).click();
  await expect(bram.getByText(/You asked Tomas Achterberg to take over/)).toBeVisible();

  const tomas = await pageOf(browser, 'Tomas Achterberg', { width: 360, height: 740 });
  await tomas.goto('/floor/duty');
  const asked = tomas.getByRole('region', { name: 'You are asked to take over' });
  await expect(asked).toContainText('Bram Solheim asks you to take over: Gate');
  await expect(asked).toContainText('School play');
  expect(await spilling(tomas)).toEqual([]);
  expect(await seriousTrouble(tomas)).toEqual([]);
  await asked.getByRole('button', { name: 'Take over' }).click();
  await expect(asked).toHaveCount(0);
  await expect(tomas.getByRole('listitem').filter({ hasText: 'Gate' }).first()).toContainText('Tomas Achterberg until');

  // The roster has it as a swap, in force at once.
  await maren.reload();
  await expect(main.getByText(/Tomas Achterberg instead of Bram Solheim School play/)).toBeVisible();
  await main.getByText('History').click();
  await expect(main.getByText(/^State 2/)).toBeVisible();

  // A row can ask whoever is on duty.
  await maren.goto('/workshop/vessel-time/routing');
  const handled = maren.getByRole('button', { name: /on duty by “Boat watch”, or who comes next/ });
  await handled.click();
  await maren.getByLabel('Roster').selectOption({ label: 'Gate' });
  await expect(maren.getByRole('button', { name: /on duty by “Gate”/ }).first()).toBeVisible();
  await maren.keyboard.press('Escape');
  await maren.getByRole('button', { name: 'Undo' }).first().click();
});
