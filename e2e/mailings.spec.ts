import { expect } from '@playwright/test';
import { followLetter, overflows, pageOf, phone, seriousTrouble, test } from './people.ts';

test('each thing is checked by whoever keeps it: set up, sent, filled in, passed on, and read on its sheet', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/kit-check/mailings');
  await expect(maren.getByRole('region', { name: 'Yearly kit check' })).toBeVisible();
  await maren.getByRole('button', { name: 'Send this form to people' }).click();
  // What the form asks nothing about is said, and can’t be begun.
  await expect(maren.getByText('This form has no question for a person.')).toBeVisible();
  await expect(maren.getByRole('button', { name: 'Set up: Each about each of the others' })).toBeDisabled();
  await maren.getByRole('button', { name: 'Set up: Check each entry of a register' }).click();
  const adding = maren.getByRole('region', { name: 'Send this form to people' });
  await adding.getByLabel('Name').fill('Before the winter');
  await adding.getByLabel('In use', { exact: true }).check();
  await adding.getByLabel('When it goes out').selectOption('when I send it');
  await adding.getByLabel('Working days until it is due').fill('3');
  await adding.getByRole('button', { name: 'Add a reminder' }).click();
  await adding.getByLabel('Before or after, reminder 2').selectOption('after it was due');
  await adding.getByLabel('Why you ask').fill('The winter is coming.');
  await adding.getByLabel('It may be passed on to a colleague').check();
  await expect(adding.getByText('Now it would go to 4 people, with 7 forms in all: one email to each.')).toBeVisible();
  await adding.getByText('1 can’t be sent').click();
  await expect(adding.getByText(/Quadrat set.*nobody stands there/)).toBeVisible();
  await expect(
    adding.getByText(/Goes to whoever stands in “Kept by”, when you send it\. One for each in Kit at the stage In use/),
  ).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await adding.getByRole('button', { name: 'Add the mailing' }).click();
  const mailing = maren.getByRole('region', { name: 'Before the winter' });
  await mailing.getByRole('button', { name: 'Send now' }).click();
  const dialog = maren.getByRole('dialog');
  await expect(dialog.getByText(/4 people, with 7 forms/)).toBeVisible();
  await dialog.getByRole('button', { name: 'Send now' }).click();
  await expect(mailing.getByText('0 of 7 answered.')).toBeVisible({ timeout: 30_000 });

  // On a phone, from the email; what is typed is there after a reload.
  const priya = await pageOf(browser, 'Priya Nakamura-Lind', { width: 360, height: 740 });
  const mine = priya.getByRole('listitem').filter({ hasText: 'Kit check' }).filter({ hasText: 'Drysuit, large' });
  await mine.last().getByRole('link').click();
  await expect(priya.getByText('The winter is coming.')).toBeVisible();
  await expect(priya.getByText('Drysuit, large, DS-07').first()).toBeVisible();
  await priya.getByLabel('In which state is it?').selectOption({ label: 'Needs a repair' });
  await priya.getByLabel('What is wrong with it?').fill('The seal');
  await priya.reload();
  await expect(priya.getByLabel('What is wrong with it?')).toHaveValue('The seal');
  expect(await overflows(priya)).toBe(false);
  expect(await seriousTrouble(priya)).toEqual([]);
  const address = priya.url();
  await priya.getByRole('button', { name: 'Send the request' }).click();
  await expect(priya.getByText('Thank you. We received your request.')).toBeVisible();
  await priya.goto(address);
  await expect(priya.getByText('This form is not asked of you any more')).toBeVisible();
  // The other one is passed on.
  await priya.goto('/');
  const other = priya.getByRole('listitem').filter({ hasText: 'Kit check' }).filter({ hasText: 'Drysuit, medium' });
  await other.last().getByRole('link').click();
  await priya.getByRole('button', { name: 'A colleague should fill this in' }).click();
  await priya.getByLabel('Who fills it in?').fill('Bram');
  await priya.getByRole('option', { name: /Bram Solheim/ }).click();
  await expect(priya.getByText('Bram Solheim fills it in now.')).toBeVisible();
  const bram = await pageOf(browser, 'Bram Solheim');
  await expect(bram.getByRole('listitem').filter({ hasText: 'Drysuit, medium' }).first()).toBeVisible();
  // Nobody else opens what was sent to somebody.
  await bram.goto(address);
  await expect(bram.getByText('We do not know this link.')).toBeVisible();

  // Who has answered, and on the sheet of the thing what.
  await maren.reload();
  await expect(mailing.getByText('1 of 7 answered.')).toBeVisible();
  await mailing.getByRole('button', { name: 'Who has answered' }).click();
  await expect(mailing.getByRole('row', { name: /Bram Solheim.*passed on by Priya Nakamura-Lind/ })).toBeVisible();
  await mailing.getByRole('button', { name: 'Remind Ruadhan Pell' }).click();
  await expect(maren.getByText('1 person is reminded.')).toBeVisible();
  await mailing.getByRole('button', { name: 'End it for Ruadhan Pell' }).click();
  await expect(mailing.getByRole('row', { name: /Ruadhan Pell/ })).toBeHidden();
  await mailing.getByLabel('Show').selectOption('answered');
  await expect(mailing.getByRole('row', { name: /Priya Nakamura-Lind.*Answered/ })).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.goto('/floor/things');
  await maren
    .getByRole('link', { name: /Drysuit, large/ })
    .first()
    .click();
  const sheet = maren.getByRole('complementary', { name: 'Request sheet' });
  await expect(sheet.getByRole('region', { name: 'Kit check: Before the winter' }).getByText('The seal')).toBeVisible();

  // Once more, about this thing alone.
  await sheet.getByRole('button', { name: 'Ask now: Kit check (Yearly kit check)' }).click();
  await expect(maren.getByText('Sent to 1 person.')).toBeVisible();
  // What is changed goes back, and what was sent stays.
  await maren.goto('/workshop/kit-check/mailings');
  await mailing.getByRole('button', { name: 'Change' }).click();
  await mailing.getByLabel('When it goes out').selectOption('at the start of every month');
  await expect(mailing.getByText('What was sent stays as it was sent.')).toBeVisible();
  await mailing.getByRole('button', { name: 'Put in force now' }).click();
  await expect(mailing.getByText(/at the start of every month/).first()).toBeVisible();
  await expect(mailing.getByText('Goes out next')).toBeVisible();
  await mailing.getByRole('button', { name: 'Remove' }).click();
  await expect(maren.getByRole('dialog').getByText(/forms that nobody has answered end/)).toBeVisible();
  await maren.getByRole('dialog').getByRole('button', { name: 'Remove the mailing' }).click();
  await expect(mailing).toBeHidden();
});

