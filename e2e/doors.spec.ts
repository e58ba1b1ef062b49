import { readFileSync } from 'node:fs';
import { expect, type Page } from '@playwright/test';
import { followLetter, overflows, pageOf, phone, seriousTrouble, test } from './people.ts';

const ANSWERS = {
  ...{ visitor: 'Elke Marlowe', institute: 'corrin', reason: 'The tide gauge' },
  ...{ arrival: '2027-02-01', departure: '2027-02-02', works_on_water: false },
};

/** Fills in who comes and why. */
async function fillIn(page: Page): Promise<void> {
  await page.getByLabel('Who is coming?').fill('Ottoline Breck');
  await page.getByLabel('Where are they from?').selectOption({ label: 'Merrow Survey Group' });
  await page.getByLabel('What do they come for?').fill('To see the harbour');
  await page.getByLabel('First day on site').fill('1 Feb 2027');
  await page.getByLabel('Last day on site').fill('2 Feb 2027');
  await page.getByRole('radio', { name: 'No' }).first().check();
}

test('a door closing while somebody types, the last places taken by fifty at once, and its end', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/doors');
  await maren.getByRole('button', { name: 'Add a door' }).click();
  await maren.getByLabel('Name').fill('Open morning');
  await maren.getByLabel('Short address').fill('Open Morning');
  await maren.getByRole('button', { name: 'Add the door' }).click();
  await expect(maren.getByText('Use a to z, digits and hyphens.')).toBeVisible();
  await maren.getByLabel('Short address').fill('open-morning');
  await maren.getByRole('button', { name: 'Add the door' }).click();
  const door = maren.getByRole('region', { name: 'Open morning' });
  await expect(door.getByText(/\/ask\/open-morning$/)).toBeVisible();
  await door.getByRole('button', { name: 'Show the QR code' }).click();
  await expect(door.getByRole('img', { name: /^QR code of http.*open-morning$/ })).toBeVisible();
  await door.getByRole('button', { name: 'Change the door' }).click();
  await expect(door.getByText(/Today it means \d+ of the staff, \d+ known contacts/)).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await door.getByLabel('Store nothing about who comes in').check();
  await door.getByLabel('Until', { exact: true }).fill('24 Nov 2030, 12:00');
  await door.getByLabel('Until', { exact: true }).blur();
  await door.getByLabel('Time to finish').fill('2');
  await door.getByRole('button', { name: 'Add a limit' }).click();
  await door.getByLabel('How many requests').fill('4');
  await door.getByLabel('Show how many places are left').check();
  await door.getByLabel('Text when the limit for all is reached').fill('The morning is full.');
  await door.getByLabel('Where else to go').selectOption({ label: 'Come on site: Outside door' });
  await door.getByLabel('Text after sending').fill('We meet at the gate, {visitor}.');
  await expect(
    door.getByText(/Nothing about who comes in is stored\. Closes Sun 24 Nov, 12:00\..*At most 4/),
  ).toBeVisible();
  await door.getByRole('button', { name: 'Put in force now' }).click();
  // What stores nobody repeats no answers.
  await expect(door.getByText('Remove {visitor}.')).toBeVisible();
  await door.getByLabel('Text after sending').fill('We meet at the gate.');
  await door.getByRole('button', { name: 'Put in force now' }).click();
  await expect(door.getByRole('button', { name: 'Change the door' })).toBeEnabled();

  // Two people type on their phones; the door closes.
  const first = await phone(browser);
  const second = await phone(browser);
  for (const page of [first, second]) {
    await page.goto('/ask/open-morning');
    await expect(page.getByText('4 places are left.')).toBeVisible();
    expect(await overflows(page)).toBe(false);
    await fillIn(page);
  }
  await door.getByRole('button', { name: 'Close the door' }).click();
  await expect(door.getByText('closed', { exact: true })).toBeVisible();
  await first.reload();
  await expect(first.getByText(/You can still send yours until/)).toBeVisible();
  expect(await seriousTrouble(first)).toEqual([]);
  const late = await phone(browser);
  await late.goto('/ask/open-morning');
  await expect(late.getByText('This form is closed.')).toBeVisible();
  await expect(late.getByRole('link', { name: 'Come on site' })).toHaveAttribute('href', '/ask/visit');
  await first.getByRole('button', { name: 'Send the request' }).click();
  await expect(first.getByText('Thank you. We received your request.')).toBeVisible();
  await expect(first.getByText('We meet at the gate.')).toBeVisible();
  // Whoever takes longer is told so, and loses nothing that they typed.
  await maren.request.post('/api/demo/clock', {
    data: { minutes: 3 },
    headers: { Origin: new URL(maren.url()).origin },
  });
  await second.getByRole('button', { name: 'Send the request' }).click();
  await expect(second.getByRole('alert').getByText('This form is closed.')).toBeVisible();
  await second.getByRole('button', { name: 'See what you can do' }).click();
  await expect(second.getByText(/Your answers are still saved on this device/)).toBeVisible();
  expect(await overflows(second)).toBe(false);

  // It opens again: three places, and fifty people at once.
  await door.getByRole('button', { name: 'Open the door' }).click();
  await second.reload();
  await expect(second.getByLabel('Who is coming?')).toHaveValue('Ottoline Breck');
  await expect(second.getByText('3 places are left.')).toBeVisible();
  const { form } = await (await late.request.get('/api/doors/open-morning')).json();
  const all = await Promise.all(
    Array.from({ length: 50 }, () =>
      late.request.post('/api/doors/open-morning/requests', {
        data: { release: form.release, answers: ANSWERS, opened: form.opened },
        headers: { 'Idempotency-Key': crypto.randomUUID(), Origin: new URL(maren.url()).origin },
      }),
    ),
  );
  expect(all.filter((answer) => answer.status() === 200).length).toBe(3);
  expect(all.filter((answer) => answer.status() === 409).length).toBe(47);
  await second.getByRole('button', { name: 'Send the request' }).click();
  await expect(second.getByRole('alert').getByText('The morning is full.')).toBeVisible();
  await second.getByRole('button', { name: 'See what you can do' }).click();
  await second.getByRole('link', { name: 'Come on site' }).click();
  await expect(second.getByLabel('Who is coming?')).toBeVisible();

  // Its end lists what ends; what came by it stays.
  await door.getByRole('button', { name: 'Remove' }).click();
  const dialog = maren.getByRole('dialog', { name: 'Remove “Open morning”?' });
  await expect(dialog.getByText('4 requests that came in by it stay as they are.')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await dialog.getByRole('button', { name: 'Remove the door' }).click();
  await expect(door).toBeHidden();
  await late.reload();
  await expect(late.getByText(/does not exist/)).toBeVisible();
});

