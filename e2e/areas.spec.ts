import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './test.ts';
import { openPart, rowOf } from './open.ts';

const POCKETS = readFileSync(new URL('./fixtures/pockets.step', import.meta.url));

/** The part with two pockets and a step, out of a block. */
async function fromBlock(page: Page): Promise<void> {
  await openPart(page, POCKETS, 'pockets.step');
  await page.getByRole('link', { name: 'Setup' }).click();
  await page.getByRole('button', { name: 'block', exact: true }).click();
  await page.getByRole('link', { name: 'Worksheet' }).click();
}

test('a pocket is cleared by a wide cutter and its corners by a narrow one, or by one for all of it', async ({
  page,
}) => {
  await fromBlock(page);
  await rowOf(page, 'H').getByRole('button').first().click();
  const detail = page.getByTestId('detail-H');
  await expect(detail.getByRole('tab')).toHaveText(['clear', 'corners']);
  // The last of them is open first.
  await expect(detail.getByRole('img', { name: 'Plan of H1, corners' })).toBeVisible();
  await detail.getByRole('tab', { name: 'clear' }).click();
  await expect(detail.getByRole('img', { name: 'Plan of H1, clear' })).toBeVisible();
  await detail.getByLabel('corners', { exact: true }).selectOption('this cutter');
  await expect(detail.getByRole('tab', { name: 'corners' })).toHaveCount(0);
  // What was typed is taken back like anything else.
  await page.keyboard.press('Control+z');
  await expect(detail.getByRole('tab')).toHaveText(['clear', 'corners']);
});

test('how a pocket is cleared is saved as a method of its family, with operations that pockets have', async ({
  page,
}) => {
  await fromBlock(page);
  await rowOf(page, 'G').getByRole('button').first().click();
  await page.getByTestId('detail-G').getByLabel('roughing').selectOption('narrow steps');
  await page.getByRole('button', { name: 'Operations …' }).click();
  const kinds = page.getByLabel('operation 1', { exact: true }).locator('option');
  await expect(kinds.filter({ hasText: 'entry hole' })).toHaveCount(1);
  await expect(kinds.filter({ hasText: /^tap$/ })).toHaveCount(0);
  await page.getByRole('button', { name: 'Save as a method …' }).click();
  await expect(page.getByLabel('what it is for')).toHaveValue('pocket');
  await expect(page.getByText(/In this job it matches G/)).toBeVisible();
});
