import { readFile } from 'node:fs/promises';
import { expect, type Locator, type Page } from '@playwright/test';
import { overflows, pageOf, seriousTrouble, test } from './people.ts';

/** Types a formula into its editor in place of what is there. */
async function write(editor: Locator, page: Page, text: string): Promise<void> {
  await editor.click();
  await page.keyboard.press('Control+a');
  await page.keyboard.type(text);
}

test('a purchase form is made from a recipe, proved as three people, mended and released; it is filled in on a phone', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const proof = maren.getByRole('complementary', { name: 'Proof' });
  const contents = maren.getByRole('navigation', { name: 'Contents' });
  const main = maren.getByRole('main');

  await test.step('the coordinator starts from a recipe', async () => {
    await maren.goto('/workshop');
    await maren.getByRole('link', { name: 'New form …' }).click();
    await maren.getByRole('radio', { name: /Something to buy/ }).check();
    await maren.getByLabel('Title').fill('Bench purchase');
    await expect(maren.getByLabel('Numbers start with')).toHaveValue('BP');
    await maren.getByLabel('Group', { exact: true }).selectOption({ label: 'Purchasing' });
    expect(await seriousTrouble(maren)).toEqual([]);
    await maren.getByRole('button', { name: 'Create the form' }).click();
    await expect(maren.getByRole('heading', { name: 'Questions' })).toBeVisible();
    await expect(proof.getByText('What should we buy?')).toBeVisible();
  });

  await test.step('sets limits, a default, a computed band with a live sample', async () => {
    await main.getByRole('button', { name: 'Lines required' }).click();
    await main.getByLabel('at most').last().fill('5');
    await expect(main.getByText(/but yes or no is needed/)).toHaveCount(0);
    await main.getByRole('button', { name: 'Lines required' }).click();

    await main.getByRole('button', { name: 'Add question' }).click();
    await main.getByRole('button', { name: 'Person: one of the staff' }).click();
    await main.getByLabel('Field', { exact: true }).fill('Responsible');
    await main.getByLabel('Default', { exact: true }).selectOption({ label: 'the requester' });

    await main.getByRole('button', { name: 'Add question' }).click();
    await main.getByRole('button', { name: 'Long text: several lines' }).click();
    await main.getByLabel('Field', { exact: true }).fill('Offers compared');

    await main.getByRole('button', { name: 'Add a computed field' }).click();
    await main.getByLabel('Field', { exact: true }).fill('Approval band');
    await main.getByLabel('Kind', { exact: true }).selectOption({ label: 'Choice' });
    await main.getByRole('textbox', { name: 'Option First option' }).fill('Desk');
    await main.getByLabel('Add an option').fill('Duty manager');
    await main.getByLabel('Add an option').press('Enter');
    await write(
      main.getByRole('textbox', { name: 'Formula of Approval band' }),
      maren,
      'if Total with VAT > 500 then "duty_manager" else "first"',
    );
    await expect(main.getByText('This gives', { exact: false })).toHaveCount(0);

    await proof.getByLabel('What', { exact: true }).fill('Fume hood filter');
    await proof.getByLabel('How many').fill('3');
    await proof.getByLabel('Price each').fill('200');
    await proof.getByLabel('VAT', { exact: true }).selectOption({ label: '23%' });
    await expect(proof.getByText('€738.00')).toBeVisible();
    await expect(main.getByText('Duty manager').last()).toBeVisible();
    await expect(proof.getByText('Duty manager')).toBeVisible();
  });

  await test.step('writes a rule with an otherwise', async () => {
    await contents.getByRole('link', { name: 'Rules' }).click();
    await main.getByRole('button', { name: 'Add a rule' }).click();
    await main.getByLabel('Name of the rule').fill('Dear things are compared');
    await main.getByLabel('Field', { exact: true }).first().selectOption({ label: 'Total with VAT' });
    await main.getByLabel('Condition of Total with VAT', { exact: true }).selectOption({ label: 'is above' });
    await main.getByLabel('Value 1 for Total with VAT').fill('1000');
    await main.getByLabel(/^Add to:/).selectOption({ label: 'Offers compared' });
    await main.getByRole('button', { name: 'Add an “otherwise” action' }).click();
    await main.getByLabel('Action', { exact: true }).last().selectOption({ label: 'warn' });
    await main.getByLabel('Text that people read').fill('Purchases up to € 1,000 need no offers.');
    await expect(proof.getByText('Purchases up to € 1,000 need no offers.')).toBeVisible();
    await expect(proof.getByRole('textbox', { name: 'Offers compared' })).toHaveCount(0);
    await proof.getByRole('button', { name: 'Why: “Offers compared” is hidden' }).click();
    await expect(maren.getByRole('dialog')).toContainText(
      'Total with VAT is above 1,000 EUR: not true (value: 738 EUR)',
    );
    await maren.keyboard.press('Escape');
    await proof.getByLabel('Price each').fill('400');
    await expect(proof.getByRole('textbox', { name: 'Offers compared' })).toBeVisible();
    await expect(proof.getByText('need no offers')).toHaveCount(0);
    expect(await seriousTrouble(maren)).toEqual([]);
  });

  await test.step('looks at it as three people', async () => {
    await expect(proof.getByLabel('Responsible')).toHaveValue('');
    for (const name of ['Priya Nakamura-Lind', 'Bram Solheim']) {
      await proof.getByLabel('Seen by').selectOption({ label: name });
      await expect(proof.getByLabel('Responsible').locator('option:checked')).toHaveText(name);
    }
  });

  await test.step('mends two findings, each in one step', async () => {
    await contents.getByRole('link', { name: 'Questions' }).click();
    await main.getByRole('button', { name: 'Add question' }).click();
    await main.getByRole('button', { name: 'Choice: one of a list', exact: true }).click();
    await main.getByLabel('Field', { exact: true }).fill('Delivered to');
    await main.getByRole('button', { name: 'retire' }).last().click();
    await contents.getByRole('link', { name: 'Rules' }).click();
    await main.getByRole('button', { name: 'Add a rule' }).click();
    const findings = maren.getByRole('region', { name: 'Findings' });
    await expect(findings.getByText('“Delivered to” has no options, so nobody can answer it.').first()).toBeVisible();
    await findings.locator('summary').click();
    // All is found before anything is pressed: what joins the list moves it.
    await expect(findings.getByRole('button', { name: 'Remove the rule' })).toBeVisible();
    await findings.getByRole('button', { name: 'Add an option' }).click();
    await findings.getByRole('button', { name: 'Remove the rule' }).click();
    // What is new is closed until it has its place.
    await findings.getByRole('button', { name: 'Open as usual' }).click();
    await expect(findings.getByText('The draft has no errors and no cautions.')).toBeVisible();
  });

  await test.step('sends a trial request that counts nowhere, clears it, and releases', async () => {
    await contents.getByRole('link', { name: 'Questions' }).click();
    await proof.getByLabel('What is it for?').fill('New filters');
    await proof.getByRole('textbox', { name: 'Offers compared' }).fill('Two shops asked.');
    await expect(proof.getByText('This request could be sent.')).toBeVisible();
    await proof.getByRole('button', { name: 'Send a trial request' }).click();
    await expect(proof.getByText('TRIAL-BP-1').first()).toBeVisible();
    await proof.getByRole('button', { name: 'Delete all trial requests' }).click();
    await expect(proof.getByText(/TRIAL-BP-1/)).toHaveCount(0);
    await maren.getByRole('button', { name: 'Release this draft …' }).click();
    await maren.getByRole('dialog').getByRole('button', { name: 'Release number 1' }).click();
    await expect(maren.getByText('Release 1 is in force')).toBeVisible();
  });

  await test.step('a requester fills it in on a phone, makes a mistake and recovers', async () => {
    const priya = await pageOf(browser, 'Priya Nakamura-Lind', { width: 360, height: 740 });
    await priya.getByRole('link', { name: 'Bench purchase' }).click();
    await priya.getByLabel('What is it for?').fill('Filters for the hood');
    await priya.getByLabel('What', { exact: true }).fill('Filter');
    await priya.getByLabel('How many').fill('two');
    await priya.getByLabel('Price each').fill('49,90');
    await priya.getByLabel('VAT', { exact: true }).selectOption({ label: '23%' });
    await priya.getByRole('button', { name: 'Add a line' }).click();
    await priya.getByLabel('What', { exact: true }).last().fill('Gasket');
    await priya.getByRole('button', { name: 'Send' }).click();
    const summary = priya.getByRole('alert');
    await expect(summary).toContainText('Line 1, How many: “two” is not a number.');
    await expect(summary).toContainText('Line 2, Price each: “Price each” has no answer yet.');
    await summary.getByRole('link', { name: /Line 1, How many/ }).click();
    await expect(priya.getByLabel('How many').first()).toBeFocused();
    await priya.keyboard.press('Control+a');
    await priya.keyboard.type('2');
    await priya.getByRole('button', { name: 'Remove line 2' }).click();
    await expect(priya.getByText('€99.80').first()).toBeVisible();
    await expect(priya.getByLabel('Responsible').locator('option:checked')).toHaveText('Priya Nakamura-Lind');
    await priya.getByLabel('Delivered to').selectOption({ label: 'First option' });
    expect(await overflows(priya)).toBe(false);
    expect(await seriousTrouble(priya)).toEqual([]);
    await priya.getByRole('button', { name: 'Send' }).click();
    await expect(priya.getByRole('heading', { name: 'Thank you. We received your request.' })).toBeVisible();
    await expect(priya.getByText('BP-00001')).toBeVisible();
  });

  await test.step('the desk reads the lines, the total and the band', async () => {
    await maren.goto('/floor/all/BP-00001');
    await expect(maren.getByText('€122.75').first()).toBeVisible();
    await expect(maren.getByText('Desk', { exact: true })).toBeVisible();
    await expect(maren.getByRole('columnheader', { name: 'Price each' })).toBeVisible();
  });
});

