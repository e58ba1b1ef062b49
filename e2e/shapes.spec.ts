import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { sheetIn } from '@tolvek/core/sheets';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

/** Lifts what is called so by the keyboard, and waits until it is known where it may go. */
async function lifts(page: Page, called: RegExp): Promise<void> {
  await page.getByRole('link', { name: called }).first().focus();
  await page.keyboard.press('Space');
  // Where it can’t go is hatched as soon as its sheet has said so.
  await expect(page.locator('.hatched').first()).toBeVisible();
}

test('trips are looked at as a board and a calendar, and moved by keyboard and by mouse as their sheets let them', async ({
  browser,
}) => {
  const bram = await pageOf(browser, 'Bram Solheim', { width: 1440, height: 1000 });
  await bram.goto('/floor');
  await bram.getByRole('link', { name: 'Trips ahead' }).click();
  const ways = bram.getByRole('navigation', { name: 'Ways to look at it' });
  await expect(ways.getByRole('button')).toHaveText([
    ...['Calendar of Leaves', 'Board by Stage', 'Table', 'Sum of Hours by Vessel', 'Totals by Leaves'],
  ]);
  const week = bram.getByRole('region', { name: '23 Nov to 29 Nov 2026' });
  await expect(week.getByRole('link').first()).toBeVisible();
  expect(await seriousTrouble(bram)).toEqual([]);
  expect(await spilling(bram)).toEqual([]);

  // The board: what its sheet lets go on may be put there, and the rest says so.
  await ways.getByRole('button', { name: 'Board by Stage' }).click();
  const board = bram.getByRole('region', { name: 'Board by Stage' });
  await expect(board.getByRole('heading', { name: /^In progress/ })).toBeVisible();
  expect(await seriousTrouble(bram)).toEqual([]);
  await lifts(bram, /^Skiff, open boat/);
  await bram.keyboard.press('ArrowRight');
  await expect(bram.getByRole('status')).toContainText('It can’t go here');
  await expect(board.getByText('It can’t go here')).toBeVisible();
  await bram.keyboard.press('ArrowRight');
  await expect(bram.getByRole('status')).toContainText('In progress, Skiff');
  await bram.keyboard.press('Space');
  await expect(bram.getByText(/^VT-\d+ is moved: In progress\.$/)).toBeVisible();
  await expect(board.getByRole('heading', { name: /^Arrived/ })).toContainText('0');

  // Put back with Escape, nothing is moved; Enter opens the sheet.
  await lifts(bram, /^Skiff, open boat/);
  await bram.keyboard.press('ArrowRight');
  await bram.keyboard.press('Escape');
  await expect(board.getByRole('heading', { name: /^In progress/ })).toContainText('2');
  await bram.getByRole('link', { name: /^Skiff, open boat/ }).focus();
  await bram.keyboard.press('Enter');
  await expect(bram.getByRole('article').getByText('In progress').first()).toBeVisible();
  await bram.goBack();

  // In the calendar a trip goes to another day with the mouse, and keeps its time.
  await ways.getByRole('button', { name: 'Calendar of Leaves' }).click();
  const bar = week.getByRole('link', { name: /Skiff, open boat/ });
  await expect(bar).toContainText('09:00');
  const from = await bar.boundingBox();
  const friday = await week.getByRole('heading', { name: 'Fri 27' }).boundingBox();
  if (!from || !friday) throw new Error('Nothing is there.');
  await bram.mouse.move(from.x + 40, from.y + from.height / 2);
  await bram.mouse.down();
  await bram.mouse.move(from.x + 60, from.y + from.height / 2, { steps: 4 });
  await bram.mouse.move(friday.x + friday.width / 2, from.y + from.height / 2, { steps: 8 });
  await expect(bram.getByRole('status')).toContainText('Fri 27 November 2026');
  await bram.mouse.up();
  await expect(bram.getByText(/^VT-\d+ is moved to Fri 27 November 2026\.$/)).toBeVisible();
  await expect.poll(async () => Math.abs(((await bar.boundingBox())?.x ?? 0) - friday.x)).toBeLessThan(8);
  await expect(week.getByRole('link', { name: /Skiff, open boat/ })).toContainText('09:00');

  // A month, and back to this week; the address keeps where one is.
  await bram.getByRole('button', { name: 'Month', exact: true }).click();
  await expect(bram.getByRole('region', { name: /Nov 2026|Dec 2026/ })).toHaveCount(6);
  await bram.getByRole('button', { name: 'Later' }).click();
  await expect(bram.getByText('December 2026', { exact: true })).toBeVisible();
  await bram.reload();
  await expect(bram.getByText('December 2026', { exact: true })).toBeVisible();
  expect(await seriousTrouble(bram)).toEqual([]);
  await bram.getByRole('button', { name: 'Today' }).click();
  await bram.getByRole('button', { name: 'Week', exact: true }).click();
  await expect(week).toBeVisible();

  // A chart, and the rows behind a figure of it.
  await ways.getByRole('button', { name: 'Sum of Hours by Vessel' }).click();
  const figures = bram.getByRole('table', { name: 'Sum of Hours' });
  await expect(figures.getByRole('row', { name: /^Skiff, open boat/ })).toContainText('2.0 h');
  await expect(bram.locator('canvas')).toBeVisible();
  expect(await seriousTrouble(bram)).toEqual([]);
  await figures.getByRole('button', { name: '2.0 h: Skiff, open boat, In the bay. Show the rows' }).click();
  const rows = bram.getByRole('grid', { name: 'Rows of the view' });
  await expect(rows.getByRole('link', { name: /^Skiff, open boat/ })).toBeVisible();
  await expect(rows.getByRole('link')).toHaveCount(1);
  await bram.getByRole('button', { name: 'Undo the changes' }).click();

  // One more way to look: by area, changed to have lanes, and kept.
  await bram.getByRole('button', { name: /^Another way to look/ }).click();
  await bram.getByRole('button', { name: 'Board by Area' }).click();
  await bram.keyboard.press('Escape');
  await bram.getByRole('button', { name: /^Board by Area: Change/ }).click();
  await bram.getByLabel('Lanes by').selectOption({ label: 'Handler' });
  expect(await seriousTrouble(bram)).toEqual([]);
  await bram.getByRole('button', { name: 'Open the view with this' }).click();
  await bram.keyboard.press('Escape');
  await expect(ways.getByRole('button').first()).toHaveText('Board by Area');
  await bram.getByRole('button', { name: 'Save the view' }).click();
  await expect(bram.getByText('The view is saved.')).toBeVisible();
  await bram.reload();
  await expect(bram.getByRole('region', { name: 'Board by Area' })).toBeVisible();
  await expect(bram.getByRole('heading', { name: /^In the bay/ })).toBeVisible();
});

