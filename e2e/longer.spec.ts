import { type Browser, type BrowserContext, expect, type Page } from '@playwright/test';
import * as floorZone from '@tolvek/words/en/floorZone';
import * as front from '@tolvek/words/en/front';
import * as workshopZone from '@tolvek/words/en/workshopZone';
import { newestLink, phone, spilling, test } from './people.ts';

/** Every word of ours 40 % longer, as another language may have it; what is filled in and tags stay. */
const longer = (text: string): string =>
  text.replace(/\{\{[^}]*\}\}|<[^>]*>|\p{L}+/gu, (part) =>
    /^\p{L}/u.test(part) ? part + part.slice(-1).repeat(Math.ceil(part.length * 0.4)) : part,
  );

const ZONES = { front, floorZone, workshopZone } as const;

/** The pages of a browser speak a language that is 40 % longer than English. */
async function speakLonger(context: BrowserContext): Promise<void> {
  for (const [zone, areas] of Object.entries(ZONES)) {
    const texts = Object.entries(areas as Readonly<Record<string, Readonly<Record<string, string>>>>).map(
      ([area, names]) => {
        const long = Object.fromEntries(Object.entries(names).map(([name, text]) => [name, longer(text)]));
        return `export const ${area} = ${JSON.stringify(long)};`;
      },
    );
    await context.route(new RegExp(`/assets/${zone}-[^/]*\\.js$`), (route) =>
      route.fulfill({ contentType: 'text/javascript', body: texts.join('\n') }),
    );
  }
}

async function settled(page: Page): Promise<void> {
  await page.locator('h1, h2, [role=alert]').first().waitFor();
  await page.waitForLoadState('networkidle').catch(() => undefined);
}

test('a language 40 % longer runs over no edge of the Front desk on a phone', async ({ browser }) => {
  const stranger = await phone(browser);
  await speakLonger(stranger.context());
  let looked = 0;
  const look = async (what: string): Promise<void> => {
    await settled(stranger);
    looked += 1;
    expect([what, await spilling(stranger)]).toEqual([what, []]);
  };
  for (const path of ['/', '/ask/visit', '/ask/school-visit', '/sign-in', '/follow/nothing', '/sent/nothing']) {
    await stranger.goto(path);
    await look(path);
  }
  // What comes after sending: buttons are found by where they stand, as they are called otherwise here.
  await stranger.goto('/ask/visit');
  const send = stranger.locator('form button[type=submit]').last();
  await stranger.getByLabel('Who is coming?').fill('Sanne Eide');
  await send.click();
  await look('a form with mistakes');
  await stranger.getByLabel('Where are they from?').selectOption({ label: 'Haldane Lifting' });
  await stranger.getByLabel('What do they come for?').fill('The crane');
  await stranger.getByLabel('First day on site').fill('2026-12-02');
  await stranger.getByLabel('Last day on site').fill('2026-12-03');
  await stranger.getByRole('radio').nth(1).click();
  await stranger.getByLabel('Fee in EUR').fill('900');
  await stranger.locator('input[autocomplete=name]').fill('Wim Haldane');
  await stranger.locator('input[autocomplete=email]').first().fill('sanne.eide@haldane.example');
  await send.click();
  await stranger.getByText('sanne.eide@haldane.example').waitFor();
  await look('one step is left');
  await stranger.goto(await newestLink(stranger, 'sanne.eide@'));
  await look('to confirm');
  await stranger.locator('main button').first().click();
  await stranger.locator('a[href*="/follow/"]').click();
  await stranger.getByText('The crane').waitFor();
  await look('to follow');
  await stranger.goto(await newestLink(stranger, 'Sanne Eide', 'asks for your approval'));
  await look('to decide');
  await stranger.locator('main button').last().click();
  await stranger.getByRole('alert').waitFor();
  await look('to decide, without a reason');
  await stranger.goto('/follow/nothing');
  await expect(stranger.getByRole('alert')).toContainText('Checkkk thattt youuu');
  console.log(`${looked} pages at 360 px`);
});

/** Signed in by the address: buttons are called otherwise in a longer language. */
async function signedIn(browser: Browser, address: string): Promise<Page> {
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  await context.request.post('/api/auth/sign-in/email', {
    data: { email: `${address}@skerrow.example`, password: 'tolvek-demo' },
  });
  await speakLonger(context);
  return context.newPage();
}

/** Main pages by who uses them. */
const PAGES: Readonly<Record<string, readonly string[]>> = {
  'priya.nakamura.lind': ['/', '/ask/vessel-time', '/ask/come-on-site'],
  'ilse.brandvold': ['arrived', 'team', 'mine', 'paused', 'late', 'all', 'things'].map((tray) => `/floor/${tray}`),
  'tomas.achterberg': ['/floor/deciding'],
  'maren.okafor': [
    '/workshop',
    '/workshop/new',
    ...['', '/questions', '/rules', '/routing', '/approval', '/access', '/doors', '/sheets'].map(
      (page) => `/workshop/site-access${page}`,
    ),
    '/workshop/vessel-time/questions',
    '/workshop/kit-check/mailings',
    '/workshop/vessel-time/outside',
    '/workshop/vessel-time/rules',
    '/workshop/vessel-time/access',
    '/workshop/registers/vessel-time',
    '/workshop/registers/vessels',
    '/workshop/groundwork',
    '/workshop/groundwork/desk',
    '/workshop/groundwork/people',
    '/workshop/groundwork/groups/estates',
    '/workshop/groundwork/directory',
    '/workshop/groundwork/rights',
    '/workshop/groundwork/sign-in',
    '/workshop/groundwork/calendars',
    '/workshop/groundwork/registers',
    '/workshop/groundwork/vocabularies',
    '/workshop/groundwork/vocabularies/species',
    '/mailroom',
  ],
};

/** The views somebody finds, each in all its ways, and the reports. */
async function ownWays(page: Page): Promise<readonly string[]> {
  const got = async <T>(path: string): Promise<T> => (await page.request.get(`/api${path}`)).json() as Promise<T>;
  const { views = [] } = await got<{ views?: { id: string }[] }>('/views');
  const { reports = [] } = await got<{ reports?: { id: string }[] }>('/reports');
  const ways: string[] = reports.map(({ id }) => `/floor/reports/${id}`);
  for (const { id } of views) {
    const { view } = await got<{ view: { shapes: unknown[] } }>(`/views/${id}`);
    ways.push(...view.shapes.map((_, at) => `/floor/views/${id}?as=${at}`));
  }
  return ways.length > 0 ? [...ways, '/floor/times', '/floor/views/new'] : [];
}

test('a language 40 % longer runs over no edge of the Floor and the Workshop', async ({ browser }) => {
  let looked = 0;
  for (const [address, paths] of Object.entries(PAGES)) {
    const page = await signedIn(browser, address);
    for (const path of paths) {
      await page.goto(path);
      await settled(page);
      looked += 1;
      expect.soft([path, await spilling(page)]).toEqual([path, []]);
      const row = page.locator('tbody a').first();
      if (!path.startsWith('/floor') || (await row.count()) === 0) continue;
      await row.click();
      await page.getByRole('complementary').first().waitFor();
      await settled(page);
      looked += 1;
      expect.soft([`a sheet of ${path}`, await spilling(page)]).toEqual([`a sheet of ${path}`, []]);
    }
    for (const path of await ownWays(page)) {
      await page.goto(path);
      await settled(page);
      looked += 1;
      expect.soft([path, await spilling(page)]).toEqual([path, []]);
    }
    await page.context().close();
  }
  console.log(`${looked} pages at 1280 px`);
});
