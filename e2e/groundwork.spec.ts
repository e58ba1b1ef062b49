import { type ChildProcess, spawn } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { expect, type Locator, type Page } from '@playwright/test';
import { SMTPServer } from 'smtp-server';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

/** Beside the desks that the journeys go at. */
const OWN_PORT = Number(process.env.TOLVEK_E2E_PORT ?? 4390) + 9;

/** A production on an empty folder, with a mail server of its own. */
class Production {
  /** The emails that arrived, as they came. */
  readonly mail: string[] = [];
  firstStart = '';
  private readonly folder = mkdtempSync(join(tmpdir(), 'tolvek-production-'));
  private process: ChildProcess | null = null;
  private readonly smtp = new SMTPServer({
    ...{ authOptional: true, disableReverseLookup: true, disabledCommands: ['STARTTLS', 'AUTH'] },
    onData: (stream, _session, done) => {
      let text = '';
      stream.on('data', (part: Buffer) => (text += part.toString()));
      stream.on('end', () => {
        this.mail.push(text);
        done();
      });
    },
  });

  async open(): Promise<void> {
    await new Promise<void>((done) => this.smtp.listen(0, '127.0.0.1', done));
    const { port } = this.smtp.server.address() as { port: number };
    const env = {
      ...{
        PATH: process.env.PATH,
        LANG: 'en_GB.UTF-8',
        TOLVEK_LOG: 'error',
        TOLVEK_DATA: this.folder,
        PORT: String(OWN_PORT),
      },
      ...{ TOLVEK_SECRET: 'x'.repeat(40), TOLVEK_SMTP: `smtp://127.0.0.1:${port}` },
    };
    const root = resolve(import.meta.dirname, '..');
    const server = spawn(process.execPath, ['server/built/server.mjs'], { cwd: root, env });
    this.process = server;
    this.firstStart = await new Promise<string>((found, fail) => {
      let text = '';
      server.stdout.on('data', (part: Buffer) => {
        text += part.toString();
        const link = /http:\S+\/start\/\S+/.exec(text);
        if (link) found(link[0]);
      });
      server.once('exit', () => fail(new Error(`The application ended: ${text}`)));
    });
  }

  async close(): Promise<void> {
    const ended = new Promise((done) => this.process?.once('exit', done));
    this.process?.kill('SIGTERM');
    await ended;
    await new Promise<void>((done) => this.smtp.close(done));
    rmSync(this.folder, { recursive: true, force: true });
  }
}

/** Somebody at a page, whose presses and inputs are counted. */
class Hand {
  presses = 0;
  inputs = 0;
  constructor(readonly page: Page) {}

  async press(role: 'button' | 'link' | 'option' | 'radio', name: string | RegExp, within: Page | Locator = this.page) {
    this.presses += 1;
    await within
      .getByRole(role, { name, ...(typeof name === 'string' ? { exact: true } : {}) })
      .first()
      .click();
  }

  async type(label: string, text: string): Promise<void> {
    this.inputs += 1;
    await this.page.getByLabel(label, { exact: true }).first().fill(text);
  }

  async choose(label: string, option: string): Promise<void> {
    this.inputs += 1;
    await this.page.getByLabel(label, { exact: true }).selectOption({ label: option });
  }
}

