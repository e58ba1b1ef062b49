import { expect, type Page } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

const part = (page: Page, label: string) => page.getByRole('button', { name: new RegExp(`^${label}`) });
const done = (page: Page): Promise<void> => page.keyboard.press('Escape');

test('a view is made from nothing, read as a sentence, shared with the team, opened and made one’s own', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1280, height: 800 });
  await maren.goto('/floor');
  await maren.getByRole('link', { name: 'New view' }).click();
  await expect(maren.getByText('Choose what to look at first.')).toBeVisible();
  await part(maren, 'What is looked at').click();
  await maren.getByRole('checkbox', { name: 'Vessel time', exact: true }).check();
  await done(maren);
  const table = maren.getByRole('table', { name: 'Rows of the view' });
  await expect(table.getByRole('row').nth(1)).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);

  // Only what is not finished; State of work is one of the facts that can be asked for.
  await part(maren, 'Which ones').click();
  await maren.getByRole('radio', { name: 'Only those that meet a condition' }).check();
  await maren.getByRole('button', { name: 'Show as text' }).click();
  const text = maren.getByRole('textbox', { name: 'Condition' });
  await text.click();
  await maren.keyboard.press('Control+A');
  await maren.keyboard.insertText('request.phase != "finished"');
  await done(maren);
  await expect(part(maren, 'Which ones')).toHaveText('where State of work is not finished');

  await part(maren, 'Group by').click();
  await maren.getByLabel('Group by', { exact: true }).selectOption({ label: 'Vessel' });
  await done(maren);
  await expect(table.getByRole('rowheader').first()).toContainText(/row/);
  await part(maren, 'Sort by').click();
  await maren.getByRole('button', { name: 'Sort by one more' }).click();
  await maren.getByLabel('Sort by', { exact: true }).selectOption({ label: 'Leaves' });
  await done(maren);
  await expect(part(maren, 'Sort by')).toHaveText('Leaves earliest first');
  await part(maren, 'Columns').click();
  await maren.getByRole('button', { name: 'Show Leaves' }).click();
  await maren.getByRole('button', { name: 'Show Cost' }).click();
  await maren.getByRole('button', { name: 'Move Cost to the left' }).click();
  expect(await seriousTrouble(maren)).toEqual([]);
  await done(maren);
  await expect(table.getByRole('columnheader')).toHaveText([
    ...['Request', 'Stage', 'Handler', 'Due', /^Cost/, 'Leaves'],
  ]);
  expect(await spilling(maren)).toEqual([]);

  // Without a name it is refused, and nothing is lost.
  await maren.getByRole('button', { name: 'Save the view' }).click();
  await expect(maren.getByText('The view has no name. Enter a name.')).toBeVisible();
  await maren.getByRole('textbox', { name: 'Name of the view' }).fill('Boats that wait');
  await part(maren, 'Who finds it').click();
  await maren.getByRole('radio', { name: 'Some people and groups' }).check();
  await maren.getByLabel('Person or group').fill('Boats');
  await maren
    .getByRole('option', { name: /^Boats/ })
    .first()
    .click();
  await done(maren);
  await maren.getByRole('button', { name: 'Save the view' }).click();
  await expect(maren.getByRole('navigation').getByRole('link', { name: 'Boats that wait' })).toBeVisible();
  await expect(maren.getByText('Not saved yet')).toHaveCount(0);

  // Somebody of the team finds it, opens what they read by it, and makes it theirs.
  const bram = await pageOf(browser, 'Bram Solheim', { width: 1024, height: 800 });
  await bram.goto('/floor');
  await bram.getByRole('link', { name: 'Boats that wait' }).click();
  await expect(bram.getByText('from Maren Okafor')).toBeVisible();
  await expect(bram.getByRole('button', { name: 'Remove the view' })).toHaveCount(0);
  await bram.getByRole('table', { name: 'Rows of the view' }).getByRole('link').first().click();
  await expect(bram.getByRole('complementary', { name: 'Request sheet' })).toBeVisible();
  expect(await spilling(bram)).toEqual([]);
  expect(await seriousTrouble(bram)).toEqual([]);
  // J and K go on and back in the order of the view.
  const here = bram.getByRole('table', { name: 'Rows of the view' }).locator('tr[aria-current]');
  const opened = await here.textContent();
  await bram.keyboard.press('j');
  await expect(here).not.toHaveText(opened ?? '');
  await bram.keyboard.press('k');
  await expect(here).toHaveText(opened ?? '');
  await bram.getByRole('link', { name: 'Close' }).click();
  await part(bram, 'Group by').click();
  await bram.getByLabel('Group by', { exact: true }).selectOption({ label: 'Stage' });
  await done(bram);
  await expect(bram.getByRole('button', { name: 'Save the view' })).toHaveCount(0);
  await bram.getByRole('button', { name: 'Save as my own' }).click();
  await expect(bram.getByRole('navigation').getByRole('link', { name: 'Boats that wait' })).toHaveCount(2);

  // Taken away it is put back with one press.
  await bram.getByRole('button', { name: 'Remove the view' }).click();
  await expect(bram.getByRole('navigation').getByRole('link', { name: 'Boats that wait' })).toHaveCount(1);
  await bram.getByRole('button', { name: 'Put it back' }).click();
  await expect(bram.getByRole('navigation').getByRole('link', { name: 'Boats that wait' })).toHaveCount(2);
});