test('a form is sent to contacts, who fill it in from the email on a phone without signing in', async ({ browser }) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/site-access/mailings');
  await maren.getByRole('button', { name: 'Send this form to people' }).click();
  await maren.getByRole('button', { name: 'Set up: Ask some people once' }).click();
  const adding = maren.getByRole('region', { name: 'Send this form to people' });
  await expect(adding.getByText('It goes to nobody. Choose groups or people.')).toBeVisible();
  await adding.getByLabel('Name').fill('Who comes in January');
  await adding.getByLabel('Add somebody who is meant').selectOption({ label: 'Contractors' });
  // By the staff door contacts can’t be asked: it is said before.
  await expect(adding.getByText(/can’t be sent/)).toBeVisible();
  await adding.getByLabel('By which door').selectOption({ label: 'Outside door' });
  await expect(adding.getByText(/can’t be sent/)).toBeHidden();
  await adding.getByRole('button', { name: 'Add the mailing' }).click();
  const mailing = maren.getByRole('region', { name: 'Who comes in January' });
  await mailing.getByRole('button', { name: 'Send now' }).click();
  await maren.getByRole('dialog').getByRole('button', { name: 'Send now' }).click();
  await expect(mailing.getByText(/^0 of \d+ answered/)).toBeVisible({ timeout: 30_000 });

  const contact = await phone(browser);
  await followLetter(contact, 'Please fill in: Come and work on site', 'Fill in the form');
  await expect(contact.getByRole('heading', { name: 'Come and work on site' })).toBeVisible();
  await contact.getByLabel('Who is coming?').fill('Rosalind Achterkamp');
  await contact.getByLabel('Where are they from?').selectOption({ index: 1 });
  await contact.getByLabel('Which works, and who ordered them?').fill('The crane');
  await contact.locator('#answer-fee').fill('900');
  await contact.getByLabel('First day on site').fill('1 Feb 2027');
  await contact.getByLabel('Last day on site').fill('2 Feb 2027');
  await contact.getByRole('radio', { name: 'No' }).first().check();
  // The network is lost while it is sent: nothing is, and nothing typed is lost.
  await contact.context().setOffline(true);
  await contact.getByRole('button', { name: 'Send the request' }).click();
  await expect(contact.getByRole('alert')).toContainText('We cannot connect.');
  await contact.context().setOffline(false);
  await expect(contact.getByLabel('Who is coming?')).toHaveValue('Rosalind Achterkamp');
  expect(await overflows(contact)).toBe(false);
  expect(await seriousTrouble(contact)).toEqual([]);
  const link = contact.url();
  await contact.getByRole('button', { name: 'Send the request' }).click();
  await expect(contact.getByText('Thank you. We received your request.')).toBeVisible();
  // The link opens nothing more, for nobody.
  const other = await phone(browser);
  await other.goto(link);
  await expect(other.getByText('This form is not asked of you any more')).toBeVisible();
  await expect(other.getByLabel('Who is coming?')).toBeHidden();
  await maren.reload();
  await expect(mailing.getByText(/^1 of \d+ answered/)).toBeVisible();
});
