import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { expect, type Page } from '@playwright/test';
import { overflows, pageOf, release, seriousTrouble, test } from './people.ts';

/** A page of somebody else that shows something of ours in a frame, on a port of its own: another origin. */
async function pageElsewhere(shows: string): Promise<{ readonly at: string; readonly server: Server }> {
  const html = `<!doctype html><html lang="en"><title>Orford Shore School</title><h1>Trips</h1>
    <iframe src="${shows}" title="School visit" style="width:100%;height:700px;border:0"></iframe></html>`;
  const server = createServer((_, response) => response.setHeader('content-type', 'text/html').end(html));
  await new Promise<void>((done) => server.listen(0, '127.0.0.1', done));
  return { at: `http://127.0.0.1:${(server.address() as AddressInfo).port}`, server };
}

/** Begins an edition of a form for those of Boats. */
async function editionForBoats(maren: Page, form: string, name: string): Promise<void> {
  await maren.goto(`/workshop/${form}/editions`);
  await maren.getByRole('button', { name: 'New edition' }).click();
  await maren.getByLabel('Name', { exact: true }).fill(name);
  await maren.getByRole('combobox', { name: 'Add somebody who is meant' }).selectOption({ label: 'Boats' });
}

test('an edition leads to another form, which takes over what was typed', async ({ browser }) => {
  const bram = await pageOf(browser, 'Bram Solheim');
  await bram.goto('/ask/purchase');
  await bram.getByLabel('What is it for?').fill('A spare anchor for the workboat');
  await expect(bram.getByText('Saved for you on any device until you send.')).toBeVisible();

  const maren = await pageOf(browser, 'Maren Okafor');
  await editionForBoats(maren, 'purchase', 'The boat crews');
  await maren.getByLabel('Leads to').selectOption({ label: 'an address elsewhere' });
  await maren.getByLabel('Address').fill('https://shop.merrow.example/anchors');
  await expect(maren.getByText(/“The boat crews” leads to an address that is not allowed/).first()).toBeVisible();
  await maren.getByLabel('Leads to').selectOption({ label: 'another form' });
  await maren.getByLabel('Form', { exact: true }).selectOption({ label: 'Vessel time' });
  await maren.getByRole('button', { name: 'Done' }).click();
  await expect(maren.getByText('leads to Vessel time')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.getByRole('button', { name: 'Proof', exact: true }).click();
  await maren.getByLabel('Seen by').selectOption({ label: 'Bram Solheim' });
  await expect(maren.getByText(/They ask somewhere else: their edition leads to Vessel time/)).toBeVisible();
  await release(maren);

  await bram.reload();
  await expect(bram).toHaveURL(/\/ask\/vessel-time$/);
  await expect(bram.getByText('“Purchase” led you to this form. Your answers are filled in')).toBeVisible();
  await expect(bram.getByLabel('What will you do out there?')).toHaveValue('A spare anchor for the workboat');
  // Whoever is not of the crews asks where they did.
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  await priya.goto('/ask/purchase');
  await expect(priya.getByLabel('What is it for?')).toBeVisible();
});

test('an answer leads to another form while it is typed, and back where it is changed; one at work is seen by the other', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await editionForBoats(maren, 'site-access', 'Trips by boat');
  await maren.getByLabel('Leads to').selectOption({ label: 'another form' });
  await maren.getByLabel('Form', { exact: true }).selectOption({ label: 'Vessel time' });
  await maren.getByRole('button', { name: 'Add a condition' }).click();
  await maren.getByRole('combobox', { name: 'Field' }).first().selectOption({ label: 'Works on water' });
  await maren.getByRole('button', { name: 'Done' }).click();
  // Whoever is given another one before is not led.
  for (let place = 0; place < 3; place += 1)
    await maren.getByRole('button', { name: 'Try “Trips by boat” earlier' }).click();
  await maren.getByRole('button', { name: 'Proof', exact: true }).click();
  await maren.getByLabel('Seen by').selectOption({ label: 'somebody by name …' });
  await maren.getByPlaceholder('Part of a name').fill('Hedda Crane');
  await maren.getByRole('option', { name: /Hedda Crane/ }).click();
  const proof = maren.getByRole('complementary');
  await expect(maren.getByLabel('Seen by').locator('option:checked')).toContainText('Hedda Crane');
  await proof.getByRole('radio', { name: 'Yes' }).first().click();
  const isLed = maren.getByText(/With these answers they ask somewhere else: an edition leads to Vessel time/);
  await expect(proof.getByText('Until when is their sea survival')).toBeVisible();
  await expect(isLed).toBeHidden();
  // Whom it is for is led, and not before they answer so.
  await maren.getByLabel('Seen by').selectOption({ label: 'Bram Solheim' });
  await expect(isLed).toBeVisible();
  await release(maren);

  const bram = await pageOf(browser, 'Bram Solheim', { width: 360, height: 740 });
  await bram.goto('/ask/come-on-site');
  await bram.getByLabel('What do they come for?').fill('To count seals from the boat');
  await bram.getByRole('radio', { name: 'Yes' }).first().click();
  const led = bram.getByRole('status').filter({ hasText: 'you ask with another form: “Vessel time”' });
  await expect(led).toBeVisible();
  await expect(bram.getByRole('button', { name: 'Send the request' })).toBeHidden();
  expect(await seriousTrouble(bram)).toEqual([]);
  expect(await overflows(bram)).toBe(false);
  await bram.getByRole('radio', { name: 'No' }).first().click();
  await expect(led).toBeHidden();
  await bram.getByRole('radio', { name: 'Yes' }).first().click();
  await led.getByRole('button', { name: 'Continue with “Vessel time”' }).click();
  await expect(bram.getByText('“Come on site” led you to this form.')).toBeVisible();
  // What was typed stays where it was.
  await bram.goBack();
  await expect(bram.getByLabel('What do they come for?')).toHaveValue('To count seals from the boat');

  const [ilse, finn] = [await pageOf(browser, 'Ilse Brandvold'), await pageOf(browser, 'Maren Okafor')];
  await ilse.goto('/floor/team');
  const first = ilse.locator('a[href*="/AC-"]').first();
  const number = /AC-\d+/.exec((await first.getAttribute('href')) ?? '')?.[0] ?? '';
  await ilse.goto(`/floor/all/${number}`);
  await ilse.getByRole('button', { name: 'Change several' }).click();
  await ilse.getByLabel('Escort').fill('Bram');
  await finn.goto(`/floor/all/${number}`);
  await expect(finn.getByText('Ilse Brandvold is changing Escort just now.')).toBeVisible();
  await ilse.getByRole('button', { name: 'Save 1 change' }).click();
  await expect(ilse.getByRole('button', { name: 'Nothing changed yet' })).toBeVisible();
  await expect(finn.getByText('Ilse Brandvold is changing Escort just now.')).toBeHidden();
  await ilse.getByRole('button', { name: 'Done', exact: true }).click();
  expect(await seriousTrouble(ilse)).toEqual([]);
});