test('a school asks with answers from its link, agrees to a text, and its device works a moment', async ({
  browser,
}) => {
  const page = await phone(browser);
  await page.goto('/ask/school-visit?a.school=Skerrow+East&a.visit_day=mar_10&a.pupils=9');
  await expect(page.getByLabel('Which school are you?')).toHaveValue('Skerrow East');
  await expect(page.getByLabel('Which day suits you?')).toHaveValue('mar_10');
  // Only what the link may bring along.
  await expect(page.getByLabel('How many pupils?')).toHaveValue('');
  await page.getByLabel('How many pupils?').fill('20');
  await page.getByLabel('6 to 9').check();
  await page.getByLabel(/Under which number/).fill('+353 1 234 5678');
  await page.getByLabel('Your name').fill('Ida Vestergren');
  await page.getByLabel('Your email address').fill('ida@skerrow-east.example');
  const send = page.getByRole('button', { name: 'Send and confirm by email' });
  await send.click();
  await expect(page.getByRole('alert').getByText(/You have not agreed yet/)).toBeVisible();
  await page.getByLabel('I agree.').check();
  expect(await seriousTrouble(page)).toEqual([]);
  expect(await overflows(page)).toBe(false);
  await send.click();
  await expect(page.getByRole('heading', { name: /One step is left/ })).toBeVisible();
  let letter: { id: string } | undefined;
  await expect(async () => {
    const { letters } = await (await page.request.get('/api/mailroom')).json();
    letter = letters.find(({ to }: { to: string }) => to.includes('ida@skerrow-east.example'));
    expect(letter).toBeDefined();
  }).toPass();
  const { text } = await (await page.request.get(`/api/mailroom/${letter?.id}`)).json();
  await page.goto(/\/confirm\/[\w-]+/.exec(text)?.[0] ?? '');
  await page.getByRole('button', { name: 'Confirm and send the request' }).click();
  await expect(page.getByText(/We write to Skerrow East within a week/)).toBeVisible();
  await page.getByRole('link', { name: 'Follow your request' }).click();
  await page.getByText('Agreed to version 1 of the text').click();
  await expect(page.getByText(/Outreach and the people on duty that day read it/)).toBeVisible();
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save as PDF' }).click();
  const paper = await download;
  expect(paper.suggestedFilename()).toMatch(/^SV-\d{5}\.pdf$/);
  expect(
    readFileSync(await paper.path())
      .subarray(0, 5)
      .toString(),
  ).toBe('%PDF-');
  // Something came up.
  await page.getByRole('button', { name: 'Withdraw this request' }).click();
  const dialog = page.getByRole('dialog', { name: 'Withdraw this request?' });
  await dialog.getByLabel(/Why/).fill('The bus is full.');
  expect(await seriousTrouble(page)).toEqual([]);
  expect(await overflows(page)).toBe(false);
  await dialog.getByRole('button', { name: 'Withdraw it' }).click();
  await expect(page.getByText('Withdrawn', { exact: true }).first()).toBeVisible();
  await expect(page.getByRole('button', { name: 'Withdraw this request' })).toBeHidden();
  // Later it is asked once more, from what was sent.
  await page.getByRole('link', { name: 'Send a similar request' }).click();
  await expect(page.getByText(/Your answers are copied from SV-/)).toBeVisible();
  await expect(page.getByLabel('How many pupils?')).toHaveValue('20');
  await expect(page.getByLabel('6 to 9')).toBeChecked();
});

