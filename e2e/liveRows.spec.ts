import { expect, type Page } from '@playwright/test';
import { pageOf, seriousTrouble, test } from './people.ts';

/** Asks for a visit, and says its number. */
async function asks(page: Page, visitor: string, arrival: string): Promise<string> {
  const door = await (await page.request.get('/api/doors/come-on-site')).json();
  const sent = await page.request.post('/api/doors/come-on-site/requests', {
    headers: { 'Idempotency-Key': crypto.randomUUID(), Origin: new URL(page.url()).origin },
    data: {
      answers: {
        ...{ visitor, institute: 'other', reason: 'A talk', arrival, departure: arrival, works_on_water: false },
      },
      release: door.form.release,
    },
  });
  expect(sent.status(), await sent.text()).toBe(200);
  return (await sent.json()).number;
}

async function changes(page: Page, number: string, change: object): Promise<void> {
  const { version } = await (await page.request.get(`/api/requests/${number}`)).json();
  const done = await page.request.patch(`/api/requests/${number}/fields`, {
    headers: { 'If-Match': `"${version}"`, Origin: new URL(page.url()).origin },
    data: { changes: change },
  });
  expect(done.status(), await done.text()).toBe(200);
}

test('what others change is seen in its row at once; what comes, moves or leaves is said, and nothing jumps', async ({
  browser,
}) => {
  const [priya, maren, ilse] = await Promise.all([
    pageOf(browser, 'Priya Nakamura-Lind'),
    pageOf(browser, 'Maren Okafor'),
    pageOf(browser, 'Ilse Brandvold', { width: 1280, height: 800 }),
  ]);
  const [first, second, third] = [
    await asks(priya, 'Lumen One', '2027-03-01'),
    await asks(priya, 'Lumen Two', '2027-03-02'),
    await asks(priya, 'Lumen Three', '2027-03-03'),
  ];
  const made = await ilse.request.post('/api/views', {
    headers: { 'Idempotency-Key': crypto.randomUUID(), Origin: new URL(ilse.url()).origin },
    data: {
      view: {
        ...{ name: 'Lumen House', of: ['site-access'], when: 'contains(visitor, "Lumen")', groups: [], marks: [] },
        columns: ['request.number', 'visitor', 'escort', 'arrival'].map((of) => ({ of })),
        ...{ orders: [{ of: 'arrival', down: false }], shapes: [{ is: 'table' }], audience: null },
      },
    },
  });
  const asked: string[] = [];
  ilse.on('request', (request) => asked.push(new URL(request.url()).pathname));
  await ilse.goto(`/floor/views/${(await made.json()).id}`);
  const table = ilse.getByRole('grid', { name: 'Rows of the view' });
  const shown = () => table.locator('tr[data-number]').evaluateAll((rows) => rows.map((row) => row.dataset.number));
  const row = (number: string) => table.locator(`tr[data-number="${number}"]`);
  await expect.poll(shown).toEqual([first, second, third]);
  const looks = () => asked.filter((path) => path === '/api/views/look').length;
  const before = looks();

  await changes(maren, second, { escort: 'Pia' });
  await expect(row(second).locator('td').nth(2)).toHaveText('Pia');
  await expect(ilse.getByRole('button', { name: /: show$/ })).toHaveCount(0);

  const fourth = await asks(priya, 'Lumen Four', '2027-02-20');
  await expect(ilse.getByRole('button', { name: '1 new: show' })).toBeVisible();
  await changes(maren, third, { arrival: '2027-02-21', departure: '2027-03-09' });
  await expect(ilse.getByRole('button', { name: '1 new, 1 stands elsewhere now: show' })).toBeVisible();
  await changes(maren, first, { visitor: 'Somebody else' });
  const news = ilse.getByRole('button', { name: '1 new, 1 stands elsewhere now, 1 left the view: show' });
  await expect(news).toBeVisible();
  await expect(row(first)).toContainText('not in this view any more');
  expect(await shown()).toEqual([first, second, third]);
  expect(looks()).toBe(before);
  expect(await seriousTrouble(ilse)).toEqual([]);

  await news.click();
  await expect.poll(shown).toEqual([fourth, third, second]);
  await expect(news).toHaveCount(0);
  // The way is open again where the line was cut: what came meanwhile is read.
  await ilse.context().setOffline(true);
  await changes(maren, second, { escort: 'Odd' });
  await ilse.context().setOffline(false);
  await expect(row(second).locator('td').nth(2)).toHaveText('Odd', { timeout: 20_000 });
});
