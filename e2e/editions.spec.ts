import { type Browser, expect, type Page } from '@playwright/test';
import { heldBack, newestLink, overflows, pageOf, phone, release, seriousTrouble, test } from './people.ts';

/** Asks for a code at a page to sign in, reads it in the Mailroom, and enters it. */
async function comeIn(page: Page, email: string): Promise<void> {
  const codes = async (): Promise<readonly string[]> => {
    const { letters } = await (await page.request.get('/api/mailroom')).json();
    return letters.flatMap(({ id, to, subject }: { id: string; to: string; subject: string }) =>
      to.includes(email) && / is your code /.test(subject) ? [`${id} ${subject.slice(0, 6)}`] : [],
    );
  };
  // One that was sent before opens nothing any more.
  const before = await codes();
  const fresh = async (): Promise<string> => (await codes()).find((each) => !before.includes(each))?.slice(-6) ?? '';
  await page.getByLabel('Email address').fill(email);
  await page.getByRole('button', { name: 'Send me a code' }).click();
  await expect.poll(fresh).toMatch(/^\d{6}$/);
  await page.getByLabel('Code').fill(await fresh());
  await page.getByRole('button', { name: 'Sign in' }).click();
  await expect(page.getByLabel('Code')).toBeHidden();
}

/** A contact on a phone of their own, signed in by a code. */
async function contact(browser: Browser, email: string): Promise<Page> {
  const page = await phone(browser);
  await page.goto('/come-in');
  await comeIn(page, email);
  await page.getByRole('heading', { name: 'What do you need?' }).waitFor();
  return page;
}

/** The coordinator sets something of the door for people from outside, and puts it in force. */
async function atVisitDoor(browser: Browser, set: Readonly<Record<string, string>>): Promise<void> {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/doors');
  const card = maren.getByRole('region').filter({ hasText: '/ask/visit' }).first();
  await card.getByRole('button', { name: 'Change the door' }).click();
  for (const [label, option] of Object.entries(set))
    await card.getByLabel(label, { exact: true }).selectOption({ label: option });
  await card.getByRole('button', { name: 'Put in force now' }).click();
  await expect(card.getByRole('button', { name: 'Put in force now' })).toBeHidden();
  await maren.context().close();
}

/** A stranger asks with the link on a phone of their own and confirms by the email; gives the way to follow it. */
async function strangerAsks(
  page: Page,
  visitor: string,
  { name, email }: { name: string; email: string },
): Promise<string> {
  await page.goto('/ask/visit');
  await page.getByLabel('Who is coming?').fill(visitor);
  await page.getByLabel('Where are they from?').selectOption({ label: 'Another institute or firm' });
  await page.getByLabel('What do they come for?').fill('Kelp for a lecture');
  await page.getByLabel('First day on site').fill('3 Dec');
  await page.getByLabel('Last day on site').fill('4 Dec');
  await page.getByRole('radio', { name: 'No' }).check();
  await page.getByLabel('Your name').fill(name);
  await page.getByLabel('Your email address').fill(email);
  await page.getByRole('button', { name: 'Send and confirm' }).click();
  await expect(page.getByRole('heading', { name: 'One step is left: confirm by email' })).toBeVisible();
  await page.goto(await newestLink(page, email));
  await page.getByRole('button', { name: 'Confirm and send the request' }).click();
  await page.getByRole('link', { name: 'Follow your request' }).click();
  await expect(page.getByText('Kelp for a lecture')).toBeVisible();
  return page.url();
}

