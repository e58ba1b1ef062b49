import { expect, type Page } from '@playwright/test';
import { asksForAnalysis, newerLink, newestLink, overflows, pageOf, phone, seriousTrouble, test } from './people.ts';

/** Somebody is away today, and somebody else decides for them, or nobody. */
async function goesAway(page: Page, name: string, substitute?: string): Promise<void> {
  await page.goto('/workshop/groundwork/people');
  await page.getByRole('searchbox', { name: 'Find by name' }).fill(name);
  await page.getByRole('link', { name }).click();
  await page.getByRole('button', { name: 'Add an absence' }).click();
  await page.getByLabel('First day').fill('23 Nov');
  await page.getByLabel('Last day (empty: until you end it)').fill('27 Nov');
  if (substitute !== undefined) {
    await page.getByLabel('Who decides instead? (empty: nobody)').fill(substitute);
    await page
      .getByRole('listbox')
      .getByRole('option', { name: new RegExp(substitute) })
      .click();
  }
  await page.getByRole('button', { name: 'Add an absence' }).click();
  await expect(page.getByText('23 Nov 2026 to 27 Nov 2026').first()).toBeVisible();
  if (substitute !== undefined) await expect(page.getByText(`${substitute} decides instead`).first()).toBeVisible();
}

/** Somebody is back: other journeys have the same desk. */
async function comesBack(page: Page, name: string): Promise<void> {
  await page.goto('/workshop/groundwork/people');
  await page.getByRole('searchbox', { name: 'Find by name' }).fill(name);
  await page.getByRole('link', { name }).click();
  const end = page.getByRole('button', { name: 'End', exact: true });
  await end.click();
  await expect(end).toHaveCount(0);
}

/** Asks for a dive at the kelp, 20 m deep; gives its number. */
async function asksToDive(page: Page): Promise<string> {
  await page.goto('/ask/dive-plan');
  await page.getByLabel('Where will you dive?').selectOption({ label: 'Kelp forest' });
  await page.getByLabel('On which day?').fill('9 Dec 2026');
  await page.getByLabel('How deep at most?').fill('20');
  await page.getByLabel('How long on the bottom?').fill('30 min');
  await page.getByLabel('Which gas?').selectOption({ label: 'Air' });
  for (const [line, diver, grade] of [
    [1, 'Priya Nakamura-Lind', 'dive leader'],
    [2, 'Hanne Istvan', 'scientific diver'],
  ] as const) {
    // What is left a moment before may still be told below it: a press that was lost is made again.
    await expect(async () => {
      const divers = page.getByLabel('Diver', { exact: true });
      if ((await divers.count()) < line) await page.getByRole('button', { name: 'Add a line' }).click();
      await expect(divers).toHaveCount(line, { timeout: 2_000 });
    }).toPass();
    await page
      .getByLabel('Diver', { exact: true })
      .nth(line - 1)
      .fill(diver);
    await page
      .getByLabel('Grade')
      .nth(line - 1)
      .selectOption({ label: grade });
    await page
      .getByLabel('Medical valid until')
      .nth(line - 1)
      .fill('30 Apr 2027');
  }
  await page.getByRole('button', { name: 'Send' }).click();
  const told = page.getByText(/DP-\d{5}/).first();
  await told.waitFor();
  return /DP-\d{5}/.exec((await told.textContent()) ?? '')?.[0] ?? '';
}

