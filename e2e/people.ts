import { AxeBuilder } from '@axe-core/playwright';
import type { Browser, Page } from '@playwright/test';

/** A page of somebody's own: signed in by the demo's one click, or from outside on a phone. */
export async function pageOf(browser: Browser, name: string, viewport = { width: 1280, height: 800 }): Promise<Page> {
  const context = await browser.newContext({ viewport });
  const page = await context.newPage();
  await page.goto('/sign-in');
  await page.getByRole('button', { name: new RegExp(name) }).click();
  await page.getByRole('heading', { name: 'What do you need?' }).waitFor();
  return page;
}

export async function phone(browser: Browser): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 360, height: 740 }, hasTouch: true });
  return context.newPage();
}

/** Opens the newest letter in the Mailroom that fits the words, and follows its link. */
export async function followLetter(page: Page, words: string, link: string): Promise<void> {
  await page.goto('/mailroom');
  await page.getByRole('searchbox').fill(words);
  await page.getByRole('listitem').first().getByRole('link').click();
  await page.frameLocator('iframe[title="The email"]').getByRole('link', { name: link }).click();
}

/** Whether anything on the page is wider than the screen. */
export const overflows = (page: Page): Promise<boolean> =>
  page.evaluate(() => document.documentElement.scrollWidth > document.documentElement.clientWidth);

/** What axe finds that would keep somebody out. */
export async function seriousTrouble(page: Page): Promise<readonly string[]> {
  const { violations } = await new AxeBuilder({ page })
    .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'])
    .analyze();
  return violations
    .filter((each) => each.impact === 'serious' || each.impact === 'critical')
    .map((each) => `${each.id}: ${each.nodes.map((node) => node.target.join(' ')).join('; ')}`);
}
