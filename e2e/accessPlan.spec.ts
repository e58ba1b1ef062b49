import { expect, type Page } from '@playwright/test';
import { pageOf, seriousTrouble, spilling, test } from './people.ts';

const NOTE = 'Carries an adrenaline pen';

/** The number of a request for a visit with a medical note, asked by whose page it is. */
async function askedWithNote(page: Page): Promise<string> {
  const door = await (await page.request.get('/api/doors/come-on-site')).json();
  const sent = await page.request.post('/api/doors/come-on-site/requests', {
    headers: { 'Idempotency-Key': crypto.randomUUID(), Origin: new URL(page.url()).origin },
    data: {
      release: door.form.release,
      answers: {
        ...{ visitor: 'Elke Marlowe', institute: 'other', reason: 'Calibration of the tide gauge' },
        ...{ arrival: '2026-12-10', departure: '2026-12-11', works_on_water: true },
        ...{ survival_until: '2027-05-01', medical_note: NOTE },
      },
    },
  });
  const body = await sent.json();
  expect([sent.status(), body.problems ?? []]).toEqual([200, []]);
  return body.number;
}

test('from a question one gets to who may see it, and to a rule about it by a recipe', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/questions');
  const main = maren.getByRole('main');
  await main.getByRole('button', { name: /^Reason/ }).click();
  await main.getByRole('link', { name: 'Who can see it' }).click();
  const row = main.getByRole('row', { name: /^Reason/ });
  await expect(row).toBeVisible();
  await expect(main.getByRole('row', { name: /^Visitor/ })).toBeHidden();
  await row.getByRole('button', { name: 'reads' }).first().click();
  await expect(main.getByText(/The requester, Reason: reads/)).toBeVisible();
  await main.getByRole('button', { name: 'Show it only to staff' }).click();
  await expect(main.getByLabel('Name', { exact: true })).toHaveValue('Reason: only for staff');
  await expect(row.getByRole('button', { name: /hidden in force: reads/ })).toBeVisible();
  await expect(main.getByText(/can no longer read “Reason”/).first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await main.getByRole('button', { name: 'Discard the draft of the plan' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();
  await expect(main.getByText('Saved', { exact: true })).toBeVisible();
});

test('a rule of access is written, seen in names before it counts, put in force, and taken back', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const tomas = await pageOf(browser, 'Tomas Achterberg');
  await tomas.goto('/floor/all');
  await tomas.locator('tbody tr').filter({ hasText: /AC-\d/ }).first().getByRole('link').first().click();
  const sheet = tomas.getByRole('complementary', { name: 'Request sheet' });
  const withheld = sheet.getByRole('button', { name: 'Why: Escort' });
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
  await expect(withheld).toBeHidden();
  await maren.goto('/workshop');
  await maren.getByRole('link', { name: 'Come on site' }).first().click();
  await maren.getByRole('navigation', { name: 'Contents' }).getByRole('link', { name: '4 Access' }).click();
  await maren.getByRole('button', { name: 'New rule' }).click();
  await maren.getByLabel('Name', { exact: true }).fill('Escorts are for the desk');
  await maren.getByRole('group', { name: 'Fields' }).getByLabel('Escort').check();
  await maren.getByLabel('Add somebody who is meant').selectOption({ label: 'Duty managers' });
  // Out instead of in: the names say so at once, and so does the effect.
  await expect(maren.getByText('2 people today: Edda Kilbride, Tomas Achterberg').first()).toBeVisible();
  await expect(maren.getByText(/2 people can no longer read “Escort”/)).toBeVisible();
  await maren.getByLabel('Add somebody who is left out').selectOption({ label: 'Duty managers' });
  await expect(maren.getByText('It means nobody today.')).toBeVisible();
  await expect(
    maren.getByText('Left out although they are chosen above: Edda Kilbride, Tomas Achterberg'),
  ).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.getByRole('button', { name: 'Remove Duty managers' }).last().click();
  await maren.getByRole('button', { name: 'Done' }).click();
  // A cell says why.
  const row = maren.getByRole('row', { name: /^Escort/ });
  await row.getByRole('button', { name: /in force: changes/ }).click();
  await expect(maren.getByText('Duty managers, Escort: hidden. Decided by: Escorts are for the desk')).toBeVisible();
  await maren.getByRole('button', { name: 'Show who (2 people)' }).click();
  await expect(maren.getByText(/Escort: changes → hidden/).first()).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  // Nothing of it counts yet.
  await tomas.reload();
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
  await expect(withheld).toBeHidden();
  await maren.getByLabel('Why', { exact: true }).fill('Fewer eyes');
  await maren.getByRole('button', { name: 'Put in force' }).click();
  await expect(maren.getByText('What you see is in force.')).toBeVisible();
  await tomas.reload();
  await withheld.click();
  await expect(tomas.getByText('Escorts are for the desk')).toBeVisible();
  // One step back, by the same way.
  await maren.getByRole('button', { name: 'Write the plan as it was before' }).click();
  await expect(maren.getByText(/2 people can now change “Escort”/)).toBeVisible();
  await maren.getByRole('button', { name: 'Put in force' }).click();
  await expect(maren.getByText('What you see is in force.')).toBeVisible();
  await expect(maren.getByText(/Rules put in force. Deleted: “Escorts are for the desk”/)).toBeVisible();
  await tomas.reload();
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
  await expect(withheld).toBeHidden();
});

test('a field is opened to who decides only while they decide: seen in names, proved as three people, and taken back', async ({
  browser,
}) => {
  const ada = await pageOf(browser, 'Ada Quillfeather');
  const tomas = await pageOf(browser, 'Tomas Achterberg');
  const number = await askedWithNote(await pageOf(browser, 'Priya Nakamura-Lind'));
  await tomas.goto(`/floor/deciding/${number}`);
  const sheet = tomas.getByRole('complementary', { name: 'Request sheet' });
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
  await expect(sheet.getByText(NOTE)).toBeHidden();
  await ada.goto('/workshop/site-access/access');
  const main = ada.getByRole('main');
  await main.getByRole('button', { name: 'New rule' }).click();
  await main.getByLabel('Name', { exact: true }).fill('Who decides reads it meanwhile');
  await main.getByRole('group', { name: 'Fields' }).getByLabel('Medical note').check();
  await main.getByLabel('What applies', { exact: true }).selectOption('read');
  // Out for in: it is said at once that the rule means nobody.
  await main.getByLabel('Add somebody who is left out').selectOption('~decider');
  await expect(main.getByText('It means nobody today.').first()).toBeVisible();
  await main.getByRole('button', { name: 'Remove the people who decide on it' }).click();
  await main.getByLabel('Add somebody who is meant').selectOption('~decider');
  await expect(main.getByText('somebody else on each request').first()).toBeVisible();
  await main.getByLabel('Sets other rules aside').check();
  await main.getByLabel('Add an exception …').selectOption('decided');
  await expect(main.getByText('But where Approval is approved or not approved: this rule says nothing.')).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  await main.getByRole('button', { name: 'Done' }).click();
  await expect(main.getByText(/can now read “Medical note”/).first()).toBeVisible();
  const row = main.getByRole('row', { name: /^Medical note/ });
  await expect(row.getByRole('button', { name: /hidden or reads/ })).toBeVisible();
  // As it would be: for who decides, for who handles, for who asked, and at another stage.
  await main.getByLabel('Request number').fill(number);
  await main.getByLabel('By which plan').last().selectOption('draft');
  const seen = async (who: string): Promise<void> => {
    // What is found comes while one types: a press that met the list of before is made again.
    await expect(async () => {
      await main.getByLabel('Who', { exact: true }).last().fill(who);
      await main.getByRole('option', { name: new RegExp(who) }).click();
      await expect(main.getByRole('button', { name: `Remove ${who}` })).toBeVisible({ timeout: 5_000 });
    }).toPass();
    await main.getByRole('button', { name: 'Look', exact: true }).click();
    await expect(main.getByText(new RegExp(`as seen by ${who}`))).toBeVisible();
  };
  await seen('Tomas Achterberg');
  await expect(main.getByText('They read it; it is hidden from you.')).toBeVisible();
  await main.getByRole('button', { name: 'Remove Tomas Achterberg' }).click();
  await seen('Bram Solheim');
  await expect(main.getByText('They read it; it is hidden from you.')).toBeHidden();
  // Beside another one, as the same person.
  await main.getByLabel('Beside request').fill('AC-00210');
  await main.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(main.getByText(`${number}, AC-00210, as seen by Bram Solheim, by this draft.`)).toBeVisible();
  await expect(main.getByText(/fields? (is|are) seen differently in the two\./)).toBeVisible();
  await main.getByLabel('Beside request').fill('');
  await main.getByLabel('As whom').selectOption('nobody');
  await main.getByRole('button', { name: 'Look', exact: true }).click();
  await expect(main.getByText('They are shown nothing of it: for them it does not exist.')).toBeVisible();
  expect(await seriousTrouble(ada)).toEqual([]);
  // In force: the sheet that is open shows it by itself.
  await main.getByRole('button', { name: 'Put in force' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();
  await expect(sheet.getByText(NOTE)).toBeVisible();
  // Not in a file of whoever handles.
  const bram = await pageOf(browser, 'Bram Solheim');
  const file = await bram.request.get('/api/forms/site-access/requests.csv?among=all');
  expect(await file.text()).not.toContain(NOTE);
  // One step back.
  await main.getByRole('button', { name: 'Write the plan as it was before' }).click();
  await main.getByRole('button', { name: 'Put in force' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();
  await expect(sheet.getByText(NOTE)).toBeHidden();
  await expect(sheet.getByText('Visitor', { exact: true })).toBeVisible();
});

test('what somebody types stays there when the field is closed to them meanwhile', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const bram = await pageOf(browser, 'Bram Solheim');
  const number = await askedWithNote(maren);
  await bram.goto(`/floor/all/${number}`);
  const sheet = bram.getByRole('complementary', { name: 'Request sheet' });
  await sheet.getByRole('button', { name: 'Change Escort' }).click();
  await sheet.getByLabel('Escort', { exact: true }).fill('Nuala, until noon');
  const headers = { Origin: new URL(maren.url()).origin };
  const plan = await (await maren.request.get('/api/registers/site-access/access')).json();
  const rule = {
    ...{ id: 'boats-escort', name: 'Escorts are not for Boats', fields: ['escort'], level: 'hidden' },
    audience: { in: { anyOf: ['boats'] }, outOf: [] },
  };
  const put = async (rules: readonly unknown[]): Promise<void> => {
    const { version } = await (await maren.request.get('/api/registers/site-access/access')).json();
    const kept = await maren.request.put('/api/registers/site-access/access/draft', {
      headers: { ...headers, 'If-Match': `"${version}"` },
      data: { rules, resting: [] },
    });
    const on = { ...headers, 'If-Match': `"${(await kept.json()).version}"` };
    const data = { note: '', closesToMyself: true };
    expect((await maren.request.post('/api/registers/site-access/access', { headers: on, data })).status()).toBe(200);
  };
  await put([...plan.inForce.rules, rule]);
  await expect(sheet.getByText('You can no longer change “Escort”. What you typed is still here:')).toBeVisible();
  await expect(sheet.getByText('Nuala, until noon')).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Why: Escort' })).toBeVisible();
  expect(await seriousTrouble(bram)).toEqual([]);
  // Open again, it is where it was.
  await put(plan.inForce.rules);
  await expect(sheet.getByLabel('Escort', { exact: true })).toHaveValue('Nuala, until noon');
});

test('an answer is set once: corrected on a phone in the time of grace, and refused afterwards', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/access');
  const main = maren.getByRole('main');
  await main.getByRole('button', { name: 'Set once, corrected for 30 minutes' }).first().click();
  await main.getByLabel('Name', { exact: true }).fill('Reasons are set once');
  await main.getByRole('group', { name: 'Fields' }).getByLabel('Reason').check();
  await main.getByRole('group', { name: 'But' }).getByRole('spinbutton').fill('5');
  await expect(main.getByText('Reason: readable by everyone')).toBeVisible();
  await main.getByRole('button', { name: 'Done' }).click();
  await main.getByLabel(/Yes, I give this up myself as /).check();
  await main.getByRole('button', { name: 'Put in force' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();

  const priya = await pageOf(browser, 'Priya Nakamura-Lind', { width: 360, height: 740 });
  const number = await askedWithNote(priya);
  await priya.goto(`/my/${number}`);
  await expect(priya.getByRole('button', { name: /^Correct / })).toHaveCount(1);
  await priya.getByRole('button', { name: 'Correct Reason' }).click();
  await priya.getByRole('textbox', { name: 'Reason' }).fill('');
  await priya.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(priya.getByRole('alert')).toBeVisible();
  await priya.getByRole('textbox', { name: 'Reason' }).fill('Calibration of both tide gauges');
  expect(await spilling(priya)).toEqual([]);
  expect(await seriousTrouble(priya)).toEqual([]);
  await priya.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(priya.getByText('Your answer was corrected.')).toBeVisible();
  await expect(priya.getByText('Calibration of both tide gauges')).toBeVisible();
  // The desk reads it, and may not change it any more than whoever asked, once the time is over.
  await priya.getByRole('button', { name: 'Correct Reason' }).click();
  await priya.getByRole('textbox', { name: 'Reason' }).fill('Typed too late');
  await priya.request.post('/api/demo/clock', {
    headers: { Origin: new URL(priya.url()).origin },
    data: { minutes: 6 },
  });
  await priya.getByRole('button', { name: 'Save', exact: true }).click();
  await expect(priya.getByRole('alert').first()).toContainText('Reason');
  await priya.reload();
  await expect(priya.getByText('Calibration of both tide gauges')).toBeVisible();
  await expect(priya.getByRole('button', { name: 'Correct Reason' })).toBeHidden();
  await maren.goto(`/floor/all/${number}`);
  const sheet = maren.getByRole('complementary', { name: 'Request sheet' });
  await expect(sheet.getByText('Calibration of both tide gauges', { exact: true })).toBeVisible();
  await expect(sheet.getByRole('button', { name: 'Change Reason' })).toBeHidden();
  await expect(sheet.getByRole('button', { name: 'Why: Reason' })).toBeVisible();
  await maren.goto('/workshop/site-access/access');
  await main.getByRole('button', { name: 'Write the plan as it was before' }).click();
  await main.getByRole('button', { name: 'Put in force' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();
});

test('a new question is closed until it has its place, which one press gives it', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/questions');
  const form = await (await maren.request.get('/api/forms/site-access')).json();
  const field = { key: 'badge_name', label: 'Name on the badge', type: { kind: 'text' }, source: 'asked' };
  const part = { part: 'question', field: 'badge_name', asks: 'Name on the badge', help: '', required: false };
  const kept = await maren.request.put('/api/forms/site-access/draft', {
    headers: { 'If-Match': `"${form.version}"`, Origin: new URL(maren.url()).origin },
    data: {
      draft: { ...form.draft, fields: [...form.draft.fields, field], parts: [...form.draft.parts, part] },
    },
  });
  expect(kept.status()).toBe(200);
  await maren.reload();
  const findings = maren.getByRole('region', { name: 'Findings' });
  await findings
    .getByText(/has no place in the access plan yet/)
    .first()
    .click();
  await findings.getByRole('link', { name: 'Say who may see it' }).click();
  const main = maren.getByRole('main');
  await expect(main.getByRole('heading', { name: 'New fields, closed until they have a place' })).toBeVisible();
  await expect(main.getByRole('row', { name: /^Name on the badge/ })).toContainText('new, closed until it has a place');
  expect(await seriousTrouble(maren)).toEqual([]);
  // For some groups alone, put in force, and back.
  await main.getByRole('button', { name: 'Only some groups', exact: true }).click();
  await main.getByLabel('Add somebody who is left out').selectOption('site-safety');
  await main.getByRole('button', { name: 'Done' }).click();
  await expect(main.getByText('Get their place: “Name on the badge”.')).toBeVisible();
  await main.getByRole('button', { name: 'Put in force' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();
  await main.getByRole('button', { name: 'Write the plan as it was before' }).click();
  await main.getByRole('button', { name: 'Put in force' }).click();
  await expect(main.getByText('What you see is in force.')).toBeVisible();
  await maren.reload();
  await findings.locator('summary').click();
  await findings.getByRole('button', { name: 'Open as usual' }).click();
  await expect(maren.getByText('is open as the access plan says')).toBeVisible();
  await expect(findings.getByRole('button', { name: 'Open as usual' })).toBeHidden();
  await maren.reload();
  await expect(main.getByRole('heading', { name: 'New fields, closed until they have a place' })).toBeHidden();
  const now = await (await maren.request.get('/api/forms/site-access')).json();
  const back = await maren.request.put('/api/forms/site-access/draft', {
    headers: { 'If-Match': `"${now.version}"`, Origin: new URL(maren.url()).origin },
    data: { draft: form.draft },
  });
  expect(back.status()).toBe(200);
  // From the sheet one gets to who may see a field as well.
  await maren.goto('/floor/all');
  await maren.locator('tbody tr').filter({ hasText: /AC-\d/ }).first().getByRole('link').first().click();
  const sheet = maren.getByRole('complementary', { name: 'Request sheet' });
  await sheet.getByRole('link', { name: 'Reason: who can see it' }).click();
  await expect(main.getByRole('row', { name: /^Reason/ })).toBeVisible();
});