test('from an empty folder to the first request: the desk, its hours, a team, a form and its release', async ({
  browser,
}) => {
  const production = new Production();
  await production.open();
  try {
    const context = await browser.newContext({ viewport: { width: 1280, height: 800 }, reducedMotion: 'reduce' });
    const page = await context.newPage();
    const hand = new Hand(page);
    await page.goto(production.firstStart);

    await hand.type('Name of the desk', 'Garden desk');
    await hand.type('Organisation', 'Tarn Hill Gardens');
    await hand.type('Email address of the desk', 'desk@tarnhill.example');
    await hand.type('Your name', 'Odile Marsh');
    await hand.type('Your email address', 'odile.marsh@tarnhill.example');
    await hand.type('Password', 'gulls over grey water');
    expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);
    await hand.press('button', 'Set up this desk');
    await expect(page.getByText('Next: Emails.')).toBeVisible();
    expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);

    await hand.press('link', 'Send a test email');
    await hand.press('button', 'Send me a test email');
    await expect(page.getByText('The mail server took the email to odile.marsh@tarnhill.example.')).toBeVisible();
    expect(production.mail.some((each) => /Subject: Test email from Garden desk/.test(each))).toBe(true);
    expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);

    await hand.press('link', 'What is set up');
    await hand.press('link', 'Set working hours');
    await hand.choose('Public holidays of', 'Ireland');
    await hand.press('button', /^Add holidays from/);
    await expect(page.getByLabel(/^Name of/).first()).toBeVisible();
    expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);
    await hand.press('button', 'Save the calendar');
    await expect(page.getByText('State 1')).toBeVisible();

    await hand.press('link', 'What is set up');
    await hand.press('link', 'Add a team');
    await hand.press('button', 'Add a group');
    await hand.type('Name', 'Gardeners');
    await hand.press('button', 'Add a group', page.getByRole('dialog'));
    await hand.press('button', 'Add people or a group');
    await hand.type('Person or group', 'odile');
    await hand.press('option', /Odile Marsh/);
    await hand.press('button', 'Add');
    await expect(page.getByText('1 person', { exact: true })).toBeVisible();
    expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);

    await hand.press('link', 'What is set up');
    await hand.press('link', 'Add people');
    await hand.press('button', 'Add a person');
    await hand.type('Name', 'Tansy Rowe');
    await hand.type('Email address', 'tansy.rowe@tarnhill.example');
    await hand.press('button', 'Add a person', page.getByRole('dialog'));
    await hand.press('button', 'Invite by email');
    await expect(page.getByText(/^invited on/).last()).toBeVisible();
    expect([await seriousTrouble(page), await spilling(page)]).toEqual([[], []]);

    await hand.press('link', 'What is set up');
    await hand.press('link', 'Build a form');
    await hand.press('radio', /A simple request/);
    await hand.type('Title', 'Something for the garden');
    await hand.press('button', 'Create the form');
    await hand.press('button', 'Release this draft …');
    await hand.press('button', 'Release number 1');
    await expect(page.getByText('Release 1 is in force')).toBeVisible();

    // Somebody who was invited chooses a password, and sends the first request.
    const letter = production.mail.find((each) => /Subject: Your access to Garden desk/.test(each)) ?? '';
    const welcome = /http:\/\/127\.0\.0\.1:\d+\/welcome\/[\w-]+/.exec(letter.replace(/=\r?\n/g, ''))?.[0] ?? '';
    const tansy = new Hand(await (await browser.newContext({ viewport: { width: 360, height: 740 } })).newPage());
    await tansy.page.goto(welcome);
    await tansy.type('New password', 'a wren in the quince');
    expect([await seriousTrouble(tansy.page), await spilling(tansy.page)]).toEqual([[], []]);
    await tansy.press('button', 'Save the password and sign in');
    await tansy.press('link', /Something for the garden/);
    await tansy.type('What do you need?', 'A rake');
    await tansy.press('button', 'Send the request');
    await expect(tansy.page.getByText(/SFTG-00001/).first()).toBeVisible();

    await hand.press('link', 'Floor');
    await expect(page.getByText('SFTG-00001').first()).toBeVisible();
    console.log('from an empty folder to the first request:', {
      inputs: hand.inputs + tansy.inputs,
      presses: hand.presses + tansy.presses,
    });
    expect(hand.inputs + tansy.inputs).toBeLessThanOrEqual(60);
    expect(hand.presses + tansy.presses).toBeLessThanOrEqual(40);
  } finally {
    await production.close();
  }
});

