import { join } from 'node:path';
import { type Browser, type BrowserContext, chromium, type Page } from '@playwright/test';
import { addressOf } from '@tolvek/demo';
import { DEMO_PASSWORD } from '@tolvek/server';
import { largeForm } from './analysis.ts';
import { type Figure, figure, median } from './figure.ts';
import { Part } from './processes.ts';

/** So often each is done; the first of them warms up. */
const TIMES = 12;
/** What is watched for longer than this does not come, ms. */
const NEVER = 10_000;

/**
 * What a person waits for, in a real browser: from the event to what it changed being painted. The limits
 * are those a person feels, ms, so that the ratio is to them.
 */
export async function measureBrowser(folder: string, tell: (figures: readonly Figure[]) => void): Promise<void> {
  const desk = await Part.start('./desk.process.ts', [join(folder, 'browser'), '400', '']);
  const url = await desk.ask<string>('url');
  const browser = await chromium.launch({
    executablePath: process.env.CHROMIUM ?? '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--no-first-run'],
  });
  try {
    const maren = await signedIn(browser, url);
    const [form, number] = await made(maren, url);
    tell(await proof(maren, `${url}/workshop/${form}`));
    tell([await sheets(maren, url, number)]);
    tell(await phone(browser, `${url}/ask/visit`));
  } finally {
    await browser.close();
    await desk.stop();
  }
}

async function opened(browser: Browser, viewport: { width: number; height: number }): Promise<BrowserContext> {
  const context = await browser.newContext({ viewport });
  // What is measured is written in TypeScript, whose names the page doesn’t know.
  await context.addInitScript('globalThis.__name = (named) => named');
  return context;
}

async function signedIn(browser: Browser, url: string): Promise<Page> {
  const context = await opened(browser, { width: 1280, height: 800 });
  const data = { email: addressOf('Maren Okafor'), password: DEMO_PASSWORD };
  const answer = await context.request.post(`${url}/api/auth/sign-in/email`, { data, headers: { origin: url } });
  if (!answer.ok()) throw new Error(await answer.text());
  return context.newPage();
}

/** A form with 300 questions and 150 rules, and some requests to open. */
async function made(page: Page, url: string): Promise<[form: string, numbers: readonly string[]]> {
  const { request } = page.context();
  const { draft } = (await (await request.get(`${url}/api/forms/site-access`)).json()) as { draft: object };
  const { form } = largeForm();
  const body = {
    ...{ prefix: 'LF', desk: 'estates', doors: { staff: true, outside: false } },
    draft: { ...draft, title: 'Large', subject: '{f1}', unique: [], ...form, routing: NO_ROUTING },
  };
  const headers = { origin: url, 'Idempotency-Key': crypto.randomUUID() };
  const created = await request.post(`${url}/api/forms`, { data: body, headers });
  if (!created.ok()) throw new Error(await created.text());
  const { key } = (await created.json()) as { key: string };
  const rows = (await (await request.get(`${url}/api/requests?tray=all`)).json()) as { rows: { number: string }[] };
  return [key, rows.rows.slice(0, TIMES + 1).map(({ number }) => number)];
}

const OUTCOME = { team: 'estates', priority: 'normal', workingDays: 3, path: null };
const NO_ROUTING = { columns: [], rows: [], otherwise: OUTCOME };

/**
 * Does something and waits for words to be painted where a selector says, ms. The time begins with the event, as
 * the browser has it, and ends after the frame in which the words stand.
 *
 * @throws when they don’t come.
 */
async function toPainted(page: Page, does: () => Promise<void>, where: string, words: string): Promise<number> {
  await page.evaluate(
    ([selector, text, most]) => {
      const at = window as unknown as { painted: Promise<number> };
      let began = 0;
      const begin = (event: Event): void => {
        if (began === 0) began = event.timeStamp;
      };
      for (const kind of ['pointerdown', 'keydown'])
        window.addEventListener(kind, begin, { capture: true, once: true });
      at.painted = new Promise((done, fail) => {
        setTimeout(() => fail(new Error(`“${text}” did not come.`)), most);
        const watching = new MutationObserver(() => {
          if (began === 0 || !document.querySelector(selector)?.textContent?.includes(text)) return;
          watching.disconnect();
          // A message comes when the frame in which it stands was painted.
          requestAnimationFrame(() => {
            const channel = new MessageChannel();
            channel.port1.onmessage = () => done(performance.now() - began);
            channel.port2.postMessage(null);
          });
        });
        watching.observe(document.body, { subtree: true, childList: true, characterData: true });
      });
      at.painted.catch(() => undefined);
    },
    [where, words, NEVER] as const,
  );
  await does();
  return page.evaluate(() => (window as unknown as { painted: Promise<number> }).painted);
}

/** Medians need no more than this; the first is not counted. */
async function each(does: (place: number) => Promise<number>): Promise<readonly number[]> {
  const took: number[] = [];
  for (let place = 0; place < TIMES; place += 1) took.push(await does(place));
  return took.slice(1);
}

const LARGE = 'a form with 300 questions and 150 rules';