test('two coordinators change the same draft at once, and neither loses anything', async ({ browser }) => {
  const [maren, ada] = [await pageOf(browser, 'Maren Okafor'), await pageOf(browser, 'Ada Quillfeather')];
  for (const page of [maren, ada]) await page.goto('/workshop/sample-analysis/questions');
  await maren.getByLabel('Title').fill('Analysis of samples');
  await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
  await ada.getByLabel('Introduction').fill('The lab measures what you bring.');
  await expect(ada.getByLabel('Title')).toHaveValue('Analysis of samples');
  await expect(ada.getByText('Saved', { exact: true })).toBeVisible();

  // Both change the same: the second is asked, and everything else of both is kept.
  await maren.getByLabel('Title').fill('Samples');
  await expect(maren.getByLabel('Introduction')).toHaveValue('The lab measures what you bring.');
  await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
  await ada.getByLabel('Title').fill('Laboratory');
  await expect(
    ada.getByText('Someone else changed the same in the meantime: the title.', { exact: false }),
  ).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  await ada.getByRole('button', { name: 'Use the other version' }).click();
  await expect(ada.getByLabel('Title')).toHaveValue('Samples');
  await expect(ada.getByText('Saved', { exact: true })).toBeVisible();

  // Whoever leaves right after typing loses nothing either: for another page, or by loading it anew.
  await ada.getByLabel('Introduction').fill('What you bring is measured.');
  await ada.getByRole('link', { name: 'Floor', exact: true }).click();
  await ada.getByRole('heading', { name: 'Arrived' }).waitFor();
  await maren.reload();
  await expect(maren.getByLabel('Introduction')).toHaveValue('What you bring is measured.');
  await maren.getByLabel('Introduction').fill('We measure what you bring.');
  await maren.reload();
  await expect(maren.getByLabel('Introduction')).toHaveValue('We measure what you bring.');
});

