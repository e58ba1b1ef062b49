import { expect, type Page } from '@playwright/test';
import { asksForAnalysis, overflows, pageOf, phone, seriousTrouble, test } from './people.ts';

/** Answers the newest email with these words, in the Mailroom, as its reader. */
async function answersEmail(page: Page, words: readonly string[], text: string): Promise<void> {
  await page.goto('/mailroom');
  await page.getByRole('searchbox').fill(words[0] ?? '');
  let email = page.getByRole('listitem');
  for (const each of words) email = email.filter({ hasText: each });
  await email.first().getByRole('link').click();
  await page.getByLabel('Email', { exact: true }).fill(text);
  await page.getByRole('button', { name: 'Send the email' }).click();
  await expect(page.getByText('The email is sent.')).toBeVisible();
}

test('a request that waits for its requester goes on when they answer the email', async ({ browser }) => {
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const number = await asksForAnalysis(priya);
  const emeric = await pageOf(browser, 'Emeric Vantongeren');
  await emeric.goto(`/floor/all/${number}`);
  const sheet = emeric.getByRole('complementary', { name: 'Request' });
  await sheet.getByRole('button', { name: /^Pause and tell the requester/ }).click();
  await expect(sheet.getByText('Waiting for the requester', { exact: true }).first()).toBeVisible();

  // The email says that it can be answered, and its answer is told as such, without what it answers.
  await answersEmail(await phone(browser), ['We need your answer', 'Priya'], 'They come by the Thursday ferry.');
  await expect(sheet.getByText('They come by the Thursday ferry.')).toBeVisible();
  await expect(sheet.getByText('Message from the requester, by email')).toBeVisible();
  await expect(sheet.getByText('You can also answer this email')).toHaveCount(0);
  await expect(sheet.getByRole('button', { name: /^Pause and tell the requester/ })).toBeVisible();

  // And so does she find it on her own page.
  await priya.goto(`/my/${number}`);
  await expect(priya.getByText('They come by the Thursday ferry.')).toBeVisible();
});

test('what fits no request is added to one, made one, or laid aside', async ({ browser }) => {
  const number = await asksForAnalysis(await pageOf(browser, 'Priya Nakamura-Lind'));
  const maren = await pageOf(browser, 'Maren Okafor');
  const mailroom = await phone(browser);
  const writes = async (from: string, subject: string, text: string): Promise<void> => {
    await mailroom.goto('/mailroom/write');
    await mailroom.getByLabel('From which address').fill(from);
    await mailroom.getByLabel('Subject').fill(subject);
    await mailroom.getByLabel('Email', { exact: true }).fill(text);
    await mailroom.getByRole('button', { name: 'Send the email' }).click();
  };
  await writes('nobody', 'Hello', 'Hello');
  await expect(mailroom.getByText('“nobody” is not an email address.').first()).toBeVisible();
  await expect(mailroom.getByLabel('Email', { exact: true })).toHaveValue('Hello');
  for (const [from, subject] of [
    ['nerys.coe@coe.example', 'The ladder'],
    ['piet.roe@roe.example', 'Samples of ours'],
    ['shop@boats.example', 'Cheap boats'],
  ] as const) {
    await writes(from, subject, `About ${subject.toLowerCase()}, please.`);
    await expect(mailroom.getByText('The email is sent.')).toBeVisible();
  }

  await maren.goto('/floor/arrived');
  await maren
    .getByRole('navigation')
    .getByRole('link', { name: /^Emails/ })
    .click();
  await maren.getByRole('link', { name: /Cheap boats/ }).click();
  await maren.getByRole('button', { name: 'Lay aside' }).click();
  await expect(maren.getByRole('link', { name: /Cheap boats/ })).toHaveCount(0);
  await maren.getByRole('link', { name: 'Laid aside' }).click();
  await maren.getByRole('link', { name: /Cheap boats/ }).click();
  await expect(maren.getByText(/Maren Okafor laid it aside/)).toBeVisible();

  // To a request, as a note: its subject shows that it is the right one.
  await maren.goto('/floor/emails');
  await maren.getByRole('link', { name: /The ladder/ }).click();
  await expect(
    maren.getByText('Nobody we know has this address.').or(maren.getByText('It does not say')),
  ).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.getByLabel(/Number of the request/).fill('CN-99999');
  await expect(maren.getByText('There is no request CN-99999', { exact: false })).toBeVisible();
  await maren.getByLabel(/Number of the request/).fill(number);
  await maren.getByRole('button', { name: `Add to ${number}` }).click();
  const sheet = maren.getByRole('complementary', { name: 'Request' });
  await expect(sheet.getByText('Email from nerys.coe@coe.example')).toBeVisible();

  // To a new one: the form begins with the words of the email, and whoever wrote it hears of it.
  await maren.goto('/floor/emails');
  await maren.getByRole('link', { name: /Samples of ours/ }).click();
  await maren.getByLabel('Form', { exact: true }).selectOption('concern-report');
  await maren.getByRole('button', { name: 'Fill in the form' }).click();
  await expect(maren.getByText('You send this in the name of piet.roe@roe.example.', { exact: false })).toBeVisible();
  await maren.getByRole('button', { name: /^Use the email as the answer to/ }).click();
  await expect(maren.getByLabel('What happened?')).toHaveValue('About samples of ours, please.');
  expect(await overflows(maren)).toBe(false);
  await maren.getByLabel('What is it about?').selectOption({ label: 'Safety' });
  await maren.getByRole('radio', { name: 'No' }).check();
  await maren.getByRole('button', { name: 'Send' }).click();
  await expect(sheet.getByText('piet.roe@roe.example').first()).toBeVisible();
  await mailroom.goto('/mailroom');
  await mailroom.getByRole('searchbox').fill('piet.roe');
  await expect(
    mailroom.getByRole('listitem').filter({ hasText: 'piet.roe' }).filter({ hasText: 'We received your request' }),
  ).toBeVisible();
});
