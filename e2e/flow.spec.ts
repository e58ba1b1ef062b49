import { expect } from '@playwright/test';
import { pageOf, reported, seriousTrouble, test } from './people.ts';

test('a report in confidence: what routing would tell is found, allowed on purpose and ended; a copy is protected as well', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const main = maren.getByRole('main');
  const contents = maren.getByRole('navigation', { name: 'Contents' });
  const way = main.getByRole('button', { name: 'How the value gets there …' });
  const dialog = maren.getByRole('dialog', { name: 'How the value gets there' });

  await test.step('the recipe brings the plan that its words promise', async () => {
    await maren.goto('/workshop/new');
    await maren.getByRole('radio', { name: /A confidential report/ }).check();
    await maren.getByLabel('Title').fill('Tell the leads');
    await maren.getByLabel('Group', { exact: true }).selectOption({ label: 'Desk leads' });
    await expect(maren.getByText(/Desk leads \(1 person\)/)).toBeVisible();
    await maren.getByRole('button', { name: 'Create the form' }).click();
    await contents.getByRole('link', { name: 'Access' }).click();
    await expect(main.getByText('every field: hidden from everyone except Desk leads and the requester')).toBeVisible();
    await expect(main.getByText('The plan came with the form', { exact: false })).toBeVisible();
    expect(await seriousTrouble(maren)).toEqual([]);
  });

  await test.step('a column that asks what it is about tells the whole desk: the way is drawn', async () => {
    const address = '/api/forms/tell-the-leads';
    const { draft, version } = await (await maren.request.get(address)).json();
    const { otherwise } = draft.routing;
    const routing = {
      columns: [{ id: 'about', label: 'About', input: 'about' }],
      rows: [
        { id: 'row-1', note: 'Safety first', cells: { about: '"safety"' }, outcome: { ...otherwise, workingDays: 1 } },
      ],
      otherwise,
    };
    const saved = await maren.request.put(`${address}/draft`, {
      data: { draft: { ...draft, routing } },
      headers: { 'If-Match': `"${version}"` },
    });
    expect(saved.status()).toBe(200);
    await maren.goto('/workshop/tell-the-leads/routing');
    await way.click();
    await expect(dialog.getByRole('listitem')).toHaveText([
      '1The routing table tests “About”.',
      '2Team, stage and due date show which row was used, also to staff of the desk not in Desk leads.',
    ]);
    expect(await seriousTrouble(maren)).toEqual([]);
  });

  await test.step('it is allowed on purpose, with a reason', async () => {
    await dialog.getByRole('button', { name: 'Permit it' }).click();
    await expect(dialog.getByText('Say why this is permitted.', { exact: false })).toBeVisible();
    await dialog.getByLabel('Why it is permitted').fill('The gate is closed when a safety report came in.');
    await dialog.getByRole('button', { name: 'Permit it' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(maren.getByText('The draft has no errors and no cautions.')).toBeVisible();
    await contents.getByRole('link', { name: 'Access' }).click();
    await expect(main.getByText('Something about “About” can be learned there', { exact: false })).toBeVisible();
    await maren.getByRole('button', { name: 'Release this draft …' }).click();
    await maren.getByRole('button', { name: 'Release number 1', exact: true }).click();
    await expect(maren.getByText('Release 1 is in force.', { exact: false })).toBeVisible();
  });

  const number = await test.step('somebody reports from a phone', () =>
    reported(browser, { door: 'tell-the-leads', what: 'A guard is missing at the winch.' }));
  expect(number).toBe('TTL-00001');

  const ada = await pageOf(browser, 'Ada Quillfeather');
  await test.step('the administrator reads that it came and which row it was, and nothing that it says', async () => {
    await ada.goto(`/floor/all/${number}`);
    await expect(ada.getByRole('button', { name: 'Why: Row 1 was used' })).toBeVisible();
    await expect(ada.getByText('winch', { exact: false })).toHaveCount(0);
  });

  await test.step('what was allowed is ended: the row is withheld, and the form says that its release goes further', async () => {
    await maren.goto('/workshop/tell-the-leads/access');
    await main.getByRole('button', { name: 'End this permission' }).click();
    await expect(main.getByText('The release in force reveals more than the plan permits')).toBeVisible();
    await expect(main.getByText('No longer permitted: The routing table tests “About”')).toBeVisible();
    expect(await seriousTrouble(maren)).toEqual([]);
    await ada.reload();
    await expect(ada.getByRole('button', { name: /^Routed/ })).toBeVisible();
    await ada.getByRole('button', { name: /^Why: .*routing/i }).click();
    await expect(ada.getByText('depends on fields that you may not read', { exact: false })).toBeVisible();
    await expect(ada.getByText('Row 1', { exact: false })).toHaveCount(0);
    const health = await (await maren.request.get('/api/health')).json();
    expect(health.openWays).toBe(1);
  });

  await test.step('a copy brings the plan along, and none of what was allowed', async () => {
    await maren.goto('/workshop/new');
    await maren.getByLabel('or a copy of').selectOption({ label: 'Tell the leads' });
    await expect(maren.getByText('the same access rules', { exact: false })).toBeVisible();
    await maren.getByLabel('Title').fill('Tell them again');
    await maren.getByRole('button', { name: 'Create the form' }).click();
    await contents.getByRole('link', { name: 'Access' }).click();
    await expect(main.getByText('Reports can be read only by the people who look into them').first()).toBeVisible();
    await expect(main.getByRole('button', { name: 'End this permission' })).toHaveCount(0);
    await contents.getByRole('link', { name: 'Routing' }).click();
    await expect(way).toHaveCount(1);
  });
});
