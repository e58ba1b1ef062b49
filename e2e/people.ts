import { AxeBuilder } from '@axe-core/playwright';
import { type Browser, test as base, expect, type Locator, type Page } from '@playwright/test';

/** What somebody reads on a page: where they are, what lies above it, and what stands there. */
async function readOn(page: Page): Promise<string> {
  const texts = await page.locator('[role=dialog], [role=alert], main, aside').allInnerTexts();
  return `— ${page.url()}\n${texts
    .join('\n')
    .replaceAll(/\s*\n\s*/g, '\n')
    .slice(0, 2_500)}`;
}

/**
 * A journey. Where it fails, what each of its people read at the time is said; whoever came for it goes again, so that no
 * later one shares the machine with their pages.
 */
export const test = base.extend<{ readonly tidied: undefined }>({
  tidied: [
    async ({ browser }, use, info) => {
      await use(undefined);
      const contexts = browser.contexts();
      if (info.status !== info.expectedStatus)
        for (const page of contexts.flatMap((context) => context.pages()))
          console.log(await readOn(page).catch((error: unknown) => `— ${page.url()}: ${error}`));
      await Promise.all(contexts.map((context) => context.close()));
    },
    { auto: true },
  ],
});

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

/** Somebody of the staff reports something from a phone at a door; gives its number. `before`: looked at before it is sent. */
export async function reported(
  browser: Browser,
  { door, what, before }: { door: string; what: string; before?: (page: Page) => Promise<void> },
): Promise<string> {
  const page = await phone(browser);
  await page.goto('/sign-in');
  await page.getByRole('button', { name: /Priya Nakamura-Lind/ }).click();
  await page.getByRole('heading', { name: 'What do you need?' }).waitFor();
  await page.goto(`/ask/${door}`);
  await page.getByLabel('What is it about?').selectOption({ label: 'Safety' });
  await page.getByLabel('What happened?').fill(what);
  await page.getByRole('radio', { name: 'No' }).check();
  await before?.(page);
  await page.getByRole('button', { name: 'Send' }).click();
  const told = page.getByText(/[A-Z]{2,5}-\d{5}/).first();
  await told.waitFor();
  return /[A-Z]{2,5}-\d{5}/.exec((await told.textContent()) ?? '')?.[0] ?? '';
}

/** Asks for one sample of sea water to be analysed; gives its number. */
export async function asksForAnalysis(page: Page): Promise<string> {
  await page.goto('/ask/sample-analysis');
  await page.getByLabel('For which project?').fill('Outer bay, winter');
  await page.getByLabel('Label on the tube').fill('OB-9');
  await page.getByRole('combobox', { name: 'Matrix' }).fill('sea w');
  await page.getByRole('option', { name: 'Sea water' }).click();
  await page.getByLabel('Method').selectOption({ index: 1 });
  await page.getByLabel('Runs').fill('2');
  await page.getByLabel('When do the samples arrive?').fill('3 Dec 2026');
  await page.getByRole('radio', { name: 'No' }).first().check();
  const told = page.getByText(/SA-\d{5}/).first();
  // What is left a moment before may still be told below it: a press that was lost is made again.
  await expect(async () => {
    const send = page.getByRole('button', { name: 'Send' });
    if (await send.isVisible()) await send.click();
    await told.waitFor({ timeout: 20_000 });
  }).toPass();
  return /SA-\d{5}/.exec((await told.textContent()) ?? '')?.[0] ?? '';
}

/** Opens the newest letter in the Mailroom with these words in its subject, once it is there, and follows its link. */
export async function followLetter(page: Page, words: string, link: string): Promise<void> {
  await page.goto('/mailroom');
  await page.getByRole('searchbox').fill(words);
  await page.getByRole('listitem').filter({ hasText: words }).first().getByRole('link').click();
  await page.frameLocator('iframe[title="The email"]').getByRole('link', { name: link }).click();
}

/** Where the button of the newest email leads that has these words in it. */
export async function newestLink(page: Page, ...words: readonly string[]): Promise<string> {
  await page.goto('/mailroom');
  await page.getByRole('searchbox').fill(words[0] ?? '');
  let email = page.getByRole('listitem');
  for (const each of words) email = email.filter({ hasText: each });
  await email.first().getByRole('link').click();
  return (await page.frameLocator('iframe').locator('a').first().getAttribute('href')) ?? '';
}

