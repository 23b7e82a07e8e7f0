import { expect, test, type Page } from './test.ts';
import { plateStep } from '../demo/src/plate-step.ts';
import { openPart } from './open.ts';

const PLATE = Buffer.from(plateStep({ holes: 4 }));
const code = (page: Page) => page.getByTestId('code');
const byHand = (page: Page) => page.getByRole('group', { name: 'Edits by hand' });
const lineWith = (page: Page, text: RegExp) => code(page).locator('.cm-line', { hasText: text }).first();

/** Puts the cursor behind a line's last word. */
async function endOf(page: Page, text: RegExp): Promise<void> {
  await lineWith(page, text).click();
  await page.keyboard.press('End');
}

test('a line typed by hand is proved, shown against what was posted, stored, and taken back', async ({
  page,
}) => {
  await openPart(page, PLATE, 'small-plate.step');
  await page.keyboard.press('c');
  await endOf(page, /^G40 G49 G80$/);
  await page.keyboard.press('Enter');
  await page.keyboard.type('G123.4');
  await expect(byHand(page).getByText('G123.4')).toBeVisible();
  const unknown = page.getByLabel('Checks').getByRole('listitem').filter({ hasText: 'G123.4' });
  await expect(unknown).toBeVisible();
  // What was not understood may not be accepted.
  await expect(unknown.getByRole('button', { name: 'accept …' })).toHaveCount(0);
  // It is there after a reload; a block that is understood leaves nothing to mend.
  await expect(page.getByText('saved', { exact: true })).toBeVisible();
  await page.reload();
  await expect(lineWith(page, /^G123\.4$/)).toBeVisible({ timeout: 30_000 });
  await endOf(page, /^G123\.4$/);
  for (let i = 0; i < 6; i++) await page.keyboard.press('Backspace');
  await page.keyboard.type('M0');
  await expect(byHand(page).getByText('M0', { exact: true })).toBeVisible();
  await expect(unknown).toHaveCount(0);
  // Block numbers are no edits of anybody.
  await page.getByText('line numbers').click();
  await expect(lineWith(page, /^N\d+ M0$/)).toBeVisible();
  await expect(byHand(page).getByRole('listitem')).toHaveCount(1);
  await byHand(page).getByRole('button', { name: 'take back' }).click();
  await expect(byHand(page)).toBeHidden();
  await expect(code(page).getByText('M0', { exact: true })).toHaveCount(0);
});

test('an edit that the plan runs over is told and waits; undone, it stands again', async ({ page }) => {
  // A plate of its own: a copy of the one above would have its edits.
  await openPart(page, Buffer.from(plateStep({ holes: 5 })), 'other-plate.step');
  await page.keyboard.press('c');
  await endOf(page, /G8[123] .* F\d/);
  await page.keyboard.press('Backspace');
  await page.keyboard.press('Backspace');
  await page.keyboard.type('1.');
  await expect(byHand(page).getByRole('listitem')).toHaveCount(1);
  const feeds = page.getByLabel('Feeds at percent');
  await feeds.fill('50');
  await feeds.press('Enter');
  await expect(byHand(page).getByText(/does not fit/)).toBeVisible();
  await expect(page.getByLabel('Checks').getByText(/Make the edit again, or let it go/)).toBeVisible();
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(byHand(page).getByText(/does not fit/)).toBeHidden();
  await expect(byHand(page).getByRole('button', { name: 'take back' })).toBeVisible();
});
