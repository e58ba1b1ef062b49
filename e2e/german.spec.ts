import { type Browser, expect, type Page } from '@playwright/test';
import { all } from '@tolvek/words/all';
import { answers } from '@tolvek/words/de/answers';
import { desk } from '@tolvek/words/de/desk';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

/** Every text of ours that reads otherwise in German, but for those with places in them. */
const ENGLISH = new Set(
  Object.entries(all.en).flatMap(([area, texts]) =>
    Object.entries(texts)
      .filter(([name, text]) => !text.includes('{{') && text !== all.de[area]?.[name] && /\p{L}{2}/u.test(text))
      .map(([, text]) => text),
  ),
);
/** Words of the demo’s people, and of forms that are not there in German, that read as a text of ours. */
const THEIRS = new Set(['Yes', 'No', 'Team', 'Arrived', 'Reason', 'Name']);

const german = { locale: 'de-DE', viewport: { width: 360, height: 740 }, hasTouch: true } as const;
const phoneOf = async (browser: Browser): Promise<Page> => (await browser.newContext(german)).newPage();

/** A page is in German, fits, and shows no key: looked at after each step. */
async function isGerman(page: Page): Promise<void> {
  await page.locator('main').first().waitFor();
  const lines = (await page.locator('body').innerText()).split('\n').map((line) => line.trim());
  expect(lines.filter((line) => ENGLISH.has(line) && !THEIRS.has(line))).toEqual([]);
  expect(lines.filter((line) => /^[a-z][a-zA-Z]+:[a-zA-Z][\w.-]*$/.test(line))).toEqual([]);
  expect(await spilling(page)).toEqual([]);
  expect(await page.locator('html').getAttribute('lang')).toBe('de');
}

/** The newest email with these words in its subject, opened; what it says, and where its button leads. */
async function emailOf(page: Page, words: string, to: string): Promise<{ text: string; link: string }> {
  await page.goto('/mailroom');
  await page.getByRole('searchbox').fill(words);
  await page.getByRole('listitem').filter({ hasText: to }).first().getByRole('link').click();
  const email = page.frameLocator('iframe').locator('body');
  await expect(email).toContainText('Skerrow');
  const link = await page.frameLocator('iframe').locator('a').first().getAttribute('href');
  return { text: await email.innerText(), link: link ?? '' };
}

test('somebody from outside sends a request in German on a phone, corrects the address, confirms and follows it', async ({
  browser,
}) => {
  const jonas = await phoneOf(browser);
  await jonas.goto('/');
  await isGerman(jonas);
  await jonas.getByRole('link', { name: 'Auf die Station kommen' }).click();
  await jonas.getByLabel('Wer kommt?').fill('Jonas Eide');
  await jonas.getByRole('button', { name: desk.sendAndConfirm }).click();
  const summary = jonas.getByRole('alert');
  await expect(summary).toContainText('Bitte korrigieren Sie');
  await expect(summary).toContainText('„Wozu kommt die Person?“ ist noch nicht beantwortet.');
  await isGerman(jonas);

  await jonas.getByLabel('Woher kommt die Person?').selectOption({ label: 'Ein anderes Institut, eine andere Firma' });
  await jonas.getByLabel('Wozu kommt die Person?').fill('Kranprüfung');
  // Days as people write them, in their language and in another.
  await jonas.getByLabel('Erster Tag auf der Station').fill('2. Dez');
  await jonas.getByLabel('Letzter Tag auf der Station').fill('3 dec');
  await jonas.getByLabel('Letzter Tag auf der Station').blur();
  await expect(jonas.getByLabel('Erster Tag auf der Station')).toHaveValue('Mi., 2. Dezember 2026');
  await expect(jonas.getByLabel('Letzter Tag auf der Station')).toHaveValue('Do., 3. Dezember 2026');
  // Whoever goes over to the other language and back finds all they typed.
  await jonas.getByRole('button', { name: 'English' }).click();
  await expect(jonas.getByLabel('What do they come for?')).toHaveValue('Kranprüfung');
  await expect(jonas.getByLabel('First day on site')).toHaveValue('Wed 2 December 2026');
  await jonas.getByRole('button', { name: 'Deutsch' }).click();
  await expect(jonas.getByLabel('Wozu kommt die Person?')).toHaveValue('Kranprüfung');
  await jonas.getByRole('radio', { name: 'Nein' }).first().click();
  await jonas.getByLabel('Entgelt in EUR').fill('1.148,00');
  await jonas.getByLabel(answers.yourName).fill('Wim Haldane');
  await jonas.getByLabel(answers.yourEmail).fill('wim.haldan@haldane.example');
  await isGerman(jonas);
  await jonas.getByRole('button', { name: desk.sendAndConfirm }).click();
  await expect(jonas.getByRole('heading', { name: desk.oneStepLeft })).toBeVisible();
  await expect(jonas.getByText('wim.haldan@haldane.example').first()).toBeVisible();
  await isGerman(jonas);

  // The address is corrected on the page itself, and nothing is typed anew.
  await jonas.getByLabel(desk.emailAddressNow).fill('wim.haldane@haldane.example');
  await jonas.getByRole('button', { name: desk.sendEmailAgain }).click();
  await expect(jonas.getByText('wim.haldane@haldane.example').first()).toBeVisible();
  await isGerman(jonas);

  const email = await emailOf(jonas, 'Bitte bestätigen Sie Ihre Anfrage', 'wim.haldane@');
  expect(email.text).toContain('Wir haben Ihre Anfrage noch nicht.');
  await jonas.goto(email.link);
  await isGerman(jonas);
  await jonas.getByRole('button', { name: desk.confirmAndSend }).click();
  await expect(jonas.getByRole('heading', { name: desk.thanksArrived })).toBeVisible();
  await isGerman(jonas);
  await jonas.getByRole('link', { name: desk.followRequest }).click();
  await expect(jonas.getByText('Kranprüfung')).toBeVisible();
  await expect(jonas.getByRole('heading', { name: /Jonas Eide, Ein anderes Institut/ })).toBeVisible();
  await expect(jonas.getByText('Auf die Station kommen').first()).toBeVisible();
  await isGerman(jonas);

  const received = await emailOf(jonas, 'Wir haben Ihre Anfrage erhalten', 'wim.haldane@');
  expect(received.text).toContain('Danke');
  expect(received.text).toMatch(/Anlass\s+Kranprüfung/);
  await jonas.goto(email.link);
  await expect(jonas.getByRole('alert')).toBeVisible();
  await isGerman(jonas);
});

