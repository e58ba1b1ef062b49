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
  const table = maren.getByRole('grid', { name: 'Rows of the view' });
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
  await bram.getByRole('grid', { name: 'Rows of the view' }).getByRole('link').first().click();
  await expect(bram.getByRole('complementary', { name: 'Request sheet' })).toBeVisible();
  expect(await spilling(bram)).toEqual([]);
  expect(await seriousTrouble(bram)).toEqual([]);
  // J and K go on and back in the order of the view.
  const here = bram.getByRole('grid', { name: 'Rows of the view' }).locator('tr[aria-current]');
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

test('a handler works ten requests in a table by keyboard alone', async ({ browser }) => {
  const ilse = await pageOf(browser, 'Ilse Brandvold', { width: 1280, height: 800 });
  await ilse.goto('/floor');
  await ilse.getByRole('link', { name: 'Who is on site' }).click();
  await ilse.getByRole('button', { name: 'Table', exact: true }).click();
  const table = ilse.getByRole('grid', { name: 'Rows of the view' });
  await expect(table.getByRole('row').nth(12)).toBeVisible();
  const names = table.getByRole('columnheader');
  await expect(names.nth(4)).toContainText('Escort');

  // One cell of the table takes the keyboard; the last row is gone to and back, though it was not on the page.
  await table.locator('td[tabindex="0"]').focus();
  const focused = ilse.locator('td:focus');
  await ilse.keyboard.press('Control+End');
  await expect(focused).toHaveCount(1);
  await ilse.keyboard.press('Control+Home');
  await expect(focused).toHaveCount(1);

  // What may be changed is changed where it stands, from one row to the next.
  for (let step = 0; step < 4; step += 1) await ilse.keyboard.press('ArrowRight');
  let done = 0;
  for (let row = 0; row < 40 && done < 10; row += 1) {
    const number = await focused.evaluate((cell) => cell.closest('tr')?.getAttribute('data-number') ?? '');
    await ilse.keyboard.type(`E${row}`);
    const editor = ilse.getByRole('dialog', { name: `Escort of ${number}` });
    const input = editor.getByRole('textbox');
    await expect(input.or(editor.getByRole('button', { name: 'Close' }))).toBeFocused();
    if (await input.isVisible()) {
      await expect(input).toHaveValue(`E${row}`);
      await ilse.keyboard.press('Enter');
      await expect(editor).toHaveCount(0);
      await expect(table.locator(`tr[data-number="${number}"] td`).nth(4)).toHaveText(`E${row}`);
      done += 1;
    } else await ilse.keyboard.press('Enter');
    await expect(focused).toHaveCount(1);
    await ilse.keyboard.press('ArrowDown');
  }
  expect(done).toBe(10);
  expect(await seriousTrouble(ilse)).toEqual([]);

  // A stage is chosen among those its sheet offers; what can’t be done says why.
  await ilse.keyboard.press('Control+Home');
  for (let step = 0; step < 5; step += 1) await ilse.keyboard.press('ArrowRight');
  await ilse.keyboard.press('Enter');
  const stage = ilse.getByRole('dialog', { name: /^Stage of AC-/ });
  await expect(stage.getByRole('combobox').or(stage.getByRole('button', { name: 'Close' }))).toBeFocused();
  expect(await seriousTrouble(ilse)).toEqual([]);
  await ilse.keyboard.press('Escape');
  await expect(stage).toHaveCount(0);

  // A column is made wider by keyboard, which the view can keep; Enter in the first opens the sheet.
  const edge = ilse.getByRole('separator', { name: 'Width of Escort' });
  const before = Number(await edge.getAttribute('aria-valuenow'));
  await edge.focus();
  await ilse.keyboard.press('ArrowRight');
  await expect(edge).toHaveAttribute('aria-valuenow', String(before + 16));
  await expect(ilse.getByText('Not saved yet')).toBeVisible();
  await table.locator('td[tabindex="0"]').focus();
  await ilse.keyboard.press('Home');
  await ilse.keyboard.press('Enter');
  await expect(ilse.getByRole('complementary', { name: 'Request sheet' })).toBeVisible();
  expect(await spilling(ilse)).toEqual([]);
});

test('several rows of a view are chosen and moved at once, as their sheets would', async ({ browser }) => {
  const ilse = await pageOf(browser, 'Ilse Brandvold', { width: 1280, height: 800 });
  await ilse.goto('/floor');
  await ilse.getByRole('link', { name: 'Who is on site' }).click();
  await ilse.getByRole('button', { name: 'Table', exact: true }).click();
  await ilse.getByRole('button', { name: 'Select several' }).click();
  const table = ilse.getByRole('grid', { name: 'Rows of the view' });
  const boxes = table.getByRole('checkbox', { name: /^Select AC-/ });
  for (const nth of [0, 1, 2]) await boxes.nth(nth).check();
  await expect(ilse.getByText('3 requests selected')).toBeVisible();
  expect(await seriousTrouble(ilse)).toEqual([]);
  // All of them are written to at once; what was typed stays while one looks elsewhere.
  const dialog = ilse.getByRole('dialog');
  await ilse.getByRole('button', { name: 'Write …' }).click();
  await dialog.getByLabel('What is written').fill('The pier is shut on Friday.');
  await expect(dialog.getByRole('button', { name: /^Send \d messages?$/ })).toBeEnabled();
  expect(await seriousTrouble(ilse)).toEqual([]);
  await ilse.keyboard.press('Escape');
  await ilse.getByRole('button', { name: 'Write …' }).click();
  await expect(dialog.getByLabel('What is written')).toHaveValue('The pier is shut on Friday.');
  await dialog.getByRole('button', { name: /^Send \d messages?$/ }).click();
  await expect(ilse.getByText(/^Written about \d requests?$/)).toBeVisible();
  await ilse.keyboard.press('Escape');
  for (const nth of [0, 1, 2]) await boxes.nth(nth).check();
  await ilse.getByRole('button', { name: 'Move to …' }).click();
  await dialog.getByRole('radio').first().check();
  expect(await seriousTrouble(ilse)).toEqual([]);
  await dialog.getByRole('button', { name: /^Move \d requests? now$/ }).click();
  await expect(ilse.getByText(/^\d requests? moved$/)).toBeVisible();
  await ilse.keyboard.press('Escape');
  // Enter that comes before the field is there saves what was typed.
  await ilse.getByRole('button', { name: 'Done selecting' }).click();
  await table.locator('td[tabindex="0"]').focus();
  await ilse.keyboard.press('Control+Home');
  for (let step = 0; step < 4; step += 1) await ilse.keyboard.press('ArrowRight');
  await ilse.keyboard.press('Z');
  await ilse.keyboard.press('Enter');
  await expect(table.locator('td', { hasText: /^Z$/ })).toHaveCount(1);
  await expect(ilse.getByRole('dialog')).toHaveCount(0);
});

