import { expect } from '@playwright/test';
import { followLetter, heldBack, overflows, pageOf, phone, release, test } from './people.ts';

test('five people: a form is changed and released, asked from a phone, decided by letter, worked and kept in time', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const ada = await phone(browser);
  const approver = await phone(browser);
  const bram = await pageOf(browser, 'Bram Solheim');

  await test.step('the coordinator adds a question, sees it in the proof, and releases', async () => {
    await maren.getByRole('link', { name: 'Workshop' }).click();
    await maren.getByRole('link', { name: 'New form …' }).waitFor();
    await maren.getByRole('link', { name: 'Come on site' }).click();
    await maren.getByRole('button', { name: 'Add question' }).click();
    await maren.getByRole('button', { name: 'Text: one line' }).click();
    await maren.getByLabel('Field', { exact: true }).fill('Car plate');
    await maren.getByLabel('Question', { exact: true }).fill('Which car will they bring?');
    await maren.getByLabel('Help').last().fill('The plate opens the gate.');
    const proof = maren.getByRole('complementary', { name: 'Proof' });
    await expect(proof.getByLabel('Which car will they bring?')).toBeVisible();
    await maren.getByRole('button', { name: 'Move up' }).click();
    await maren.getByRole('navigation', { name: 'Contents' }).getByRole('link', { name: 'Rules' }).click();
    await maren.getByRole('button', { name: 'Add a rule' }).click();
    await maren.getByLabel('Name of the rule').last().fill('Cars only in winter');
    await maren.getByLabel('Field').last().selectOption({ label: 'Institute' });
    await maren.getByLabel('Value 1 for Institute').last().selectOption({ label: 'Haldane Lifting' });
    await maren
      .getByLabel(/^Add to:/)
      .last()
      .selectOption({ label: 'Car plate' });
    await expect(proof.getByLabel('Which car will they bring?')).toHaveCount(0);
    await proof.getByLabel('Where are they from?').selectOption({ label: 'Haldane Lifting' });
    await expect(proof.getByLabel('Which car will they bring?')).toBeVisible();
    await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
    // The desk is to work with it: until it has its place, only whoever asks sees it.
    const findings = maren.getByRole('region', { name: 'Findings' });
    await findings.locator('summary').click();
    await findings.getByRole('button', { name: 'Open as usual' }).click();
    await expect(findings.getByRole('button', { name: 'Open as usual' })).toBeHidden();
    await release(maren, async (dialog) => {
      await expect(dialog.getByText('New field in the register: “Car plate”.')).toBeVisible();
      await dialog.getByLabel('Note').fill('The gate asks for the plate');
    });
  });

  await test.step('somebody from outside asks on a phone, makes mistakes and loses nothing', async () => {
    await ada.goto('/');
    await ada.getByRole('link', { name: 'Come on site' }).click();
    await ada.getByLabel('Who is coming?').fill('Jonas Eide');
    await ada.getByLabel('Where are they from?').selectOption({ label: 'Haldane Lifting' });
    await ada.getByLabel('Which car will they bring?').fill('261-SK-77');
    await ada.getByLabel('First day on site').fill('2026-12-02');
    await ada.getByLabel('Last day on site').fill('2026-12-01');
    await ada.getByLabel('Yes').click();
    await ada.getByLabel('Fee in EUR').fill('a lot');
    await ada.getByRole('button', { name: 'Send' }).click();
    const summary = ada.getByRole('alert');
    await expect(summary).toContainText('Please correct');
    await expect(summary).toContainText('“a lot” is not a number.');
    await expect(summary).toContainText('This is before “Arrival”');
    await expect(summary).toContainText('“What do they come for?” has no answer yet.');
    await summary.getByRole('link', { name: 'What do they come for?' }).click();
    await expect(ada.getByLabel('What do they come for?')).toBeFocused();
    await ada.getByLabel('What do they come for?').fill('Pier crane inspection before the winter lifts');
    await expect(ada.getByText('Saved on this device')).toBeVisible();
    await ada.reload();
    await expect(ada.getByLabel('Who is coming?')).toHaveValue('Jonas Eide');
    await expect(ada.getByLabel('Which car will they bring?')).toHaveValue('261-SK-77');
    await expect(ada.getByLabel('What do they come for?')).toHaveValue('Pier crane inspection before the winter lifts');
    expect(await overflows(ada)).toBe(false);
    await ada.getByLabel('Last day on site').fill('2026-12-03');
    await ada.getByLabel('Until when is their sea survival').fill('2027-06-01');
    await ada.getByLabel('Fee in EUR').fill('1,148.00');
    await ada.getByLabel('Anything medical').fill('Carries an adrenaline pen');
    await ada.getByLabel('Your name').fill('Wim Haldane');
    await ada.getByLabel('Your email address').fill('wim.haldane@haldane.example');
    await ada.getByRole('button', { name: 'Send' }).click();
    await expect(ada.getByRole('heading', { name: 'One step is left' })).toBeVisible();
  });

  let number = '';
  await test.step('they confirm by the letter and follow their request', async () => {
    await followLetter(ada, 'Please confirm your request', 'Confirm and send my request');
    await ada.getByRole('button', { name: 'Confirm and send the request' }).click();
    await expect(ada.getByRole('heading', { name: 'Thank you. We received your request.' })).toBeVisible();
    number = (await ada.locator('b.font-mono').textContent()) ?? '';
    expect(number).toMatch(/^AC-\d{5}$/);
    await ada.getByRole('link', { name: 'Follow your request' }).click();
    await expect(ada.getByText('Being decided')).toBeVisible();
    await expect(ada.getByText('Carries an adrenaline pen')).toBeVisible();
    expect(await overflows(ada)).toBe(false);
  });

  await test.step('the approver decides from the letter, on a phone, without signing in', async () => {
    await followLetter(approver, 'asks for your approval', 'Read the request and decide');
    await expect(approver.getByRole('heading', { name: 'Jonas Eide, Haldane Lifting' })).toBeVisible();
    await expect(approver.getByText('adrenaline')).toHaveCount(0);
    expect(await overflows(approver)).toBe(false);
    const link = approver.url();
    await approver.getByLabel('Comment').fill('Please brief them at the gate.');
    await approver.getByRole('button', { name: 'Approve' }).click();
    await expect(approver.getByRole('heading', { name: 'Approved', exact: true })).toBeVisible();
    await approver.goto(link);
    await expect(approver.getByRole('alert')).toContainText(/already (decided|approved)/);
  });

  await test.step('the routing explains itself to the handler, who takes the request', async () => {
    await bram.goto('/floor/team');
    await bram.getByRole('link', { name: 'Jonas Eide, Haldane Lifting' }).click();
    const sheet = bram.getByRole('complementary', { name: 'Request sheet' });
    await sheet.getByRole('button', { name: /^Routed/ }).click();
    await expect(bram.getByText('Works on water: yes. The row requires: yes. The cell matches.')).toBeVisible();
    await bram.keyboard.press('Escape');
    await expect(sheet.getByText('hidden from you')).toBeVisible();
    await sheet.getByRole('button', { name: 'Make me the handler' }).click();
    await expect(sheet.getByText('Bram Solheim is now the handler')).toBeVisible();
    await sheet.getByRole('button', { name: 'Start work' }).click();
    await expect(sheet.getByText('Arrived → In hand')).toBeVisible();
    await sheet.getByText('Escort').hover();
    await sheet.getByRole('button', { name: 'Change Escort' }).click();
    await sheet.getByLabel('Escort').fill('Signe Halvard');
    await sheet.getByRole('button', { name: 'Save', exact: true }).click();
    await expect(sheet.getByText('Escort: empty → Signe Halvard')).toBeVisible();
  });

  await test.step('the clock is moved and the reminder arrives in the Mailroom', async () => {
    await bram.getByRole('button', { name: /^Mon 23 Nov/ }).click();
    await bram.getByRole('button', { name: '1 day forward' }).click();
    await bram.getByRole('button', { name: '1 day forward' }).click();
    await bram.getByRole('button', { name: /^4 h(ou)?rs? forward/ }).click();
    await expect(bram.getByText(/about deadlines? (was|were) sent/).first()).toBeVisible();
    await bram.keyboard.press('Escape');
    await bram.goto('/mailroom');
    await bram.getByRole('searchbox').fill(number);
    await expect(
      bram
        .getByRole('listitem')
        .filter({ hasText: /Due in .*Jonas Eide/ })
        .filter({ hasText: 'Bram Solheim' }),
    ).toBeVisible();
  });

  await test.step('the handler finishes, and the requester sees it', async () => {
    await bram.goto(`/floor/mine/${number}`);
    await bram.getByRole('button', { name: 'Finish and tell the requester', exact: true }).click();
    await expect(bram.getByText('In hand → Done')).toBeVisible();
    await ada.reload();
    await expect(ada.locator('b', { hasText: 'Done' })).toBeVisible();
    await expect(ada.getByText('Escort')).toHaveCount(0);
  });
});