test('a form stands in the page of a school, is filled in there, and in no other page', async ({
  browser,
  baseURL,
}) => {
  const school = await pageElsewhere(`${baseURL}/embed/school-visit`);
  const another = await pageElsewhere(`${baseURL}/embed/school-visit`);
  try {
    const maren = await pageOf(browser, 'Maren Okafor');
    await maren.goto('/workshop/school-visit/doors');
    const card = maren.getByRole('region').filter({ hasText: '/ask/school-visit' }).first();
    await card.getByRole('button', { name: 'Change the door' }).click();
    await card.getByLabel('Pages elsewhere').fill('orford.example');
    await expect(card.getByRole('button', { name: 'Put in force now' })).toBeDisabled();
    await expect(card.getByText('Write addresses of pages as in https://school.example').first()).toBeVisible();
    await card.getByLabel('Pages elsewhere').fill(school.at);
    await card.getByRole('button', { name: 'Put in force now' }).click();
    await expect(card.getByText(`<iframe src="${baseURL}/embed/school-visit"`)).toBeVisible();

    const context = await browser.newContext({ viewport: { width: 360, height: 740 } });
    const page = await context.newPage();
    const refused: string[] = [];
    page.on('console', (message) => refused.push(message.text()));
    await page.goto(another.at);
    await expect.poll(() => refused.some((text) => text.includes('frame-ancestors'))).toBe(true);
    await page.goto(school.at);
    const form = page.frameLocator('iframe');
    await expect(form.getByRole('heading', { name: 'School visit' })).toBeVisible();
    // Nothing of the desk around it, and what it leads to opens beside the page.
    await expect(form.getByRole('banner')).toHaveCount(0);
    await form.getByRole('textbox').first().fill('Orford Shore School');
    const [opened] = await Promise.all([context.waitForEvent('page'), form.getByRole('link').first().click()]);
    await expect(opened).toHaveURL(/\/come-in\?back=/);
    await expect(form.getByRole('textbox').first()).toHaveValue('Orford Shore School');
    expect(await overflows(page)).toBe(false);
  } finally {
    for (const { server } of [school, another]) server.close();
  }
});