test('an approver chooses German, and decides from the email on a phone', async ({ browser }) => {
  const priya = await browser.newContext();
  await priya.request.post('/api/auth/sign-in/email', {
    data: { email: 'priya.nakamura.lind@skerrow.example', password: 'tolvek-demo' },
  });
  const tomas = await (await browser.newContext({ viewport: { width: 1280, height: 800 } })).newPage();
  await tomas.goto('/sign-in');
  await tomas.getByRole('button', { name: /Tomas Achterberg/ }).click();
  await tomas.getByRole('heading', { name: 'What do you need?' }).waitFor();
  await tomas.getByRole('button', { name: /Tomas Achterberg/ }).click();
  await tomas.getByRole('menuitem', { name: 'Deutsch' }).click();
  await expect(tomas.getByRole('heading', { name: desk.whatNeeded })).toBeVisible();
  await isGerman(tomas);

  try {
    const asking = await priya.newPage();
    await asking.goto('/ask/come-on-site');
    await asking.getByLabel('Who is coming?').fill('Sanna Virtala');
    await asking.getByLabel('Where are they from?').selectOption({ label: 'Haldane Lifting' });
    await asking.getByLabel('What do they come for?').fill('A look at the crane');
    await asking.getByLabel('First day on site').fill('2026-12-08');
    await asking.getByLabel('Last day on site').fill('2026-12-09');
    await asking.getByRole('radio', { name: 'No' }).first().click();
    await asking.getByLabel('Fee in EUR').fill('900');
    await asking.getByRole('button', { name: /^Send/ }).click();
    await asking.getByRole('heading', { name: 'Thank you. We received your request.' }).waitFor();

    const phone = await phoneOf(browser);
    const email = await emailOf(phone, 'Sanna Virtala', 'Tomas Achterberg');
    expect(email.text).toContain('bittet um Ihre Genehmigung');
    expect(email.text).toContain('Leiten Sie diesen Link nicht weiter.');
    await phone.goto(email.link);
    await expect(phone.getByRole('heading', { name: /Sanna Virtala/ })).toBeVisible();
    await isGerman(phone);
    await phone.getByRole('button', { name: all.de.common?.refuse ?? '' }).click();
    await expect(phone.getByRole('alert')).toBeVisible();
    await isGerman(phone);
    await phone.getByLabel(all.de.common?.comment ?? '').fill('Der Kran ist an diesen Tagen außer Betrieb.');
    await phone.getByRole('button', { name: all.de.common?.refuse ?? '' }).click();
    await expect(phone.getByRole('heading', { name: desk.notApproved })).toBeVisible();
    await isGerman(phone);
    await phone.goto(email.link);
    await expect(phone.getByRole('alert')).toContainText('schon entschieden');
    await isGerman(phone);
    // Whoever reads English is told in English.
    const told = await emailOf(asking, 'Not approved', 'Priya');
    expect(told.text).toContain('Tomas Achterberg did not approve your request.');
    expect(told.text).toContain('Der Kran ist an diesen Tagen außer Betrieb.');
  } finally {
    await tomas.request.put('/api/me/language', { data: { language: 'en' } });
  }
});

test('a coordinator says a form in German, sees it so, and is told what has changed since', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/rooms/languages');
  await maren.getByRole('button', { name: 'Also in Deutsch' }).click();
  const german = maren.getByRole('region', { name: 'Deutsch' });
  const [first] = await german.getByRole('listitem').all();
  await expect(first?.getByText('Title') ?? german).toBeVisible();
  await first?.getByRole('textbox').fill('Einen Raum buchen');
  const proof = maren.getByRole('complementary', { name: 'Proof' });
  await proof.getByLabel('In which language it is shown').selectOption('de');
  await expect(proof.getByRole('heading', { name: 'Einen Raum buchen' })).toBeVisible();
  // What is translated stays where it is while one types; what is left is counted, and found.
  await expect(first?.getByRole('textbox') ?? german).toHaveValue('Einen Raum buchen');
  await expect(german.getByText(/^1 of \d+ texts translated$/)).toBeVisible();
  await expect(maren.getByText(/Deutsch: \d+ texts are not translated/).first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  expect(await spilling(maren)).toEqual([]);

  await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
  await maren.goto('/workshop/rooms/questions');
  await maren.getByRole('textbox').first().fill('Book a room at the station');
  await expect(maren.getByText(/Deutsch: 1 text has changed since it was translated/)).toBeAttached();
  await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
  await maren.goto('/workshop/rooms/languages');
  await maren.getByRole('button', { name: 'The translation is still right' }).click();
  await expect(maren.getByText(/1 text has changed since it was translated/)).toHaveCount(0);
  await maren.getByRole('button', { name: /No longer in Deutsch/ }).click();
  await expect(maren.getByRole('button', { name: 'Also in Deutsch' })).toBeVisible();
});
