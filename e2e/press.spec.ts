import { expect } from '@playwright/test';
import { test } from './people.ts';

test('a press counts for what it began on though that moves away meanwhile, and not where the pointer is moved off it', async ({
  page,
}) => {
  await page.goto('/');
  const link = page.getByRole('link', { name: 'Sign in' }).first();
  await expect(link).toBeVisible();
  // As a field that is left may do: what stands above takes more room the moment the button goes down.
  await page.evaluate(() => {
    const more = document.createElement('div');
    document.body.prepend(more);
    document.addEventListener('mousedown', () => more.setAttribute('style', 'height: 120px'));
    document.addEventListener('mouseup', () => more.removeAttribute('style'));
  });
  const press = async (slides: number): Promise<void> => {
    const box = await link.boundingBox();
    if (!box) throw new Error('The link is not there.');
    await page.mouse.move(box.x + 4, box.y + 4);
    await page.mouse.down();
    await page.mouse.move(box.x + 4 + slides, box.y + 4);
    await page.mouse.up();
  };
  await press(200);
  await expect(page).toHaveURL(/\/$/);
  await press(2);
  await expect(page).toHaveURL(/come-in$/);
});