test('a dive is put back once, decided by two officers and a substitute, and asked for again when it gets deeper', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  await goesAway(maren, 'Hanne Istvan', 'Tomas Achterberg');
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const number = await asksToDive(priya);

  // An officer asks a question first, by the email on a phone.
  const gunnar = await phone(browser);
  const asked = await newestLink(gunnar, number, 'Gunnar Peverell');
  await gunnar.goto(asked);
  await expect(gunnar.getByText(/Please decide by /)).toBeVisible();
  await gunnar.getByRole('button', { name: 'Ask a question first' }).click();
  await expect(gunnar.getByRole('alert')).toContainText('A return needs a question.');
  await gunnar.getByLabel(/^Comment/).fill('Which boat takes you out?');
  expect(await overflows(gunnar)).toBe(false);
  expect(await seriousTrouble(gunnar)).toEqual([]);
  await gunnar.getByRole('button', { name: 'Ask a question first' }).click();
  await expect(gunnar.getByRole('heading', { name: 'Your question is sent' })).toBeVisible();

  // It waits for whoever asked, and goes on when they answer.
  await priya.goto(`/my/${number}`);
  await expect(priya.getByText('Which boat takes you out?').first()).toBeVisible();
  await priya.getByRole('link', { name: 'Answer' }).click();
  await priya.locator('#message').fill('The Guillemot.');
  await priya.getByRole('button', { name: 'Send the message' }).click();
  await expect(priya.getByText('The Guillemot.')).toBeVisible();

  await gunnar.goto(await newerLink(gunnar, asked, number, 'Gunnar Peverell'));
  await gunnar.getByRole('button', { name: 'Approve the request' }).click();
  await expect(gunnar.getByText(/Others still have to decide/)).toBeVisible();

  // Whoever asked reads who decides, how many still have to agree, and who comes after.
  await priya.setViewportSize({ width: 360, height: 740 });
  await priya.reload();
  const steps = priya.getByRole('list').filter({ hasText: 'Safety officers' }).getByRole('listitem');
  await expect(steps).toHaveText([/Safety officers: waits for .+ since .+, by .+ at the latest/, /: asked after that/]);
  expect(await overflows(priya)).toBe(false);
  expect(await seriousTrouble(priya)).toEqual([]);

  const oskar = await pageOf(browser, 'Oskar Veldhuis');
  await oskar.goto(`/floor/deciding/${number}`);
  const sheet = oskar.getByRole('article');
  await expect(sheet.getByText('2 of 3 have to agree')).toBeVisible();
  await expect(sheet.getByText(/Then others are asked instead\./).first()).toBeVisible();
  await expect(sheet.getByRole('button', { name: /waits? for the same decision …/ })).toBeVisible();
  expect(await seriousTrouble(oskar)).toEqual([]);
  await sheet.getByRole('button', { name: 'Approve the request' }).click();
  await expect(oskar.getByText(/Others still have to decide/)).toBeVisible();

  // The head of science is away: the substitute decides.
  const tomas = await pageOf(browser, 'Tomas Achterberg');
  await tomas.goto(`/floor/deciding/${number}`);
  await expect(tomas.getByRole('article').getByText('(named by “Lead”)').first()).toBeVisible();
  await tomas.getByRole('article').getByRole('button', { name: 'Approve the request' }).click();
  await expect(tomas.getByText(`${number} is approved. We told the requester.`)).toBeVisible();

  // Deeper than agreed: it says so before, and asks again, with one more step.
  await maren.goto(`/floor/all/${number}`);
  const hers = maren.getByRole('article');
  await hers.getByRole('button', { name: 'Change Greatest depth' }).click();
  await expect(hers.getByText('If you change this, those who decide are asked again.')).toBeVisible();
  await hers.getByLabel('Greatest depth').fill('34');
  await hers.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(hers.getByText(/To be decided again, as answers changed/).first()).toBeVisible();
  await expect(hers.getByText('Duty manager').first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
});

test('an analysis goes to who had the last of the same person, says why, and when nobody can take it the leads are told and it is moved', async ({
  browser,
}) => {
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  const sheet = maren.getByRole('article');
  const taken = await asksForAnalysis(priya);
  await maren.goto(`/floor/all/${taken}`);
  // She has asked for some before: who knows her samples has them again.
  await expect(sheet.getByText(/is the handler, as for the last request of the same person/)).toBeVisible();
  await sheet.getByRole('button', { name: /Handler/ }).click();
  await expect(maren.getByText('They handled the last request of the same person.')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.keyboard.press('Escape');

  for (const analyst of ['Emeric Vantongeren', 'Tilda Okonjo-Reyes']) await goesAway(maren, analyst);
  const left = await asksForAnalysis(priya);
  await maren.goto(`/floor/all/${left}`);
  await expect(
    sheet.getByText('Nobody of Analytical Lab could be made the handler. The leads got an email'),
  ).toBeVisible();
  await maren.goto('/mailroom');
  await maren.getByRole('searchbox').fill(left);
  await expect(maren.getByRole('listitem').filter({ hasText: 'Nobody can take it' }).first()).toBeVisible();

  await maren.goto(`/floor/all/${left}`);
  await sheet.getByRole('button', { name: 'Change …' }).click();
  await sheet.getByLabel('Team').selectOption({ label: 'Dive Safety' });
  await sheet.getByLabel('Why (optional, staff only)').fill('The laboratory is closed this week.');
  await sheet.getByRole('button', { name: 'Move and email the team' }).click();
  await expect(sheet.getByText('Moved to the team Dive Safety')).toBeVisible();
  await expect(sheet.getByText('The laboratory is closed this week.').first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  for (const analyst of ['Emeric Vantongeren', 'Tilda Okonjo-Reyes']) await comesBack(maren, analyst);
});