test('a teacher waits on a phone for a place, is written to when one is free, and finds it held', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const change = async (most: string): Promise<void> => {
    await maren.goto('/workshop/school-visit/doors');
    const card = maren.getByRole('region').filter({ hasText: '/ask/school-visit' }).first();
    await card.getByRole('button', { name: 'Change the door' }).click();
    await card.getByLabel('How many requests').first().fill(most);
    await card.getByLabel('Let people wait when the limit for all is reached').check();
    await card.getByRole('button', { name: 'Put in force now' }).click();
    await expect(card.getByRole('button', { name: 'Change the door' })).toBeEnabled();
  };
  await change('1');
  const teacher = await phone(browser);
  await teacher.goto('/ask/school-visit');
  await teacher.getByRole('button', { name: 'Wait for a place' }).click();
  await expect(teacher.getByText('Your name', { exact: true })).toBeVisible();
  await teacher.getByLabel('Your name').fill('Nola Byrne');
  await teacher.getByLabel('Your email address').fill('nola.byrne@orfordness.example');
  await teacher.getByRole('button', { name: 'Wait for a place' }).click();
  await expect(teacher.getByText('We will write to nola.byrne@orfordness.example when a place is free.')).toBeVisible();
  expect(await overflows(teacher)).toBe(false);
  expect(await seriousTrouble(teacher)).toEqual([]);
  // More mornings than schools: the first who waits is written to, and it is theirs.
  await change('60');
  await followLetter(teacher, 'A place is free', 'Open the form');
  await expect(teacher.getByText(/A place is held for you until/)).toBeVisible();
  await expect(teacher.getByLabel('Which school are you?')).toBeVisible();
  expect(await overflows(teacher)).toBe(false);
  // And theirs to give to the next: the link opens nothing any more.
  await teacher.getByRole('button', { name: 'I do not need it any more' }).click();
  await teacher.getByRole('button', { name: 'Give it to the next' }).click();
  await expect(teacher.getByRole('status')).toContainText('Your place goes to whoever waits next.');
  await teacher.reload();
  await expect(teacher.getByText('is not held for you any more')).toBeVisible();
});

