import { type Browser, type BrowserContext, expect, type Page, test } from '@playwright/test';
import * as floorZone from '@tolvek/words/en/floorZone';
import * as front from '@tolvek/words/en/front';
import * as workshopZone from '@tolvek/words/en/workshopZone';
import { phone, spilling } from './people.ts';

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
    '/workshop/vessel-time/rules',
    '/workshop/vessel-time/access',
    '/workshop/registers/vessel-time',
    '/workshop/registers/vessels',
    '/workshop/vocabularies',
    '/workshop/vocabularies/species',
    '/mailroom',
  ],
};

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
    await page.context().close();
  }
  console.log(`${looked} pages at 1280 px`);
});
