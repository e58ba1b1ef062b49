import { type Browser, expect, type Page, test } from '@playwright/test';
import { overflows, pageOf, phone, seriousTrouble } from './people.ts';

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
  await maren.getByRole('button', { name: 'Release this draft …' }).click();
  const dialog = maren.getByRole('dialog');
  await expect(dialog.getByText('Edition “Contractors”: “Medical note” is hidden.')).toBeVisible();
  await dialog.getByRole('button', { name: /Release number/ }).click();
  await expect(maren.getByText(/Release \d+ is in force/)).toBeVisible();
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
  await main.getByRole('combobox', { name: 'On the right' }).selectOption({ label: 'Contractors' });
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
  await maud.getByRole('button', { name: 'Send the message' }).click();
  await expect(maud.getByText('We come at eight.')).toBeVisible();
  expect(await overflows(maud)).toBe(false);
  await maud.getByRole('button', { name: 'Maud Ferriter' }).click();
  await maud.getByRole('menuitem', { name: 'Sign out' }).click();
  await maud.goto(`/my/${number}`);
  await expect(maud.getByText('Crane on the quay')).toBeHidden();
});