test('a stranger asks with the link, later sees only their own, and a link that was passed on asks again', async ({
  browser,
}) => {
  const [runa, wim] = [await phone(browser), await phone(browser)];
  const RUNA = { name: 'Runa Tveit', email: 'runa.tveit@kelp.example' };
  const hers = await strangerAsks(runa, 'Two students', RUNA);
  const WIM = { name: 'Wim Aarden', email: 'wim.aarden@reef.example' };
  const early = await strangerAsks(wim, 'A lecturer', WIM);
  expect(await overflows(runa)).toBe(false);
  expect(await seriousTrouble(runa)).toEqual([]);
  // Each sees what was sent with the address that they confirmed, and nothing of the other.
  await runa.goto('/come-in');
  await comeIn(runa, RUNA.email);
  await expect(runa.getByRole('link', { name: /Two students/ }).first()).toBeVisible();
  await expect(runa.getByText('A lecturer')).toHaveCount(0);
  // He has a new link sent, in place of the one he came by.
  await wim.getByRole('button', { name: 'Send me a new link and end this one' }).click();
  await expect(wim.getByRole('heading', { name: 'A new link is on its way to you' })).toBeVisible();
  const passed = await phone(browser);
  await passed.goto(early);
  await expect(passed.getByText('This link does not work any more.')).toBeVisible();
  const his = await newestLink(wim, WIM.email);
  // A link that was passed on opens it for whoever has it, until the door asks for a proof besides.
  await passed.goto(his);
  await expect(passed.getByText('Kelp for a lecture')).toBeVisible();
  await atVisitDoor(browser, { 'Follow the request': 'with a code by email, once on each device' });
  try {
    for (const [page, link] of [
      [passed, his],
      [passed, hers],
      [runa, his],
    ] as const) {
      await page.goto(link);
      await expect(page.getByRole('heading', { name: 'Is this your request?' })).toBeVisible();
      await expect(page.getByText('Kelp for a lecture')).toBeHidden();
    }
    expect(await seriousTrouble(passed)).toEqual([]);
    // Whoever proved on this device that the address is theirs goes on; elsewhere a code opens it.
    await runa.goto(hers);
    await expect(runa.getByText('Kelp for a lecture')).toBeVisible();
    await wim.goto(his);
    await wim.getByRole('link', { name: 'Sign in with a code by email' }).click();
    await comeIn(wim, WIM.email);
    await expect(wim.getByText('Kelp for a lecture')).toBeVisible();
    await expect(wim.getByRole('heading', { name: /A lecturer/ })).toBeVisible();
  } finally {
    // Others ask at this door as well.
    await atVisitDoor(browser, { 'Follow the request': 'with the link in the email' });
  }
});