test('a block is pasted into a table, what is wrong is said and left, and all of it is undone at once', async ({
  browser,
}) => {
  const ilse = await pageOf(browser, 'Ilse Brandvold', { width: 1280, height: 800 });
  await ilse.context().grantPermissions(['clipboard-read', 'clipboard-write']);
  await ilse.goto('/floor');
  await ilse.getByRole('link', { name: 'New view' }).click();
  await part(ilse, 'What is looked at').click();
  await ilse
    .getByRole('checkbox', { name: 'Come on site', exact: true })
    .or(ilse.getByRole('checkbox', { name: 'Site access', exact: true }))
    .check();
  await done(ilse);
  await part(ilse, 'Columns').click();
  for (const each of ['Escort', 'Departure']) await ilse.getByRole('button', { name: `Show ${each}` }).click();
  for (const each of ['Escort', 'Departure'])
    for (let step = 0; step < 3; step += 1)
      await ilse.getByRole('button', { name: `Move ${each} to the left` }).click();
  await done(ilse);
  const table = ilse.getByRole('grid', { name: 'Rows of the view' });
  await expect(table.getByRole('columnheader').nth(1)).toContainText('Escort');
  await expect(table.getByRole('columnheader').nth(2)).toContainText('Departure');
  const cells = (row: number) => table.locator('tr[data-number]').nth(row).locator('td');
  const before: (readonly string[])[] = [];
  for (let row = 0; row < 3; row += 1)
    before.push([(await cells(row).nth(1).textContent()) ?? '', (await cells(row).nth(2).textContent()) ?? '']);

  // Three rows from a spreadsheet, a day of which there is none among them.
  const paste = async (text: string): Promise<void> => {
    await ilse.evaluate((put) => navigator.clipboard.writeText(put), text);
    await ilse.keyboard.press('Control+v');
  };
  await cells(0).nth(1).click();
  await paste('Ivo Lund\t2028-01-09\nAda Berg\t2028-13-40\nUna Holm\t2028-01-11\n');
  const dialog = ilse.getByRole('dialog', { name: 'Change 6 cells of 3 requests' });
  await expect(dialog.getByText('5 cells become different.')).toBeVisible();
  await expect(dialog.getByText('1 can’t be changed so and stays as it is:')).toBeVisible();
  await expect(dialog.getByRole('listitem')).toContainText('Departure');
  expect(await seriousTrouble(ilse)).toEqual([]);
  await dialog.getByRole('button', { name: 'Change 5 cells' }).click();
  await expect(ilse.getByText('5 cells are changed.')).toBeVisible();
  await expect(cells(0).nth(1)).toHaveText('Ivo Lund');
  await expect(cells(1).nth(1)).toHaveText('Ada Berg');
  await expect(cells(1).nth(2)).toHaveText(before[1]?.[1] ?? '');
  await expect(cells(1).nth(2)).toHaveAttribute('title', /2028-13-40/);
  await expect(cells(2).nth(2)).toContainText('11 January 2028');

  // It was a mistake: one press, and all three are as they were.
  await ilse.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(ilse.getByText('3 requests are as they were before.')).toBeVisible();
  for (const [row, [escort = '', departure = '']] of before.entries()) {
    await expect(cells(row).nth(1)).toHaveText(escort);
    await expect(cells(row).nth(2)).toHaveText(departure);
  }

  // One cell is filled down over those that are reached with Shift.
  await cells(0).nth(1).click();
  await ilse.keyboard.type('Nils');
  await expect(ilse.getByRole('dialog', { name: /^Escort of/ }).getByRole('textbox')).toBeFocused();
  await ilse.keyboard.press('Enter');
  await expect(cells(0).nth(1)).toHaveText('Nils');
  await expect(ilse.locator('td:focus')).toHaveCount(1);
  for (let step = 0; step < 2; step += 1) await ilse.keyboard.press('Shift+ArrowDown');
  await ilse.keyboard.press('Control+d');
  await ilse.getByRole('button', { name: 'Change 2 cells' }).click();
  for (let row = 0; row < 3; row += 1) await expect(cells(row).nth(1)).toHaveText('Nils');
  expect(await seriousTrouble(ilse)).toEqual([]);
});
