import { expect } from '@playwright/test';
import { overflows, pageOf, phone, release, seriousTrouble, test } from './people.ts';

test('a notice is written with what it puts in picked, seen as its reader gets it, and read on a phone', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  await maren.goto('/workshop/purchase/notices');
  await maren.getByLabel('Add a notice: when …').selectOption('a request arrives');
  await maren.getByLabel('Name', { exact: true }).fill('Dear ones');
  await maren.getByRole('button', { name: 'Remove the handler, or the team' }).click();
  await maren.getByLabel('Add who gets it …').selectOption('the team');
  await maren.getByLabel('Add who gets it …').selectOption('Outreach');
  await maren.getByLabel('Add who gets it …').selectOption('the requester');
  const text = maren.getByRole('textbox', { name: 'Text' });
  await text.press('ControlOrMeta+a');
  await text.press('Delete');
  await text.pressSequentially('We buy for ');
  await maren.getByLabel('Text: Put in …').selectOption('requester');
  await text.pressSequentially('. Paid from ');
  await maren.getByLabel('Text: Put in …').selectOption('Budget code');
  await text.pressSequentially('.');
  await expect(text).toHaveText('We buy for requester. Paid from Budget code.');
  await maren.getByLabel('If “Budget code” is empty:').fill('no code yet');

  // Beside it stands what each of them would get.
  const aside = maren.getByRole('complementary').last();
  const letter = aside.getByRole('article');
  await expect(letter).toContainText(/We buy for .+\. Paid from [A-Z]{2}\d{4}\./);
  await expect(letter).toContainText('Dear Anneke Rasmus,');
  const hidden = aside.getByRole('button', { name: /Dorothea Lambrecht/ });
  await expect(hidden).toContainText('not: they may not read what it tells of');
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.getByRole('button', { name: 'Change “New request for the team”' }).click();
  await expect(aside.getByRole('article')).toContainText('Dear Anneke Rasmus,');
  await maren.getByLabel('This notice is sent').uncheck();
  await expect(aside.getByText('not: it is not sent')).toBeVisible();
  await maren.getByRole('button', { name: 'Done' }).click();
  await expect(maren.getByText('When a request arrives: email to the team, Outreach and the requester.')).toBeVisible();
  await release(maren);

  // What is in force is what they get.
  const priya = await phone(browser);
  await priya.goto('/sign-in');
  await priya.getByRole('button', { name: /Priya Nakamura-Lind/ }).click();
  await priya.getByRole('heading', { name: 'What do you need?' }).waitFor();
  const door = (await (await priya.request.get('/api/doors/purchase')).json()) as {
    form: { release: number };
  };
  const sent = await priya.request.post('/api/doors/purchase/requests', {
    headers: { Origin: new URL(priya.url()).origin, 'Idempotency-Key': crypto.randomUUID() },
    data: {
      release: door.form.release,
      answers: {
        ...{ purpose: 'For the pier', budget: 'MB2041' },
        lines: [{ what: 'Rope', count: '2', price: '12.50', vat: 'full' }],
      },
    },
  });
  const { number } = (await sent.json()) as { number: string };
  await maren.goto('/mailroom');
  await maren.getByRole('searchbox').fill(number);
  const to = (name: string) => maren.getByRole('listitem').filter({ hasText: name });
  await expect(to('Priya Nakamura-Lind').filter({ hasText: 'Dear ones' })).toHaveCount(1);
  await expect(to('Dorothea Lambrecht')).toHaveCount(0);
  await expect(to('Anneke Rasmus')).toHaveCount(1);
  await to('Anneke Rasmus').getByRole('link').click();
  await expect(
    maren
      .frameLocator('iframe')
      .getByRole('paragraph')
      .filter({ hasText: 'We buy for Priya Nakamura-Lind. Paid from MB2041.' }),
  ).toBeVisible();
  expect(await overflows(maren)).toBe(false);

  // The sheet tells who was not written to, and why.
  await maren.goto(`/floor/all/${number}`);
  await maren.getByText('Emails about this request').click();
  const told = maren.getByRole('listitem');
  await expect(told.filter({ hasText: 'Anneke Rasmus: a new request' })).toContainText('the form does not send it');
  await expect(told.filter({ hasText: 'Dorothea Lambrecht: Dear ones' })).toContainText('they may not read what it is');
});