test('three editions: one person caught, proved and looked at, then a change of the form reaching all', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/editions');
  const main = maren.getByRole('main');
  const aside = maren.getByRole('complementary', { name: 'Who gets what' });
  await expect(main.getByText('Leaves out Jory Blackadder-Finn')).toBeVisible();
  await aside.getByRole('searchbox').fill('jory');
  const jory = aside.getByRole('row', { name: /Jory Blackadder-Finn/ });
  await expect(jory).toContainText('3 Station staff');
  await expect(jory).toContainText('1: left out: Stores');
  expect(await seriousTrouble(maren)).toEqual([]);
  // Out of who is left out, it is theirs: said before the release, and taken back.
  await main.getByRole('button', { name: 'Contractors', exact: true }).click();
  await main.getByRole('button', { name: 'Remove Stores' }).click();
  await expect(jory).toContainText('1 Contractors');
  await expect(jory).toContainText('now gets: Station staff');
  await expect(main.getByText('One person gets “Contractors” in place of “Station staff”.')).toBeVisible();
  await maren.getByRole('button', { name: 'Undo' }).click();
  await expect(jory).toContainText('3 Station staff');
  // Something else for contractors: which is seen in the proof, whoever looks.
  await main.getByRole('combobox', { name: 'Change something …' }).selectOption({ label: 'Medical note' });
  const editor = main.getByRole('group', { name: 'What differs about “Medical note”' });
  await editor.getByLabel('On the form', { exact: true }).selectOption({ label: 'hidden' });
  await editor.getByRole('button', { name: 'Done with this' }).click();
  await expect(main.getByText('“Medical note” is hidden')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.getByRole('button', { name: 'Proof', exact: true }).click();
  const proof = maren.getByRole('complementary', { name: 'Proof' });
  await expect(proof.getByText('Anything medical we should know?')).toBeVisible();
  await proof.getByLabel('In which edition').selectOption({ label: 'in the edition: Contractors' });
  await expect(proof.getByRole('heading', { name: 'Come and work on site' })).toBeVisible();
  await expect(proof.getByText('Anything medical we should know?')).toBeHidden();
  // A change of the form itself, and all of it in force.
  await maren.goto('/workshop/site-access/questions');
  await main
    .getByRole('button', { name: /First day on site/ })
    .first()
    .click();
  await main.getByLabel('Help', { exact: true }).fill('The day they pass the gate.');
  await release(maren, (dialog) =>
    expect(dialog.getByText('Edition “Contractors”: “Medical note” is hidden.')).toBeVisible(),
  );
  const bram = await pageOf(browser, 'Bram Solheim');
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const maud = await contact(browser, 'maud.ferriter@haldane.example');
  const noor = await contact(browser, 'noor.castellan@corrin.example');
  for (const [page, door, asked, medical] of [
    [bram, 'come-on-site', 'Whom do you expect?', true],
    [priya, 'come-on-site', 'What do they come for?', true],
    [maud, 'visit', 'Which works, and who ordered them?', false],
    [noor, 'visit', 'Which project, and who here do you work with?', true],
  ] as const) {
    await page.goto(`/ask/${door}`);
    await expect(page.getByText(asked)).toBeVisible();
    await expect(page.getByText('The day they pass the gate.')).toBeVisible();
    await expect(page.getByText('Anything medical we should know?')).toHaveCount(medical ? 1 : 0);
  }
  await maren.goto('/workshop/site-access/editions');
  await main.getByRole('combobox', { name: 'On the right', exact: true }).selectOption({ label: 'Contractors' });
  await expect(main.getByText('“Medical note” is not there')).toBeVisible();
});