test('what is seen through a view is exported, rows and dates, by whoever may', async ({ browser }) => {
  const bram = await pageOf(browser, 'Bram Solheim');
  await bram.goto('/floor');
  await bram.getByRole('link', { name: 'Who is on site' }).click();
  await expect(bram.getByRole('button', { name: /^Columns/ })).toBeVisible();
  await expect(bram.getByRole('button', { name: /^Export/ })).toHaveCount(0);

  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/floor');
  await maren.getByRole('link', { name: 'Who is on site' }).click();
  for (const [way, holds] of [
    [
      'As plain text for a spreadsheet (CSV)',
      /^\uFEFF"Request","Institute","Arrival","Departure","Escort","Stage"\r\n/,
    ],
    ['For programs (JSON)', /"arrival":"2026-/],
    ['For a calendar (iCalendar)', /DTSTART;VALUE=DATE:2026\d{4}\r\n/],
  ] as const) {
    await maren.getByRole('button', { name: /^Export/ }).click();
    const download = maren.waitForEvent('download');
    await maren.getByRole('button', { name: way }).click();
    expect(readFileSync(await (await download).path(), 'utf8')).toMatch(holds);
    expect(await seriousTrouble(maren)).toEqual([]);
    await maren.keyboard.press('Escape');
  }
  // As a spreadsheet it has days as days, and a link to the sheet of each.
  await maren.getByRole('button', { name: /^Export/ }).click();
  const coming = maren.waitForEvent('download');
  await maren.getByRole('button', { name: 'As a spreadsheet (XLSX)' }).click();
  const made = await coming;
  expect(made.suggestedFilename()).toBe('Who-is-on-site.xlsx');
  let rows: readonly (readonly string[])[] = [];
  for await (const told of sheetIn(readFileSync(await made.path()), 1_000)) if ('rows' in told) rows = told.rows;
  const [heads, ...lines] = rows;
  expect(heads).toEqual(['Request', 'Institute', 'Arrival', 'Departure', 'Escort', 'Stage', 'Open']);
  expect(lines.length).toBeGreaterThan(10);
  expect(lines.filter((line) => !/^\d{4}-\d\d-\d\d/.test(line[2] ?? ''))).toEqual([]);
  await maren.keyboard.press('Escape');
  // Of those that are selected, they alone.
  await maren.getByRole('button', { name: 'Table', exact: true }).click();
  await maren.getByRole('button', { name: 'Select several' }).click();
  const boxes = maren.getByRole('grid', { name: 'Rows of the view' }).getByRole('checkbox', { name: /^Select AC-/ });
  for (const nth of [0, 2]) await boxes.nth(nth).check();
  await maren.getByRole('button', { name: 'Export: Export 2 selected' }).click();
  const download = maren.waitForEvent('download');
  await maren.getByRole('button', { name: 'As plain text for a spreadsheet (CSV)' }).click();
  expect(
    readFileSync(await (await download).path(), 'utf8')
      .trimEnd()
      .split('\r\n'),
  ).toHaveLength(3);
});

test('a matrix tells who is the only one and where too few are, opens what stands in a cell, and changes with it', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  await maren.goto('/floor');
  await maren.getByRole('link', { name: 'Who can do what' }).click();
  const matrix = maren.getByRole('table', { name: 'Person down, Skill across' });
  const foot = matrix.getByRole('row', { name: /^At 3 or more/ });
  await expect(foot.getByRole('cell').first()).toHaveText('2 of 2');
  await expect(foot).toContainText('0 of 2: too few');
  expect(await seriousTrouble(maren)).toEqual([]);
  expect(await spilling(maren)).toEqual([]);
  // What is two years old says since when; who is the only one is told beside the cell.
  await expect(matrix.getByText(/since \d+ \w+ 2023/).first()).toBeVisible();
  const cell = matrix.getByRole('link', { name: /^Yusuf Marchetti, Winch and crane: 2/ });
  await expect(matrix.getByRole('link', { name: /^Bram Solheim, Winch and crane: 4.*the only one$/ })).toBeVisible();
  await cell.click();
  const sheet = maren.getByRole('article');
  await sheet.getByRole('button', { name: 'Change Level' }).click();
  await sheet.getByLabel('Level').fill('3');
  await sheet.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(matrix.getByRole('link', { name: /^Yusuf Marchetti, Winch and crane: 3/ })).toBeVisible();
  await expect(foot.getByRole('cell').nth(1)).toHaveText('2 of 2');
  await expect(matrix.getByRole('link', { name: /^Bram Solheim, Winch and crane: 4.*the only one$/ })).toHaveCount(0);

  // Three are wanted now: seen at once, saved only where one wants to.
  await maren.getByRole('button', { name: /^Person by Skill: Change/ }).click();
  await maren.getByLabel('How many').fill('3');
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.keyboard.press('Escape');
  await expect(foot.getByRole('cell').first()).toHaveText('2 of 3: too few');
  await expect(maren.getByText('Not saved yet')).toBeVisible();
});

