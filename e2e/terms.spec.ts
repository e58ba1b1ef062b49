import { expect } from '@playwright/test';
import { followLetter, overflows, pageOf, phone, release, seriousTrouble, test } from './people.ts';

const HAZARDS = 'Chemicals\n\tSolvents = Thinner; Acetone\n\tAcids\nRadiation\nHeavy loads';

test('a vocabulary is made, asked for by a form, and typed into on a phone; the form is left and gone on with elsewhere', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const main = maren.getByRole('main');
  const proof = maren.getByRole('complementary', { name: 'Proof' });

  await test.step('the coordinator pastes a nested list, and keeps it', async () => {
    await maren.goto('/workshop');
    await maren.getByRole('link', { name: 'Vocabularies' }).click();
    await maren.getByRole('link', { name: 'A new vocabulary' }).click();
    await maren.getByRole('textbox', { name: 'A new vocabulary' }).fill('Hazards');
    await maren.getByRole('button', { name: 'Add', exact: true }).click();
    await expect(maren.getByLabel('Name of the vocabulary')).toHaveValue('Hazards');
    await main.getByLabel('Add terms', { exact: true }).evaluate((input, text) => {
      const clipboardData = new DataTransfer();
      clipboardData.setData('text/plain', text);
      input.dispatchEvent(new ClipboardEvent('paste', { clipboardData, bubbles: true, cancelable: true }));
    }, HAZARDS);
    await expect(main.getByText('Not saved yet: 5 new.')).toBeVisible();
    await main.getByRole('button', { name: /^Acids/ }).click();
    await main.getByLabel('Other words').fill('Vitriol');
    await main.getByLabel('Other words').blur();
    expect(await seriousTrouble(maren)).toEqual([]);
    await main.getByRole('button', { name: 'Save the changes' }).click();
    await expect(maren.getByText('Saved. All forms use the change from now on.')).toBeVisible();
  });

  await test.step('asks for it, tries it in the proof, and releases', async () => {
    await maren.goto('/workshop/site-access/questions');
    await main.getByRole('button', { name: 'Add question' }).click();
    await main.getByRole('button', { name: 'Term: one of a vocabulary' }).click();
    await main.getByLabel('Field', { exact: true }).fill('Hazard');
    await main.getByRole('textbox', { name: 'Question', exact: true }).fill('Do they bring anything dangerous?');
    await main.getByRole('combobox', { name: 'Vocabulary' }).selectOption({ label: 'Hazards, 5 terms' });
    await proof.getByRole('combobox', { name: 'Do they bring anything dangerous?' }).fill('thin');
    await proof.getByRole('option', { name: 'Solvents' }).click();
    await expect(proof.getByRole('combobox', { name: 'Do they bring anything dangerous?' })).toHaveValue('Solvents');
    await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
    await release(maren);
  });

  const stranger = await phone(browser);
  await test.step('somebody outside types what is no term, mends it, and asks for a link to go on later', async () => {
    await stranger.goto('/ask/visit');
    const hazard = stranger.getByRole('combobox', { name: 'Do they bring anything dangerous?' });
    await stranger.getByLabel('Who is coming?').fill('Wilma Harker');
    await hazard.fill('lava');
    await stranger.getByLabel('Your name').fill('Wim Haldane');
    await expect(stranger.getByText('“lava” is not one of the terms.')).toBeVisible();
    await hazard.fill('vitr');
    await expect(stranger.getByRole('option', { name: 'Acids' })).toBeVisible();
    expect(await overflows(stranger)).toBe(false);
    expect(await seriousTrouble(stranger)).toEqual([]);
    await hazard.press('ArrowDown');
    await hazard.press('Enter');
    await expect(hazard).toHaveValue('Acids');
    await stranger.getByRole('button', { name: 'Continue later or on another device' }).click();
    await stranger.getByLabel('Where should we email the link?').fill('wim.haldane@haldane.example');
    await stranger.getByRole('button', { name: 'Email me the link' }).click();
    await expect(stranger.getByText('We sent an email to wim.haldane@haldane.example.')).toBeVisible();
  });

  await test.step('on another device the link brings it all back, and keeps what is added', async () => {
    const elsewhere = await phone(browser);
    await followLetter(elsewhere, 'unfinished form', 'Continue this form');
    await expect(elsewhere.getByLabel('Who is coming?')).toHaveValue('Wilma Harker');
    await expect(elsewhere.getByRole('combobox', { name: 'Do they bring anything dangerous?' })).toHaveValue('Acids');
    await elsewhere.getByLabel('What do they come for?').fill('Acid baths for the otoliths');
    await expect(elsewhere.getByText('Saved for you on any device until you send.')).toBeVisible();
    const third = await phone(browser);
    await third.goto(elsewhere.url());
    await expect(third.getByLabel('What do they come for?')).toHaveValue('Acid baths for the otoliths');
  });
});

