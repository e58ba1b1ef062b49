import { expect } from '@playwright/test';
import { overflows, pageOf, phone, seriousTrouble, test } from './people.ts';

test('axe finds nothing serious on any main page, in light and in dark', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const pages = [
    '/',
    '/floor/all',
    '/workshop',
    '/workshop/site-access',
    '/workshop/site-access/rules',
    '/workshop/site-access/access',
    '/workshop/site-access/routing',
    '/workshop/site-access/approval',
    '/workshop/site-access/doors',
    '/workshop/kit-check/mailings',
    '/workshop/site-access/languages',
    '/workshop/vessel-time/questions',
    '/workshop/vessel-time/outside',
    '/workshop/groundwork',
    '/workshop/groundwork/desk',
    '/workshop/groundwork/people',
    '/workshop/groundwork/groups/estates',
    '/workshop/groundwork/rights',
    '/workshop/groundwork/calendars',
    '/workshop/groundwork/registers',
    '/workshop/groundwork/vocabularies/species',
    '/floor/things',
    '/floor/duty',
    '/floor/forecast',
    '/workshop/groundwork/rosters',
    '/ask/vessel-time',
    '/mailroom',
    '/ask/come-on-site',
    '/sign-in',
  ];
  for (const path of pages) {
    await maren.goto(path);
    await maren.getByRole('heading').first().waitFor();
    if (path === '/floor/all') await maren.locator('tbody a').first().click();
    await maren.waitForLoadState('networkidle').catch(() => undefined);
    for (const theme of ['light', 'dark']) {
      await maren.evaluate((name) => document.documentElement.setAttribute('data-theme', name), theme);
      // In the dark nothing but the colours is otherwise.
      const only = theme === 'dark' ? ['color-contrast'] : undefined;
      expect(await seriousTrouble(maren, only), `${path} in ${theme}`).toEqual([]);
    }
  }
});

test('the Front desk fits a phone, the Floor and the Workshop a small screen', async ({ browser }) => {
  const stranger = await phone(browser);
  for (const path of ['/', '/ask/visit', '/ask/school-visit', '/sign-in', '/follow/nothing', '/mailroom']) {
    await stranger.goto(path);
    await stranger.waitForLoadState('networkidle');
    expect(await overflows(stranger), path).toBe(false);
  }
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1024, height: 768 });
  for (const path of ['/floor/all', '/workshop/site-access', '/workshop/site-access/routing']) {
    await maren.goto(path);
    await maren.getByRole('heading').first().waitFor();
    expect(await overflows(maren), path).toBe(false);
  }
});

test('the ledger and a decision work without a mouse', async ({ browser }) => {
  const ilse = await pageOf(browser, 'Ilse Brandvold');
  await ilse.goto('/floor/team');
  await ilse.locator('tbody tr').first().waitFor();
  await ilse.keyboard.press('j');
  await expect(ilse.getByRole('complementary', { name: 'Request sheet' })).toBeVisible();
  const first = ilse.url();
  await ilse.keyboard.press('j');
  await expect(ilse).not.toHaveURL(first);
  await ilse.keyboard.press('k');
  await expect(ilse).toHaveURL(first);
  await ilse.keyboard.press('?');
  await expect(ilse.getByRole('dialog', { name: 'Shortcuts' })).toBeVisible();
  await ilse.keyboard.press('Escape');
  await expect(ilse.getByRole('button', { name: 'Shortcuts' })).toBeFocused();
  await ilse.waitForTimeout(300);
  await ilse.keyboard.press('Control+k');
  await expect(ilse.getByRole('combobox', { name: 'What you are looking for' })).toBeFocused();
  const wanted = (await ilse.locator('tbody tr .font-mono').last().textContent()) ?? '';
  await ilse.keyboard.type(wanted);
  await expect(ilse.getByRole('option').first()).toContainText(wanted);
  await ilse.keyboard.press('Enter');
  await expect(ilse.getByRole('article').getByText(wanted)).toBeVisible();
  await expect(ilse.getByRole('dialog')).toHaveCount(0);
});
