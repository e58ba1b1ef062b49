import { expect } from '@playwright/test';
import { pageOf, release, seriousTrouble, test } from './people.ts';

test('a short form asks into the register of a full one: both are changed, released and compared; old loans are computed anew', async ({
  browser,
}) => {
  const maren = await pageOf(browser, 'Maren Okafor');
  const main = maren.getByRole('main');
  const contents = maren.getByRole('navigation', { name: 'Contents' });

  await test.step('the coordinator makes the short one, with some of the fields, and releases it', async () => {
    await maren.goto('/workshop/new');
    await main.getByText('An existing register').click();
    await main.getByLabel('Register', { exact: true }).selectOption({ label: 'Field kit loan' });
    await main.getByRole('button', { name: 'None yet' }).click();
    for (const field of ['Out on', 'Due back', 'Responsible']) await main.getByLabel(field).check();
    expect(await seriousTrouble(maren)).toEqual([]);
    await main.getByRole('button', { name: 'Create the form' }).click();
    await expect(main.getByText('The form has no title. Enter a title.')).toBeVisible();
    await main.getByLabel('Title').fill('Kit, quickly');
    await main.getByRole('button', { name: 'Create the form' }).click();
    await expect(contents.getByText('(1 other form too)')).toBeVisible();
    await expect(
      maren.getByRole('complementary', { name: 'Proof' }).getByText('When will you collect it?'),
    ).toBeVisible();
    await release(maren);
  });

  await test.step('changes a name in the full one, which says whom it reaches, and how days are counted', async () => {
    await maren.goto('/workshop/field-kit-loan/questions');
    await main.getByRole('button', { name: /^Responsible/ }).click();
    await expect(main.getByText('also affects 1 other form').last()).toBeVisible();
    await main.getByLabel('Field', { exact: true }).fill('Borrower');
    await main.getByRole('button', { name: /^Borrower/ }).click();
    await main.getByRole('button', { name: 'Days out', exact: true }).click();
    const formula = main.getByRole('textbox', { name: 'Formula of Days out' });
    await formula.click();
    await maren.keyboard.press('Control+a');
    await maren.keyboard.type('(Due back - Out on).days + 1');
    await release(maren, async (dialog) => {
      await expect(dialog.getByText('These register changes also affect “Kit, quickly”.')).toBeVisible();
      await expect(dialog.getByText('Computed differently: “Days out”')).toBeVisible();
      await dialog.getByLabel('Compute existing requests again').check();
      expect(await seriousTrouble(maren)).toEqual([]);
    });
    await expect(maren.getByText(/requests? (was|were) computed again/)).toBeVisible();
  });

  await test.step('finds it in the draft of the short one, compared in words, with a deadline of its own', async () => {
    await maren.goto('/workshop/kit-quickly/approval');
    await main.getByLabel('This form has its own deadline').check();
    await main.getByRole('button', { name: 'Change the deadline “To be finished”' }).click();
    await main.getByLabel('Working hours, time 1 of “To be finished”').fill('2');
    await expect(maren.getByText('Saved', { exact: true })).toBeVisible();
    await maren.getByRole('button', { name: 'Release this draft …' }).click();
    const dialog = maren.getByRole('dialog');
    await expect(dialog.getByText('The field “Responsible” is now called “Borrower”.')).toBeVisible();
    await expect(dialog.getByText('The form has its own deadline from now on.')).toBeVisible();
    await dialog.getByRole('button', { name: 'Release number 2', exact: true }).click();
    await expect(maren.getByText(/Release 2 is in force/)).toBeVisible();
  });

  const priya = await pageOf(browser, 'Priya Nakamura-Lind');
  await test.step('somebody of the staff asks by it', async () => {
    await priya.goto('/ask/kit-quickly');
    await priya.getByLabel('When will you collect it?').fill('2026-12-01');
    await priya.getByLabel('When will you return it?').fill('2026-12-03');
    await priya.getByRole('button', { name: 'Send' }).click();
    await expect(priya.getByText(/FK-\d+/).first()).toBeVisible();
  });

  await test.step('what is there was computed anew, and says so; one can see the forms beside each other', async () => {
    await maren.goto('/floor/all/FK-00001');
    await expect(maren.getByText('Computed again for release 2')).toBeVisible();
    await maren.goto('/workshop/registers/field-kit-loan');
    await expect(main.getByText(/2 forms/)).toBeVisible();
    await expect(main.getByRole('row', { name: /^Borrower person on the form on the form/ })).toBeVisible();
    expect(await seriousTrouble(maren)).toEqual([]);
    const short = main.getByRole('listitem').filter({ hasText: 'Kit, quickly' });
    await expect(short.getByText('its own: Deadline')).toBeVisible();
    await short.getByRole('button', { name: 'Stop the form' }).click();
    await expect(short.getByText('stopped: nobody can send requests with it')).toBeVisible();
    await priya.goto('/');
    await expect(priya.getByRole('link', { name: /Field kit loan/ })).toBeVisible();
    await expect(priya.locator('a[href="/ask/kit-quickly"]')).toHaveCount(0);
  });
});
