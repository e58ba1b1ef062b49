import { expect } from '@playwright/test';
import { asksForAnalysis, pageOf, release, seriousTrouble, spilling, test } from './people.ts';

test('a first answer is promised besides the finish: set in the workshop, seen on the fuse, and over when the desk answers', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor', { width: 1440, height: 900 });
  await maren.goto('/workshop/sample-analysis/approval');
  const main = maren.getByRole('main');
  await main.getByLabel('Add a deadline').selectOption('First answer');
  await main.getByLabel('Working hours of “First answer”').fill('5');
  await main.getByLabel('Who is told at time 2 of “First answer”').selectOption({ label: 'the team' });
  await main.getByLabel('What is done at time 2 of “First answer”').selectOption({ label: 'high priority' });
  expect(await spilling(maren)).toEqual([]);
  expect(await seriousTrouble(maren)).toEqual([]);
  await main.getByRole('button', { name: 'Done' }).click();
  await expect(
    main.getByText('From arrival: 5 hours of working time. Over with our first message to the requester.'),
  ).toBeVisible();
  await expect(main.getByText('When it is due: email to the leads and the team and high priority.')).toBeVisible();
  // It stands in the picture of the whole life at once, and is reached from there.
  const picture = maren.getByRole('figure', { name: 'The request over working time' });
  await expect(picture.getByText(/due Mon 23 Nov/)).toBeVisible();
  await main.getByLabel('By', { exact: true }).selectOption('1');
  await main.getByText('Who hears of what').click();
  await expect(main.getByText(/First answer: email to the leads and the team and high priority/)).toBeVisible();
  await picture.getByRole('button', { name: 'Change First answer' }).click();
  await expect(main.getByLabel('Working hours of “First answer”')).toHaveValue('5');
  expect(await spilling(maren)).toEqual([]);
  await main.getByRole('button', { name: 'Done' }).click();
  await release(maren, (dialog) =>
    expect(dialog.getByText(/First answer: 5 hours of working time, told 2 times/)).toBeAttached(),
  );

  // Whoever asked counts on the finish; the desk sees what is due before it.
  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  const number = await asksForAnalysis(priya);
  await expect(priya.getByText(/We plan to finish it by Thu 3 Dec/)).toBeVisible();
  await maren.goto(`/floor/all/${number}`);
  const sheet = maren.getByRole('article');
  await expect(sheet.getByText(/First answer: Mon 23 Nov/)).toBeVisible();
  await expect(sheet.getByText(/To be finished: Thu 3 Dec/)).toBeVisible();
  await expect(maren.getByRole('row', { name: new RegExp(number) })).toContainText(/First answer: (4|5) hrs/);
  await sheet.getByRole('button', { name: 'Why: First answer' }).click();
  await expect(maren.getByText('Time allowed: 5 hours of working time.')).toBeVisible();
  await expect(maren.getByText(/email to the leads and the team and high priority/)).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await maren.keyboard.press('Escape');
  await sheet.getByLabel('Note or message').fill('We look at the tubes tomorrow.');
  await sheet.getByRole('button', { name: 'Send to the requester' }).click();
  await expect(sheet.getByText(/First answer: Mon 23 Nov/)).toBeVisible();
  await expect(maren.getByRole('row', { name: new RegExp(number) })).not.toContainText('First answer');
  await priya.goto(`/my/${number}`);
  await expect(priya.getByText('We look at the tubes tomorrow.').first()).toBeVisible();
});