test('a contact signs in by a code on a phone, loses the network half-way, and goes on at a desk', async ({
  browser,
}) => {
  const maud = await phone(browser);
  await maud.goto('/ask/visit');
  await maud.getByRole('link', { name: 'Sign in with a code by email' }).click();
  expect(await seriousTrouble(maud)).toEqual([]);
  await comeIn(maud, 'maud.ferriter@haldane.example');
  // Where they were, in the form that is theirs.
  await expect(maud.getByRole('heading', { name: 'Come and work on site' })).toBeVisible();
  expect(await overflows(maud)).toBe(false);
  expect(await seriousTrouble(maud)).toEqual([]);
  await maud.getByLabel('Who is coming?').fill('Maud Ferriter');
  await expect(maud.getByText('Saved for you on any device until you send.')).toBeVisible();
  await maud.context().setOffline(true);
  await maud.getByLabel('Which works, and who ordered them?').fill('Crane on the quay');
  await expect(maud.getByText('Saved on this device until you send.')).toBeVisible();
  await maud.context().setOffline(false);
  const context = await browser.newContext({ viewport: { width: 1280, height: 800 } });
  const desk = await context.newPage();
  await desk.goto('/come-in');
  await comeIn(desk, 'maud.ferriter@haldane.example');
  await desk.getByRole('link', { name: 'Continue this form: Come and work on site' }).click();
  await expect(desk.getByLabel('Who is coming?')).toHaveValue('Maud Ferriter');
  await desk.getByLabel('Which works, and who ordered them?').fill('Crane on the quay, for Estates');
  await desk.getByLabel('Where are they from?').selectOption({ label: 'Haldane Lifting' });
  await desk.getByLabel('First day on site').fill('3 Dec');
  await desk.getByLabel('Last day on site').fill('4 Dec');
  await desk.getByRole('radio', { name: 'No' }).check();
  await desk.getByLabel('Fee in EUR').fill('120');
  await expect(desk.getByText('You ask as Maud Ferriter, maud.ferriter@haldane.example.')).toBeVisible();
  await desk.getByRole('button', { name: 'Send the request' }).click();
  const told = desk.getByText(/AC-\d{5}/).first();
  await told.waitFor();
  const number = /AC-\d{5}/.exec((await told.textContent()) ?? '')?.[0] ?? '';
  // On the phone it is theirs as well, and nothing is left to go on with.
  await maud.goto('/');
  await maud
    .getByRole('link', { name: /Maud Ferriter/ })
    .first()
    .click();
  await expect(maud.getByText(number).first()).toBeVisible();
  await maud.getByLabel(/Write to us/).fill('We come at eight.');
  const crane = { name: 'crane.pdf', mimeType: 'application/pdf', buffer: Buffer.from('%PDF-1.4\n%%EOF') };
  // A file on a slow line: nothing is sent without it.
  const arrives = await heldBack(maud, '**/message-files*');
  await maud.locator('input[type="file"]').setInputFiles(crane);
  await expect(maud.getByText('crane.pdf')).toBeVisible();
  await expect(maud.getByRole('button', { name: 'A file is still on its way …' })).toBeDisabled();
  arrives();
  await maud.getByRole('button', { name: 'Send the message' }).click();
  await expect(maud.getByText('We come at eight.')).toBeVisible();
  await expect(maud.getByRole('link', { name: 'crane.pdf' })).toBeVisible();
  expect(await overflows(maud)).toBe(false);
  // The desk lets people from outside withdraw until it is finished: on the phone she does.
  await atVisitDoor(browser, { Withdraw: 'until it is finished' });
  await maud.reload();
  await maud.getByRole('button', { name: 'Withdraw this request' }).click();
  await maud.getByRole('dialog').getByLabel(/Why/).fill('The crane is broken.');
  await maud.getByRole('dialog').getByRole('button', { name: 'Withdraw it' }).click();
  await expect(maud.getByText('Your request is withdrawn.')).toBeVisible();
  await atVisitDoor(browser, { Withdraw: 'never' });
  await expect(maud.getByRole('button', { name: 'Withdraw this request' })).toBeHidden();
  const ilse = await pageOf(browser, 'Ilse Brandvold');
  await ilse.goto(`/floor/all/${number}`);
  await expect(ilse.getByText('The crane is broken.').first()).toBeVisible();
  await maud.getByRole('button', { name: 'Maud Ferriter' }).click();
  await maud.getByRole('menuitem', { name: 'Sign out' }).click();
  await maud.goto(`/my/${number}`);
  await expect(maud.getByText('Crane on the quay')).toBeHidden();
});

test('a coordinator holds a form against itself: for two people, and at two moments', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/editions');
  const compared = maren.getByRole('region', { name: 'Side by side' });
  const side = (name: string) => compared.getByLabel(name, { exact: true });
  await side('On the left: for whom').selectOption({ label: 'Bram Solheim' });
  await side('On the right: for whom').selectOption({ label: 'Priya Nakamura-Lind' });
  await expect(side('On the left').locator('option:checked')).toHaveText('as they get it: Station staff');
  await side('On the right').selectOption({ label: 'as they get it: The form as it is' });
  await expect(compared.getByRole('row', { name: /Whom do you expect\?.*Who is coming\?/ })).toBeVisible();
  // The same person at another moment: the edition for staff is given while they ask, and not later.
  await side('On the right: for whom').selectOption({ label: 'Bram Solheim' });
  await side('On the right: when').selectOption({ label: 'opening a request at: In hand' });
  await expect(side('On the right').locator('option:checked')).toHaveText('as they get it: The form as it is');
  expect(await seriousTrouble(maren)).toEqual([]);
});