test('a staff request is refused from the Floor, with a reason the requester reads', async ({ browser }) => {
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const tomas = await pageOf(browser, 'Tomas Achterberg');
  await tomas.goto('/floor/deciding');
  await expect(tomas.getByRole('heading', { name: 'My approvals' })).toBeVisible();

  await priya.getByRole('link', { name: 'Come on site' }).click();
  await priya.getByLabel('Who is coming?').fill('Tamsin Kovalik');
  await priya.getByLabel('Where are they from?').selectOption('station');
  await priya.getByLabel('What do they come for?').fill('Kelp survey with our team');
  await priya.getByLabel('First day on site').fill('2026-12-07');
  await priya.getByLabel('Last day on site').fill('2026-12-08');
  await priya.getByLabel('Yes').click();
  await priya.getByLabel('Until when is their sea survival').fill('2027-06-01');
  await priya.getByRole('button', { name: 'Send' }).click();
  await expect(priya.getByRole('heading', { name: 'Thank you. We received your request.' })).toBeVisible();
  await priya.getByRole('link', { name: 'Follow your request' }).click();

  // The tray fills by itself.
  await tomas.getByRole('link', { name: 'Tamsin Kovalik, Guest of the station' }).click();
  await tomas.getByRole('button', { name: 'Refuse' }).click();
  await expect(tomas.getByRole('alert')).toContainText('Please give a reason if you refuse.');
  await tomas.getByLabel('Comment').fill('The pier is closed that week. Please choose days after the 14th.');
  await tomas.getByRole('button', { name: 'Refuse' }).click();
  await expect(tomas.getByRole('complementary').getByText('Refused by Tomas Achterberg')).toBeVisible();

  await priya.reload();
  await expect(priya.locator('b', { hasText: 'Not approved' })).toBeVisible();
  await expect(priya.getByText('Please choose days after the 14th.')).toBeVisible();
});

test('a form can be typed into before its rules are here, and says so when they don’t come', async ({ browser }) => {
  const ada = await phone(browser);
  const letThrough = await heldBack(ada, '**/assets/rules-*.js');
  await ada.goto('/ask/visit');
  await ada.getByLabel('Who is coming?').fill('Jonas Eide');
  await expect(ada.getByRole('button', { name: 'One moment …' })).toBeDisabled();
  letThrough();
  await expect(ada.getByRole('button', { name: 'Send' })).toBeEnabled();
  await expect(ada.getByLabel('Who is coming?')).toHaveValue('Jonas Eide');

  const cutOff = await phone(browser);
  await cutOff.route('**/assets/rules-*.js', (route) => route.abort());
  await cutOff.goto('/ask/visit');
  await expect(cutOff.getByText('A part of this page did not load.')).toBeVisible();
});