test('things are looked at by their pictures, and added up week by week with a rate and a share, down to the rows', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1280, height: 900 });
  await maren.goto('/floor');
  await maren.getByRole('link', { name: 'Kit there is' }).click();
  const lot = maren.getByRole('region', { name: 'Only with an induction' });
  const camera = lot.getByRole('link', { name: /^Underwater camera/ });
  await expect(camera).toContainText('handle with care');
  // A picture is there when it has a size of its own, made small.
  const width = () => camera.getByRole('presentation').evaluate((image) => (image as HTMLImageElement).naturalWidth);
  await expect.poll(width).toBeGreaterThan(100);
  await expect(maren.getByRole('link', { name: /^Nothing in “Photo”.*Quadrat set/ })).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  expect(await spilling(maren)).toEqual([]);
  await camera.focus();
  await maren.keyboard.press('Enter');
  await expect(maren.getByRole('article').getByText('UC-03').first()).toBeVisible();

  const bram = await pageOf(browser, 'Bram Solheim', { width: 1280, height: 900 });
  await bram.goto('/floor');
  await bram.getByRole('link', { name: 'Trips ahead' }).click();
  await bram.getByRole('button', { name: 'Totals by Leaves' }).click();
  const totals = bram.getByRole('table', { name: 'Totals by Leaves' });
  const all = totals.getByRole('row', { name: /^All rows/ });
  await expect(all.getByRole('button')).toBeVisible();
  await expect(totals.getByRole('columnheader')).toHaveText([
    ...['Leaves', 'Number', 'Sum of Hours', 'Sum of Cost', 'Cost for each of Hours', 'in open sea'],
  ]);
  expect(await seriousTrouble(bram)).toEqual([]);
  expect(await spilling(bram)).toEqual([]);
  // By boat now, with another share, called by its own name; the page says what is missing until it is there.
  await bram.getByRole('button', { name: /^Totals by Leaves: Change/ }).click();
  await bram.getByLabel('And within it, by').selectOption({ label: 'nothing' });
  await bram.getByLabel('For each', { exact: true }).selectOption({ label: 'Vessel' });
  await bram.getByRole('button', { name: 'Add a total …' }).click();
  await bram.getByLabel('Total 6', { exact: true }).selectOption({ label: 'a share' });
  await expect(bram.getByText('A share has no name. Enter what its column is called.')).toBeVisible();
  await bram.getByLabel('called').last().fill('of all kinds');
  expect(await seriousTrouble(bram)).toEqual([]);
  await bram.keyboard.press('Escape');
  const byBoat = bram.getByRole('table', { name: 'Totals by Vessel' });
  await expect(byBoat.getByRole('columnheader', { name: 'of all kinds' })).toBeVisible();
  const saithe = byBoat.getByRole('row', { name: /^Saithe, workboat/ }).getByRole('button');
  const count = Number(await saithe.textContent());
  expect(count).toBeGreaterThan(0);
  await saithe.click();
  await expect(bram.getByRole('grid', { name: 'Rows of the view' }).getByRole('link')).toHaveCount(count);
});
