import { expect, type Page } from '@playwright/test';
import { asksForAnalysis, pageOf, seriousTrouble, spilling, test } from './people.ts';

/** A number at the end of a line, such as the error of a forecast. */
const numberIn = async (page: Page, name: string): Promise<number> =>
  Number(await page.locator('dl > div').filter({ hasText: name }).getByRole('definition').textContent());

/** Makes somebody the handler of a request. */
async function give(page: Page, number: string, name: string): Promise<void> {
  await page.goto(`/floor/all?find=${number}`);
  await page.getByRole('button', { name: 'Select several' }).click();
  await page.getByRole('checkbox', { name: `Select ${number}` }).check();
  await page.getByRole('button', { name: 'Change team, handler or priority …' }).click();
  const giving = page.getByRole('dialog');
  await giving.getByLabel('Handler').selectOption({ label: name });
  await giving.getByRole('button', { name: 'Change 1 request' }).click();
  await expect(page.getByRole('row', { name: new RegExp(number) })).toContainText(name);
}

test('the forecast names what will be late and what would help; done, it helps', async ({ browser }) => {
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const number = await asksForAnalysis(priya);
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto(`/floor/all?find=${number}`);
  const row = maren.getByRole('row', { name: new RegExp(number) });
  await expect(row).toContainText(/Emeric|Tilda/);
  const analysts = ['Emeric Vantongeren', 'Tilda Okonjo-Reyes'] as const;
  const [handler, other] = ((await row.textContent()) ?? '').includes('Tilda') ? analysts.toReversed() : analysts;

  // Whoever has it in hand goes away for weeks.
  const theirs = await pageOf(browser, handler ?? '');
  await theirs.request.post('/api/me/absences', {
    headers: { Origin: new URL(theirs.url()).origin, 'Idempotency-Key': crypto.randomUUID() },
    data: { from: '2026-11-23', until: '2026-12-20', substitute: null },
  });
  await maren.goto('/floor/arrived');
  await maren.getByRole('link', { name: 'Forecast' }).click();
  await maren.getByRole('heading', { name: 'Forecast' }).waitFor();
  const line = maren.getByRole('listitem').filter({ hasText: number }).filter({ hasText: 'Due' });
  await expect(line).toContainText(`${handler} is away until`);
  await expect(line).toContainText(/(100|9\d) % late/);
  await expect(
    maren.getByRole('listitem').filter({ hasText: `Others in the team take over what ${handler} has in hand` }),
  ).toContainText(/fewer would be late/);
  // It says how right it was, beside guesses.
  await expect(maren.getByText('Error of this forecast')).toBeVisible();
  const error = await numberIn(maren, 'Error of this forecast');
  expect(error).toBeLessThan(await numberIn(maren, 'Error of “nothing is ever late”'));
  expect(error).toBeLessThan(await numberIn(maren, 'Error of “each takes as long as usual”'));
  expect(await seriousTrouble(maren)).toEqual([]);
  expect(await spilling(maren)).toEqual([]);
  // A change of one's own is tried.
  await maren.getByLabel('Team', { exact: true }).selectOption({ label: 'Boats' });
  await maren.getByLabel('By', { exact: true }).selectOption({ label: '4 hours' });
  await maren.getByRole('button', { name: 'Try the change' }).click();
  await expect(maren.getByRole('status').filter({ hasText: /late|help/ })).toBeVisible();

  // What it says would help is done.
  await give(maren, number, other ?? '');
  await maren.goto('/floor/forecast');
  await maren.getByText('Error of this forecast').waitFor();
  await expect(line.filter({ hasText: `${handler} is away until` })).toHaveCount(0);
});