test('a spreadsheet becomes a form, and a form goes to a file and back', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/new');
  const rows = 'Item,Needed on,How many,Fragile\nQuadrat,2026-12-01,4,no\nCorer,2026-12-03,1,yes\n';
  await maren
    .getByLabel('A spreadsheet or form file')
    .setInputFiles({ name: 'kit.csv', mimeType: 'text/csv', buffer: Buffer.from(rows) });
  await expect(maren.getByText('2 rows, 4 headings')).toBeVisible();
  await maren.getByLabel('Title').fill('Kit by list');
  await maren.getByRole('button', { name: 'Create the form' }).click();
  const proof = maren.getByRole('complementary', { name: 'Proof' });
  await expect(proof.getByLabel('Needed on')).toHaveAttribute('placeholder', 'for example 3 Dec');
  await expect(proof.getByText('Fragile')).toBeVisible();
  await maren.getByRole('link', { name: 'Doors and releases' }).click();
  const download = maren.waitForEvent('download');
  await maren.getByRole('button', { name: 'Download the form' }).click();
  const path = await (await download).path();

  await maren.goto('/workshop/new');
  await maren
    .getByLabel('A spreadsheet or form file')
    .setInputFiles({ name: 'broken.json', mimeType: 'application/json', buffer: Buffer.from('{"format":"other"}') });
  await expect(maren.getByRole('alert')).toContainText('broken.json cannot be used.');
  await maren.getByLabel('A spreadsheet or form file').setInputFiles(path);
  await expect(maren.getByText(/the form “Kit by list” with 4 fields/)).toBeVisible();
  await maren.getByLabel('Title').fill('Kit again');
  await maren.getByLabel('Numbers start with').fill('KX');
  await maren.getByRole('button', { name: 'Create the form' }).click();
  await expect(proof.getByText('Kit again')).toBeVisible();
  await expect(proof.getByLabel('How many')).toBeVisible();

  // A routing table goes to a file of the standard and back as well; what of it means nothing here is said before.
  await maren.goto('/workshop/site-access/routing');
  const saved = maren.waitForEvent('download');
  await maren.getByRole('button', { name: 'Export as a DMN file' }).click();
  const dmn = await readFile(await (await saved).path(), 'utf8');
  await maren.getByRole('button', { name: 'Import a DMN file …' }).click();
  const taken = maren.getByRole('dialog');
  await taken.getByLabel('A DMN file').setInputFiles(path);
  await expect(taken.getByRole('alert')).toContainText('not a DMN file');
  const buffer = Buffer.from(dmn.replace('"boats"', '"harbour"'));
  await taken.getByLabel('A DMN file').setInputFiles({ name: 'theirs.dmn', mimeType: 'application/xml', buffer });
  await expect(taken.getByText('Row 1, team: "harbour" means nothing here.')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await taken.getByRole('button', { name: 'Replace the table' }).click();
  const team = maren.getByLabel('Team').first();
  await expect(team).toHaveValue('estates');
  await maren.getByRole('button', { name: 'Undo', exact: true }).click();
  await expect(team).toHaveValue('boats');
});

test('a handler picks a colleague in a desk-only field', async ({ browser }) => {
  const bram = await pageOf(browser, 'Bram Solheim');
  await bram.goto('/floor/all/VT-00001');
  await bram.getByRole('button', { name: 'Change Skipper' }).click();
  await bram.getByLabel('Skipper', { exact: true }).selectOption({ label: 'Signe Halvard' });
  await bram.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(bram.locator('span', { hasText: /^Signe Halvard$/ }).first()).toBeVisible();
});