async function proof(page: Page, address: string): Promise<readonly Figure[]> {
  await page.goto(address);
  const questions = page.getByRole('main');
  const aside = page.getByLabel('Proof', { exact: true });
  await aside.locator('#proof-f2').waitFor();
  await questions.locator('#at-f2 button[aria-expanded]').click();
  const asks = questions.locator('#asks-f2');
  await asks.fill('Which');
  await page.waitForTimeout(1_500);
  const changed = await each((place) =>
    toPainted(page, () => asks.press('x'), '#proof-f2-label', `Which${'x'.repeat(place + 1)}`),
  );
  // A letter typed into the proof is on the screen, and the rules have looked at it.
  const typed = aside.locator('#proof-f2');
  await typed.click();
  const letters = await each(async () => {
    await page.waitForTimeout(120);
    return keystroke(page, () => page.keyboard.press('a'));
  });
  return [
    figure(
      `A change of a question painted in the proof of ${LARGE}, ms; limit: what a person feels`,
      changed,
      [100],
      1,
    ),
    figure(`A letter painted in the proof of ${LARGE}, ms; limit: what a person feels`, letters, [50], 1),
  ];
}

/** From a key to the next frame that was painted, ms. */
async function keystroke(page: Page, press: () => Promise<void>): Promise<number> {
  await page.evaluate(() => {
    const at = window as unknown as { painted: Promise<number> };
    at.painted = new Promise((done) =>
      window.addEventListener(
        'keydown',
        (event) =>
          requestAnimationFrame(() => {
            const painted = new MessageChannel();
            painted.port1.onmessage = () => done(performance.now() - event.timeStamp);
            painted.port2.postMessage(null);
          }),
        { capture: true, once: true },
      ),
    );
  });
  await press();
  return page.evaluate(() => (window as unknown as { painted: Promise<number> }).painted);
}

/** A sheet, from the press on its row in the ledger. */
async function sheets(page: Page, url: string, numbers: readonly string[]): Promise<Figure> {
  await page.goto(`${url}/floor/all`);
  await page.locator(`a[href*="${numbers[0]}"]`).first().waitFor();
  // One is open already: the page beside the ledger is there.
  const took = await each(async (place) => {
    const number = numbers[place + 1] ?? '';
    const row = page.locator(`a[href*="${number}"]`).first();
    await page.waitForTimeout(150);
    return toPainted(page, () => row.click(), 'article > div > p', `${number} ·`);
  });
  return figure('A request sheet opened from the ledger, ms; limit: what a person feels', took, [120], 1);
}

/** A phone, four times slower, over a slow line: until one can type, and each letter. */
async function phone(browser: Browser, address: string): Promise<readonly Figure[]> {
  const ready: number[] = [];
  const letters: number[] = [];
  const sizes: number[] = [];
  for (let time = 0; time < 5; time += 1) {
    const context = await opened(browser, { width: 360, height: 740 });
    const page = await context.newPage();
    const devtools = await context.newCDPSession(page);
    await devtools.send('Emulation.setCPUThrottlingRate', { rate: 4 });
    await devtools.send('Network.enable');
    // 1.6 Mbit/s and 150 ms, as of a mobile line that is called slow.
    const line = { downloadThroughput: 200_000, uploadThroughput: 94_000, latency: 150 };
    await devtools.send('Network.emulateNetworkConditions', { offline: false, ...line });
    await page.addInitScript(() => {
      const at = window as unknown as { ready: Promise<number> };
      at.ready = new Promise((done) => {
        const watching = new MutationObserver(() => {
          if (!document.querySelector('input[id^="answer-"]')) return;
          watching.disconnect();
          requestAnimationFrame(() => {
            const channel = new MessageChannel();
            channel.port1.onmessage = () => done(performance.now());
            channel.port2.postMessage(null);
          });
        });
        watching.observe(document, { subtree: true, childList: true });
      });
    });
    await page.goto(address, { waitUntil: 'commit' });
    // Since the address was called, as the page knows it.
    ready.push(await page.evaluate(() => (window as unknown as { ready: Promise<number> }).ready));
    sizes.push(await page.evaluate(sizeOfFirstPage));
    await page.getByLabel('Who is coming?').click();
    const here: number[] = [];
    for (let letter = 0; letter < 40; letter += 1) {
      await page.waitForTimeout(90);
      here.push(await keystroke(page, () => page.keyboard.press('b')));
    }
    letters.push(here.toSorted((a, b) => a - b)[Math.floor(here.length * 0.95)] ?? median(here));
    await context.close();
  }
  return [
    figure(
      'Until one can type on a phone four times slower, over 1.6 Mbit/s with 150 ms, ms; limit: two seconds',
      ready,
      [2_000],
      1,
    ),
    figure('A letter on that phone, the 95th of a hundred, ms; limit: what a person feels', letters, [100], 1),
    figure('What comes to that phone until then, without fonts, kB; limit: what was promised', sizes, [180], 1),
  ];
}

/** What came over the line until one could type, in kB (1,000 bytes), heads of answers included. */
const sizeOfFirstPage = async (): Promise<number> => {
  const until = await (window as unknown as { ready: Promise<number> }).ready;
  const came = [...performance.getEntriesByType('navigation'), ...performance.getEntriesByType('resource')];
  return came
    .filter(({ name }) => !name.endsWith('.woff2'))
    .filter((each) => (each as PerformanceResourceTiming).responseEnd <= until)
    .reduce((sum, each) => sum + (each as PerformanceResourceTiming).transferSize / 1_000, 0);
};
