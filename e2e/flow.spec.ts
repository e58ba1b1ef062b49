import { expect, test } from '@playwright/test';
import { pageOf, phone, seriousTrouble } from './people.ts';

test('a report in confidence: what routing would tell is found, allowed on purpose and ended; a copy is protected as well', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const main = maren.getByRole('main');
  const contents = maren.getByRole('navigation', { name: 'Contents' });
  const way = main.getByRole('button', { name: 'How it gets there …' });
  const dialog = maren.getByRole('dialog', { name: 'How it gets there' });

  await test.step('the recipe brings the plan that its words promise', async () => {
    await maren.goto('/workshop/new');
    await maren.getByRole('radio', { name: /A confidential report/ }).check();
    await maren.getByLabel('Title').fill('Tell the leads');
    await maren.getByLabel('Team').selectOption({ label: 'Desk leads' });
    await expect(maren.getByText(/read by Desk leads \(1 person\) and by nobody else/)).toBeVisible();
    await maren.getByRole('button', { name: 'Make the form' }).click();
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
      '1The routing table asks for “About”.',
      '2Team, stage and due date tell which row it was, to somebody of the desk who is not in Desk leads as well.',
    ]);
    expect(await seriousTrouble(maren)).toEqual([]);
  });

  await test.step('it is allowed on purpose, with a reason', async () => {
    await dialog.getByRole('button', { name: 'Allow it' }).click();
    await expect(dialog.getByText('Say why this is allowed.', { exact: false })).toBeVisible();
    await dialog.getByLabel('Why it is allowed').fill('The gate is closed when a safety report came in.');
    await dialog.getByRole('button', { name: 'Allow it' }).click();
    await expect(dialog).toHaveCount(0);
    await expect(maren.getByText('Nothing wrong or doubtful was found in this draft.')).toBeVisible();
    await contents.getByRole('link', { name: 'Access' }).click();
    await expect(main.getByText('Something of “About” may be told there', { exact: false })).toBeVisible();
    await maren.getByRole('button', { name: 'Release 1 …' }).click();
    await maren.getByRole('button', { name: 'Release 1', exact: true }).click();
    await expect(maren.getByText('Release 1 is in force.', { exact: false })).toBeVisible();
  });

  const priya = await phone(browser);
  let number = '';
  await test.step('somebody reports from a phone', async () => {
    await priya.goto('/sign-in');
    await priya.getByRole('button', { name: /Priya Nakamura-Lind/ }).click();
    await priya.getByRole('heading', { name: 'What do you need?' }).waitFor();
    await priya.goto('/ask/tell-the-leads');
    await priya.getByLabel('What is it about?').selectOption({ label: 'Safety' });
    await priya.getByLabel('What happened?').fill('A guard is missing at the winch.');
    await priya.getByRole('radio', { name: 'No' }).check();
    await priya.getByRole('button', { name: 'Send' }).click();
    await expect(priya.getByText(/TTL-00001/).first()).toBeVisible();
    number = 'TTL-00001';
  });

  const ada = await pageOf(browser, 'Ada Quillfeather');
  await test.step('the administrator reads that it came and which row it was, and nothing that it says', async () => {
    await ada.goto(`/floor/all/${number}`);
    await expect(ada.getByText('Row 1', { exact: false }).first()).toBeVisible();
    await expect(ada.getByText('winch', { exact: false })).toHaveCount(0);
  });

  await test.step('what was allowed is ended: the row is withheld, and the form says that its release goes further', async () => {
    await maren.goto('/workshop/tell-the-leads/access');
    await main.getByRole('button', { name: 'End it' }).click();
    await expect(main.getByText('The release in force goes further than the plan')).toBeVisible();
    await expect(main.getByText('No longer allowed: The routing table asks for “About”')).toBeVisible();
    expect(await seriousTrouble(maren)).toEqual([]);
    await ada.reload();
    await expect(ada.getByRole('button', { name: 'Routed' })).toBeVisible();
    await ada.getByRole('button', { name: 'Why: The routing table decided' }).click();
    await expect(ada.getByText('rests on fields that you may not read', { exact: false })).toBeVisible();
    await expect(ada.getByText('Row 1', { exact: false })).toHaveCount(0);
    const health = await (await maren.request.get('/api/health')).json();
    expect(health.openWays).toBe(1);
  });

  await test.step('a copy brings the plan along, and none of what was allowed', async () => {
    await maren.goto('/workshop/new');
    await maren.getByLabel('or a copy of').selectOption({ label: 'Tell the leads' });
    await expect(maren.getByText('Its access rules come with it', { exact: false })).toBeVisible();
    await maren.getByLabel('Title').fill('Tell them again');
    await maren.getByRole('button', { name: 'Make the form' }).click();
    await contents.getByRole('link', { name: 'Access' }).click();
    await expect(main.getByText('Reports stay with those who look into them').first()).toBeVisible();
    await expect(main.getByRole('button', { name: 'End it' })).toHaveCount(0);
    await contents.getByRole('link', { name: 'Routing' }).click();
    await expect(way).toHaveCount(1);
  });
});