/** The same, once there is a newer one than a link that was read: an email leaves a moment after what it is about. */
export async function newerLink(page: Page, than: string, ...words: readonly string[]): Promise<string> {
  let link = than;
  await expect(async () => {
    link = await newestLink(page, ...words);
    expect(link).not.toBe(than);
  }).toPass();
  return link;
}

/** Holds back what a page fetches from an address, until it is let through. */
export async function heldBack(page: Page, address: string): Promise<() => void> {
  let letThrough = (): void => undefined;
  const held = new Promise<void>((done) => {
    letThrough = done;
  });
  await page.route(address, async (route) => {
    await held;
    await route.continue();
  });
  return letThrough;
}

/** Whether anything on the page is wider than the screen. */
export const overflows = (page: Page): Promise<boolean> =>
  page.evaluate(() => document.documentElement.scrollWidth > document.documentElement.clientWidth);

/** What is cut off or runs over its edge: the page itself, and whatever has a text of its own. */
export const spilling = (page: Page): Promise<readonly string[]> =>
  page.evaluate(() => {
    const found: string[] = [];
    const { scrollWidth, clientWidth } = document.documentElement;
    if (scrollWidth > clientWidth) found.push(`the page: ${scrollWidth} of ${clientWidth} px`);
    for (const element of document.querySelectorAll<HTMLElement>('body *')) {
      const hasText = [...element.childNodes].some((node) => node.nodeType === 3 && node.textContent?.trim());
      if (!hasText || element.clientWidth === 0 || element.closest('.sr-only, svg, iframe, option')) continue;
      const style = getComputedStyle(element);
      // An ellipsis tells that there is more; a part that scrolls shows it.
      if (style.textOverflow === 'ellipsis' || ['auto', 'scroll'].includes(style.overflowX)) continue;
      if (element.scrollWidth > element.clientWidth + 2)
        found.push(`${element.tagName.toLowerCase()} “${element.textContent?.trim().slice(0, 60)}”`);
    }
    return [...new Set(found)];
  });

/**
 * What axe finds that would keep somebody out. `only`: of its rules, where the page was looked at as a whole before. No page has
 * frames of another origin, so all is found out in the page itself.
 */
export async function seriousTrouble(page: Page, only?: readonly string[]): Promise<readonly string[]> {
  const found = await troubleNow(page, only);
  if (found.length === 0) return found;
  // A message that goes by itself may have lain over things: what is really there is there without it as well.
  await page
    .waitForFunction(() => document.querySelector('[data-sonner-toast]') === null, undefined, { timeout: 15_000 })
    .catch(() => undefined);
  return troubleNow(page, only);
}

/** What axe finds in a page that stood still while it looked: places are wrong where something moved in the middle of a look. */
async function troubleNow(page: Page, only?: readonly string[], looks = 5): Promise<readonly string[]> {
  const axe = new AxeBuilder({ page }).setLegacyMode(true);
  if (only) axe.withRules([...only]);
  else axe.withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa']);
  const before = await placesIn(page);
  const { violations } = await axe.analyze();
  if (looks > 1 && before !== (await placesIn(page))) {
    await page.waitForTimeout(1_000);
    return troubleNow(page, only, looks - 1);
  }
  return violations
    .filter((each) => each.impact === 'serious' || each.impact === 'critical')
    .map((each) => `${each.id}: ${each.nodes.map((node) => node.target.join(' ')).join('; ')}`);
}

/** Where all that can be pressed stands in the page, as one text. */
const placesIn = (page: Page): Promise<string> =>
  page.evaluate(() =>
    [...document.querySelectorAll('a, button, input, select, textarea, [tabindex]')]
      .map((each) => {
        const { x, y, width, height } = each.getBoundingClientRect();
        return [x, y, width, height].map(Math.round).join(' ');
      })
      .join('; '),
  );

/** Releases the draft of the form that is open in the Workshop, once it is kept. `more`: what is looked at, or typed, before. */
export async function release(page: Page, more?: (dialog: Locator) => Promise<unknown>): Promise<void> {
  await expect(page.getByText('Saved', { exact: true })).toBeVisible();
  await page.getByRole('button', { name: 'Release this draft …' }).click();
  const dialog = page.getByRole('dialog');
  await more?.(dialog);
  // What is told goes by itself: it is looked for from before the press on.
  await Promise.all([
    expect(page.getByText(/^Release \d+ is in force/)).toBeVisible(),
    dialog.getByRole('button', { name: /^Release number \d+$/ }).click(),
  ]);
}