test('people outside are set up question by question, and a request comes in before its address is confirmed', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  // Where there is no door for them yet, one is made.
  await maren.goto('/workshop/purchase/doors');
  await maren.getByRole('link', { name: 'Set up for people outside, step by step' }).click();
  await maren.getByRole('main').getByLabel('Name', { exact: true }).fill('For suppliers');
  await maren.getByRole('button', { name: 'Make the door' }).click();
  await expect(maren.getByRole('region', { name: 'Is it right?' })).toContainText('They confirm their email address');
  await maren.goto('/workshop/concern-report/outside');
  const who = maren.getByRole('region', { name: 'Who comes in, and how do they show who they are?' });
  await who.getByLabel(/A request comes in at once/).check();
  await who.getByLabel('Let devices do some work before they send').uncheck();
  await expect(who.getByText('nothing slows robots down')).toBeVisible();
  await who.getByLabel('Let devices do some work before they send').check();
  await expect(who.getByText('nothing slows robots down')).toHaveCount(0);
  const asked = maren.getByRole('region', { name: /What do people read when they ask/ });
  await asked.getByLabel('Text after sending').fill('Thank you for telling us.');
  await expect(maren.getByRole('region', { name: 'Is it right?' })).toContainText('Whoever confirms it then follows');
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.getByRole('button', { name: 'Put in force now' }).click();
  await expect(maren.getByRole('button', { name: 'Put in force now' })).toHaveCount(0);
  const link = await asked.locator('code').innerText();

  const stranger = await phone(browser);
  await stranger.goto(link);
  await stranger.getByLabel('What is it about?').selectOption({ index: 1 });
  await stranger.getByLabel('What happened?').fill('The ladder at the pier is loose.');
  // The door gets another address meanwhile: the old one leads on, with all that was typed.
  await maren.goto('/workshop/concern-report/doors');
  const card = maren.getByRole('region').filter({ hasText: link });
  await card.getByRole('button', { name: 'Change the address' }).click();
  await maren.getByLabel('New address').fill('tell-us');
  await maren.getByRole('dialog').getByRole('button', { name: 'Change the address', exact: true }).click();
  await expect(maren.getByText(/\/ask\/tell-us$/)).toBeVisible();
  await stranger.reload();
  await expect(stranger).toHaveURL(/\/ask\/tell-us$/);
  await expect(stranger.getByLabel('What happened?')).toHaveValue('The ladder at the pier is loose.');
  await stranger.getByRole('radio', { name: 'No' }).check();
  await stranger.getByLabel('Your name').fill('Tove Hallgrim');
  await stranger.getByLabel('Your email address').fill('tove.hallgrim@harbour.example');
  await stranger.getByRole('button', { name: 'Send the request' }).click();
  await expect(stranger.getByText('Thank you for telling us.')).toBeVisible();
  await expect(stranger.getByText('tove.hallgrim@harbour.example')).toBeVisible();
  expect(await overflows(stranger)).toBe(false);
  expect(await seriousTrouble(stranger)).toEqual([]);
  await followLetter(stranger, 'We have your request', 'Confirm my address');
  await stranger.getByRole('button', { name: 'Confirm my address' }).click();
  await stranger.getByRole('link', { name: 'Follow your request' }).click();
  await expect(stranger.getByText('The ladder at the pier is loose.')).toBeVisible();
});