test('a boat is chosen by her card, what it brings along is reckoned with, and the trip is found from the boat', async ({
  browser,
}) => {
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  await priya.goto('/ask/vessel-time');
  const boats = priya.getByRole('group', { name: 'Which boat?' });
  await expect(boats.getByRole('listitem')).toHaveCount(4);
  // What is away stands there with the reason, and can’t be chosen.
  const away = boats.getByRole('radio', { name: /Guillemot/ });
  await expect(away).toBeDisabled();
  await expect(boats.getByText('Not available: Not in use at the moment')).toBeVisible();
  await expect(boats.getByRole('listitem').filter({ hasText: 'Arctic Tern' })).toContainText('Rate an hour: €210.00');
  await expect
    .poll(() =>
      boats
        .locator('img')
        .evaluateAll((all) => all.filter((each) => (each as HTMLImageElement).naturalWidth > 0).length),
    )
    .toBeGreaterThan(0);
  await boats.getByRole('radio', { name: /Arctic Tern/ }).check();
  await priya.getByLabel('What will you do out there?').fill('Winter moorings');
  await priya.getByLabel('When do you want to leave?').fill('2026-12-14T08:00');
  await priya.getByLabel('When are you back?').fill('2026-12-14T12:00');
  await priya.getByLabel('Where to?').selectOption({ label: 'Along the coast' });
  await expect(priya.getByText('Saved for you on any device until you send.')).toBeVisible();

  // Begun on one device, gone on with on another.
  const laptop = await pageOf(browser, 'Priya Nakamura-Lind');
  await laptop.getByRole('link', { name: 'Continue this form: Vessel time' }).click();
  await expect(laptop.getByRole('radio', { name: /Arctic Tern/ })).toBeChecked();
  await laptop.getByRole('button', { name: 'Next page', exact: true }).click();
  await laptop.getByLabel('How many persons, without the crew?').fill('12');
  await laptop.getByLabel('Up to which sea state').selectOption({ label: 'slight' });
  await laptop.getByRole('textbox', { name: 'Gear: another answer' }).fill('Two drones');
  await laptop.getByRole('button', { name: 'Next page', exact: true }).click();
  await expect(laptop.getByText('With these times the boat costs €840.00.')).toBeVisible();
  await laptop.getByRole('combobox', { name: 'Which budget code pays?' }).fill('tide');
  await laptop.getByRole('option', { name: /OC1200/ }).click();
  await laptop.getByRole('button', { name: 'Send' }).click();
  await expect(laptop.getByText(/VT-\d+/).first()).toBeVisible();
  const number = /VT-\d+/.exec(await laptop.getByRole('main').innerText())?.[0] ?? '';

  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/floor/things/VS-00002');
  await maren.getByRole('link', { name: new RegExp(number) }).click();
  await expect(maren.getByText('Water sampler, Two drones').or(maren.getByText('Two drones'))).toBeVisible();
  await expect(maren.getByText('€840.00')).toBeVisible();

  // Whoever reads a trip takes part in it and asks, though they may change nothing of it.
  await priya.goto(`/my/${number}`);
  await expect(priya.getByText('Whoever comes along is at the pier half an hour before Mon 14 December')).toBeVisible();
  await priya.getByRole('button', { name: 'I’ll be aboard' }).click();
  await expect(priya.getByText('You are in the list', { exact: true })).toBeVisible();
  await priya.getByRole('button', { name: 'Ask the skipper' }).click();
  await priya.getByLabel('Ask the skipper').fill('Is there a dry store for the drones?');
  await priya.getByRole('button', { name: 'Send the question' }).click();
  await expect(priya.getByRole('list').getByText('Is there a dry store for the drones?')).toBeVisible();
  await maren.reload();
  await expect(maren.getByText('Takes part')).toBeVisible();
  await expect(maren.getByText('You are in the list', { exact: true })).toHaveCount(0);
});

test('rows of a sheet are looked at, mended in the mapping, and taken in', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const main = maren.getByRole('main');
  await maren.goto('/workshop/field-kit-loan/sheets');
  const sheet = [
    'Tagged,From,Back,Requester',
    'KI-00006,2026-12-01,2026-12-09,Hanne Istvan',
    'KI-00006; KI-00003,2026-12-09,2026-12-01,',
  ].join('\n');
  await main
    .getByLabel('A file of requests')
    .setInputFiles({ name: 'loans.csv', mimeType: 'text/csv', buffer: Buffer.from(sheet) });
  await main.getByLabel('What “Tagged” is').selectOption({ label: 'Things with a tag' });
  await main.getByLabel('What “From” is').selectOption({ label: 'Out on' });
  await main.getByLabel('What “Back” is').selectOption({ label: 'Due back' });
  await main.getByRole('button', { name: 'Start the dry run' }).click();
  await expect(main.getByText(/1 row would be imported as FK-\d+/)).toBeVisible();
  await expect(main.getByText('Row 3 of the file')).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await main.getByRole('button', { name: 'Import 1 request' }).click();
  const taken = main.getByText(/1 request was imported: FK-\d+/);
  await expect(taken).toBeVisible();
  const number = /FK-\d+/.exec(await taken.innerText())?.[0] ?? '';
  await maren.goto(`/floor/all/${number}`);
  await expect(maren.getByText('Hanne Istvan').first()).toBeVisible();
  await expect(
    maren.getByRole('complementary', { name: 'Request sheet' }).getByRole('link', { name: 'Light meter, LM-02' }),
  ).toBeVisible();
});
