import { expect } from '@playwright/test';
import { overflows, pageOf, seriousTrouble, test } from './people.ts';

test('somebody changes what the desk has of them on a phone; it counts once it is accepted, and both values are shown until then', async ({
  browser,
}) => {
  // Whoever works for Boats says what they can do; what stands there is told, and what is left empty stays.
  const bram = await pageOf(browser, 'Bram Solheim', { width: 360, height: 740 });
  await bram.goto('/ask/my-skills');
  await expect(bram.getByText('Which one do you want to change?')).toBeVisible();
  await bram.getByRole('radio', { name: /Winch and crane/ }).check();
  await expect(bram.getByLabel('Which skill is it about?')).toHaveValue('winch');
  await expect(bram.getByText('Now: 4')).toBeVisible();
  // Nothing said is nothing to send.
  await bram.getByRole('button', { name: 'Send the change' }).click();
  await expect(bram.getByText('You have changed nothing.')).toBeVisible();
  await bram.getByLabel(/How well can you do it/).fill('9');
  await bram.getByRole('button', { name: 'Send the change' }).click();
  await expect(bram.getByRole('alert').first()).toContainText('5');
  await bram.getByLabel(/How well can you do it/).fill('5');
  await bram.getByRole('checkbox', { name: 'Remove this answer' }).check();
  expect(await overflows(bram)).toBe(false);
  expect(await seriousTrouble(bram)).toEqual([]);
  // What was typed and taken away is there after a reload.
  await bram.reload();
  await expect(bram.getByLabel(/How well can you do it/)).toHaveValue('5');
  await expect(bram.getByRole('checkbox', { name: 'Remove this answer' })).toBeChecked();
  await bram.getByRole('button', { name: 'Send the change' }).click();
  await expect(bram.getByRole('heading', { name: 'Thank you. We have your change.' })).toBeVisible();
  await bram.goto('/ask/my-skills');
  await bram.getByRole('radio', { name: /Winch and crane/ }).check();
  await expect(bram.getByText('Level: 4 → 5')).toBeVisible();

  // Whoever sent it does not accept it; somebody else does, with both values in view.
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/floor/proposed');
  await maren.getByRole('link', { name: /Winch and crane: Bram Solheim/ }).click();
  const waits = maren.getByRole('region', { name: 'A change waits to be accepted' });
  await expect(waits.getByRole('row', { name: 'Level 4 5' })).toBeVisible();
  expect(await seriousTrouble(maren)).toEqual([]);
  await waits.getByRole('button', { name: 'Refuse the change' }).click();
  await expect(waits.getByRole('alert')).toBeVisible();
  await waits.getByLabel(/^Comment/).fill('Well done.');
  await waits.getByRole('button', { name: 'Accept the change' }).click();
  await expect(maren.getByText('Accepted. The new values count now.')).toBeVisible();
  await expect(waits).toHaveCount(0);

  // One press says that all is still right.
  await bram.goto('/ask/my-skills');
  await bram.getByRole('radio', { name: /Winch and crane/ }).check();
  await expect(bram.getByText('Now: 5')).toBeVisible();
  await bram.getByRole('button', { name: 'Everything is still right' }).click();
  await expect(bram.getByRole('heading', { name: 'Thank you. Everything stays as it is.' })).toBeVisible();
});

test('a coordinator looks at a form over what is somebody’s, and at what an answer would change', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/my-skills/questions');
  const proof = maren.getByRole('complementary', { name: /Proof/ });
  await expect(proof.getByText(/Choose somebody by name/)).toBeVisible();
  await proof.getByLabel('Seen by').selectOption({ label: 'Oskar Veldhuis' });
  await expect(proof.getByText(/Choose somebody by name/)).toHaveCount(0);
  await proof.getByLabel('Seen by').selectOption({ label: 'Bram Solheim' });
  await proof.getByRole('radio', { name: /Skipper: Bram Solheim/ }).check();
  await expect(proof.getByLabel('Which skill is it about?')).toHaveValue('skipper');
  await proof.getByLabel(/How well can you do it/).fill('1');
  await expect(proof.getByText(/^Level: \d → 1$/)).toBeVisible();
  await expect(proof.getByText('It waits until somebody accepts it.')).toBeVisible();
  // Nothing is sent from there: a trial adds.
  await expect(proof.getByRole('button', { name: 'Send a trial request' })).toBeDisabled();
  expect(await seriousTrouble(maren)).toEqual([]);
  await proof.getByRole('button', { name: 'Clear the answers' }).click();
  await expect(proof.getByText(/^Level: /)).toHaveCount(0);
});

test('a coordinator makes a form that changes what is there, and is told where it would find nothing', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  await maren.goto('/workshop/kit-check/questions');
  const does = maren.getByRole('group', { name: 'What an answer does' });
  await does.getByRole('radio', { name: /It changes what the person already has here/ }).check();
  await maren.getByRole('checkbox', { name: 'State', exact: true }).check();
  await maren.getByRole('checkbox', { name: 'A change waits until somebody accepts it' }).check();
  await expect(maren.getByText(/Saved/).first()).toBeVisible();
  await maren.reload();
  await expect(maren.getByRole('checkbox', { name: 'A change waits until somebody accepts it' })).toBeChecked();
  await does.getByRole('radio', { name: /It adds a new entry/ }).check();
  await expect(maren.getByRole('checkbox', { name: 'A change waits until somebody accepts it' })).toHaveCount(0);
});