test('a holiday is added to a running calendar, looked at, done and taken back', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/groundwork/calendars/desk');
  await expect(maren.getByText('Due dates of these forms use this calendar')).toBeVisible();
  // What reads the day comes late: the name that was typed meanwhile stays.
  await maren.route(/\/Calendar-[^/]*\.js$/, (route) => setTimeout(() => void route.continue(), 1_000));
  await maren.getByLabel('Another day').fill('25 Nov 2026');
  await maren.getByLabel('Name of the day').fill('Storm');
  await expect(maren.getByLabel('Another day')).toHaveValue(/25 Nov(ember)? 2026/);
  await maren.getByRole('button', { name: 'Add the day' }).click();
  await expect(maren.getByLabel('Name of 25 Nov 2026')).toHaveValue('Storm');
  // What another calendar says comes in the same way, and is not in force either.
  const ics = ['BEGIN:VCALENDAR', 'VERSION:2.0', 'BEGIN:VEVENT', 'UID:1', 'SUMMARY:Lifeboat day'];
  await maren.getByLabel('Import an iCalendar file').setInputFiles({
    ...{ name: 'days.ics', mimeType: 'text/calendar' },
    buffer: Buffer.from([...ics, 'DTSTART;VALUE=DATE:20261209', 'END:VEVENT', 'END:VCALENDAR'].join('\r\n')),
  });
  await expect(maren.getByLabel('Name of 9 Dec 2026')).toHaveValue('Lifeboat day');
  await maren.getByRole('button', { name: 'Check the effect' }).click();
  const effect = maren.getByText(/^\d+ due dates change\./);
  await expect(effect).toBeVisible();
  const moved = Number(/^(\d+)/.exec((await effect.textContent()) ?? '')?.[1]);
  expect(moved).toBeGreaterThan(3);
  expect([await seriousTrouble(maren), await spilling(maren)]).toEqual([[], []]);
  await maren.getByRole('button', { name: 'Put in force now' }).click();
  await expect(maren.getByText(`The calendar is in force. ${moved} due dates changed.`)).toBeVisible();
  await maren
    .getByRole('button', { name: /^Go back to state/ })
    .first()
    .click();
  await maren.getByRole('button', { name: 'Check the effect' }).click();
  await expect(maren.getByText(`${moved} due dates change.`)).toBeVisible();
  await maren.getByRole('button', { name: 'Put in force now' }).click();
  await expect(maren.getByText(`The calendar is in force. ${moved} due dates changed.`).last()).toBeVisible();
});

test('somebody who left hands over what is still theirs, and it says before what becomes of it', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/groundwork/people');
  await maren.getByLabel('State', { exact: true }).selectOption({ label: 'Inactive' });
  await expect(maren.getByText(/^\d+ to hand over$/)).toBeVisible();
  await maren.getByRole('link', { name: 'Cormac Dewhurst' }).click();
  const open = maren.getByText(/^\d+ unfinished requests?$/).first();
  const count = Number(/^\d+/.exec((await open.textContent()) ?? '')?.[0]);
  await maren.getByRole('button', { name: 'Hand over everything …' }).click();
  const dialog = maren.getByRole('dialog');
  await expect(dialog.getByText(/go(es)? back to (its|their) team/)).toBeVisible();
  await dialog.getByLabel(/^Who takes over/).fill('ilse');
  await maren.getByRole('option', { name: /Ilse Brandvold/ }).click();
  await expect(dialog.getByText(new RegExp(`^Ilse Brandvold becomes the handler of ${count} request`))).toBeVisible();
  expect([await seriousTrouble(maren), await spilling(maren)]).toEqual([[], []]);
  await dialog.getByRole('button', { name: 'Hand over and make inactive' }).click();
  await expect(maren.getByText('Cormac Dewhurst is inactive.').first()).toBeVisible();
  await expect(maren.getByText('Nothing depends on this person.')).toBeVisible();
  await expect(maren.getByText('In no group.')).toBeVisible();
});
