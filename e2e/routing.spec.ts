import { expect } from '@playwright/test';
import { asksForAnalysis, pageOf, release, seriousTrouble, spilling, test } from './people.ts';

test('a row sets its priority by a formula and leaves the rest to later rows; several requests are given on at once', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  await maren.goto('/workshop/sample-analysis/routing');
  const main = maren.getByRole('main');
  await main.getByLabel('Rows together').selectOption({ label: 'Each setting comes from the first row that has it' });
  await main.getByRole('button', { name: 'Add a row' }).click();
  await main.getByRole('button', { name: /^Row 2, more settings/ }).click();
  const details = maren.getByRole('dialog');
  for (const what of ['Team', 'Working days', 'Approval', 'Handler', 'Stage'])
    await details.getByLabel(`${what}, from where`).selectOption({ label: 'By a later row' });
  await details.getByLabel('Priority, from where').selectOption({ label: 'By a formula' });
  const formula = details.getByRole('textbox', { name: 'Formula for “Priority”' });
  await formula.click();
  await maren.keyboard.press('ControlOrMeta+a');
  await maren.keyboard.insertText('if Frozen then "high" else "low"');
  await expect(details.getByText('Possible results: "high", "normal" or "low".')).toBeVisible();
  await details.getByLabel('Row 2: add followers').selectOption({ label: 'Desk leads' });
  expect(await seriousTrouble(maren)).toEqual([]);
  await details.getByRole('button', { name: 'Close' }).click();
  await expect(main.getByRole('button', { name: 'Row 2, team: by a later row' })).toBeVisible();
  await expect(main.getByText('followed by Desk leads')).toBeVisible();
  expect(await spilling(maren)).toEqual([]);
  // What becomes otherwise is told before it is in force.
  await release(maren, (dialog) => expect(dialog.getByText(/row 2 is new/)).toBeAttached());

  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const numbers = [await asksForAnalysis(priya), await asksForAnalysis(priya)];
  const [number = ''] = numbers;
  await maren.goto(`/floor/all/${number}`);
  const sheet = maren.getByRole('article');
  await sheet.getByRole('button', { name: 'Why: Rows 2 and 3 were used' }).click();
  await expect(maren.getByText('Row 2: used for Priority.')).toBeVisible();
  await expect(maren.getByText('Priority is computed from Frozen: no.')).toBeVisible();
  await maren.keyboard.press('Escape');

  // Both go to another team at once: what becomes of them is said before.
  await maren.goto('/floor/arrived?find=Priya');
  await maren.getByRole('button', { name: 'Select several' }).click();
  for (const each of numbers) await maren.getByRole('checkbox', { name: `Select ${each}` }).check();
  await expect(maren.getByText('2 requests selected')).toBeVisible();
  await maren.getByRole('button', { name: 'Change team, handler or priority …' }).click();
  const giving = maren.getByRole('dialog');
  await expect(giving.getByText('Choose what changes.')).toBeVisible();
  await giving.getByLabel('Team').selectOption({ label: 'Stores' });
  await giving.getByLabel('Priority').selectOption({ label: 'normal' });
  await expect(giving.getByText('2 requests go to the team.')).toBeVisible();
  await expect(giving.getByText('2 requests get the priority.')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await Promise.all([
    expect(maren.getByText('2 requests are changed')).toBeVisible(),
    giving.getByRole('button', { name: 'Change 2 requests' }).click(),
  ]);
  for (const each of numbers) await expect(maren.getByRole('row', { name: new RegExp(each) })).toContainText('Stores');
  await expect(maren.getByText('0 requests selected')).toBeVisible();
});

test('who can do what is a table: how many are good enough, and what was checked too long ago', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/groundwork/skills');
  const main = maren.getByRole('main');
  await expect(main.getByRole('row', { name: /Bram Solheim/ })).toContainText('5');
  const counts = main.getByRole('row', { name: /^Level/ });
  await main.getByLabel('Count people from level').fill('4');
  await main.getByLabel('checked in the last').fill('');
  await expect(counts).toContainText('only Bram Solheim');
  expect(await spilling(maren)).toEqual([]);
  expect(await seriousTrouble(maren)).toEqual([]);
  // A row asks for one of them: where nobody is good enough, that is said before a release.
  await maren.goto('/workshop/sample-analysis/routing');
  await main.getByRole('button', { name: /^The last row, handler/ }).click();
  const ways = maren.getByRole('dialog');
  await ways.getByLabel('Add a way').selectOption({ label: 'who has a skill' });
  await ways.getByLabel('Skill', { exact: true }).selectOption({ label: 'Sampling at sea' });
  const nobody = main.getByText(/Nobody in the team of this row has the skill at this level today/);
  await ways.getByLabel('Level at least').fill('5');
  await expect(nobody).toBeAttached();
  await ways.getByLabel('Level at least').fill('3');
  await expect(nobody).toHaveCount(0);
  await ways.getByRole('button', { name: /^Do not try “Sampling at sea/ }).click();
  await expect(main.getByRole('button', { name: /^The last row, handler/ })).not.toContainText('Sampling');
});
