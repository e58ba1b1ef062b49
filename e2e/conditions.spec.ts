import { expect, type Page } from '@playwright/test';
import { pageOf, seriousTrouble, test } from './people.ts';

/**
 * Moves on with Tab alone until the focus is on a control of this name, within the last rule when
 * there is one.
 */
async function tabTo(page: Page, name: string): Promise<void> {
  for (let step = 0; step < 120; step += 1) {
    await page.keyboard.press('Tab');
    const here = await page.evaluate(() => {
      const active = document.activeElement;
      const rules = [...document.querySelectorAll('main ol > li')];
      const rule = active?.closest('main ol > li');
      return {
        name: active?.getAttribute('aria-label') ?? active?.textContent?.trim() ?? '',
        last: !rule || rule === rules.at(-1),
      };
    });
    if (here.last && here.name === name) return;
  }
  throw new Error(`Tab never came to “${name}”.`);
}

test('a rule’s condition is built, written and tried without a mouse', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/rules');
  const { keyboard } = maren;
  await maren.getByRole('button', { name: 'Add a rule' }).focus();
  await keyboard.press('Enter');
  await expect(maren.getByLabel('Name of the rule')).toHaveCount(2);
  const rule = maren.getByRole('main').locator('ol > li').last();

  await tabTo(maren, 'Field');
  await keyboard.type('Fee');
  await tabTo(maren, 'Condition of Fee');
  await keyboard.type('is above');
  await tabTo(maren, 'Value 1 for Fee');
  await keyboard.press('Control+a');
  await keyboard.type('500');
  await expect(rule.getByText(/True for [1-9]\d* of the last \d+ requests/)).toBeVisible();
  const holds = rule.locator('p', { hasText: 'True for' }).first();
  const holding = Number(/\d+/.exec((await holds.textContent()) ?? '')?.[0]);

  await tabTo(maren, 'Show as text');
  await keyboard.press('Enter');
  const text = rule.getByRole('textbox', { name: 'Condition' });
  await expect(text).toHaveText('Fee > 500');
  await rule.getByRole('button', { name: 'Show as rows' }).waitFor();
  await text.focus();
  await keyboard.press('Control+End');
  await keyboard.type(' and Institute = "nowhere"');
  await expect(rule.getByText('is not among the options').first()).toBeVisible();
  await expect(rule.getByRole('button', { name: 'Show as rows' })).toHaveCount(0);
  expect(await seriousTrouble(maren)).toEqual([]);
  for (let press = 0; press < 8; press += 1) await keyboard.press('Backspace');
  await keyboard.type('haldane"');
  await tabTo(maren, 'Show as rows');
  await keyboard.press('Enter');
  await expect(rule.getByLabel('How conditions are joined')).toHaveValue('all');
  await expect(rule.getByLabel('Value 1 for Institute')).toHaveValue('haldane');
  await expect(holds).not.toContainText(`True for ${holding} of`);
  await expect(rule.getByText('Institute is Haldane Lifting').first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);

  await rule.getByRole('button', { name: 'Remove the rule' }).first().click();
  await expect(maren.getByLabel('Name of the rule')).toHaveCount(1);
  await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
});

test('a cell of the routing table says what it asks, and is changed in place', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/routing');
  await expect(maren.getByText('Rows 1 and 2 match some of the same requests. Row 1 is used.')).toBeVisible();
  await expect(maren.getByText('Some requests use the last row.')).toBeVisible();
  const cell = maren.getByRole('button', { name: /^Row 4, Fee:/ });
  await expect(cell).toHaveText('any value');
  await cell.focus();
  await maren.keyboard.press('Enter');
  const editor = maren.getByRole('dialog', { name: 'Row 4, Fee' });
  await editor.getByRole('button', { name: 'Add a condition' }).press('Enter');
  await editor.getByLabel('Condition of Fee').selectOption('between');
  await editor.getByLabel('Value 1 for Fee', { exact: true }).fill('100');
  await editor.getByLabel('Value 2 for Fee').fill('200');
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.keyboard.press('Escape');
  await expect(cell).toHaveText('between 100 EUR and 200 EUR');
  await expect(cell).toBeFocused();
  await maren.getByRole('button', { name: 'Try row 4 on past requests' }).click();
  await expect(maren.getByText(/True for \d+ of the last \d+ requests/)).toBeVisible();

  await cell.click();
  await editor.getByRole('button', { name: 'Accept any value' }).click();
  await maren.keyboard.press('Escape');
  await expect(cell).toHaveText('any value');
  await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
});
