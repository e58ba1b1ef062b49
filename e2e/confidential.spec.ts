import { expect } from '@playwright/test';
import { pageOf, reported, seriousTrouble, spilling, test } from './people.ts';

const SAID = 'A guard is missing at the winch.';

test('a confidential report, made from the recipe by a coordinator who can’t read what comes in', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const main = maren.getByRole('main');

  await test.step('she makes it for site safety, and is told that she will read nothing of it', async () => {
    await maren.goto('/workshop/new');
    await maren.getByRole('radio', { name: /A confidential report/ }).check();
    await maren.getByLabel('Title').fill('Tell site safety');
    await maren.getByLabel('Group', { exact: true }).selectOption({ label: 'Site safety' });
    await maren.getByRole('button', { name: 'Create the form' }).click();
    await maren.getByRole('navigation', { name: 'Contents' }).getByRole('link', { name: 'Access' }).click();
    await expect(
      main.getByText('every field: hidden from everyone except Site safety and the requester'),
    ).toBeVisible();
    await maren.getByRole('button', { name: 'Release this draft …' }).click();
    await maren.getByRole('button', { name: 'Release number 1', exact: true }).click();
    await expect(maren.getByText('Release 1 is in force.', { exact: false })).toBeVisible();
  });

  const number = await test.step('somebody reports from a phone', () =>
    reported(browser, {
      ...{ door: 'tell-site-safety', what: SAID },
      before: async (page) => expect(await spilling(page)).toEqual([]),
    }));
  expect(number).not.toBe('');

  await test.step('site safety reads it; she sees that it came, and nothing of what it says', async () => {
    const oskar = await pageOf(browser, 'Oskar Veldhuis');
    await oskar.goto(`/floor/all/${number}`);
    await expect(oskar.getByRole('complementary', { name: 'Request sheet' }).getByText(SAID)).toBeVisible();
    await maren.goto(`/floor/all/${number}`);
    const sheet = maren.getByRole('complementary', { name: 'Request sheet' });
    await expect(sheet.getByText('hidden from you').first()).toBeVisible();
    expect(await sheet.textContent()).not.toContain(SAID);
    const answer = await maren.request.get(`/api/requests/${number}`);
    expect(await answer.text()).not.toContain(SAID);
    expect(await seriousTrouble(maren)).toEqual([]);
    // Nor can she open it to herself, by a rule of hers or by what she shares.
    const key = 'tell-site-safety';
    const { version, draft } = await (await maren.request.get(`/api/registers/${key}/access`)).json();
    const opened = { ...draft, rules: draft.rules.map((rule: object) => ({ ...rule, level: 'read' })) };
    const kept = await maren.request.put(`/api/registers/${key}/access/draft`, {
      headers: { 'If-Match': `"${version}"`, Origin: new URL(maren.url()).origin },
      data: opened,
    });
    const put = await maren.request.post(`/api/registers/${key}/access`, {
      headers: { 'If-Match': `"${(await kept.json()).version}"`, Origin: new URL(maren.url()).origin },
      data: { note: '', closesToMyself: true },
    });
    expect(put.status()).toBe(403);
    const { shares } = await (await maren.request.get(`/api/registers/${key}/sharable`)).json();
    expect(shares).toEqual([]);
  });
});
