import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './test.ts';
import { openPart } from './open.ts';

const POCKETS = readFileSync(new URL('./fixtures/pockets.step', import.meta.url));
/** The row of an edge by its length. */
const edgeRow = (page: Page, length: string) => page.locator('.row', { hasText: `${length} long` });

test('the edges round a face are broken in one action, and the flank is seen on the corner', async ({
  page,
}) => {
  await openPart(page, POCKETS, 'pockets.step');
  const rim = edgeRow(page, '292.789');
  await rim.getByRole('button').first().click();
  await expect(rim).toContainText('nothing asks for a break');
  await page.getByRole('button', { name: 'Break all of this face' }).click();
  await expect(rim).toContainText('break with the flank');
  await expect(edgeRow(page, '447.467')).toContainText('break with the flank');
  const section = page.getByTestId('edge-section');
  await expect(
    section.getByRole('img', { name: /^Section of .*, edge break, tip .* below the edge$/ }),
  ).toBeVisible();
  await expect(page.getByRole('img', { name: /^Plan of .*, edge break$/ })).toBeVisible();
  // A clearance that leaves no chamfer is refused with what would do.
  const clearance = section.getByLabel('tip below the chamfer, in section');
  await clearance.fill('9');
  await clearance.press('Enter');
  await expect(page.getByText(/would leave no chamfer.*Use .* at the most/).first()).toBeVisible();
  await page.keyboard.press('Escape');
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(rim).toContainText('break with the flank');
});

test('one field breaks all sharp edges of a job, and each that stays says why', async ({ page }) => {
  await openPart(page, POCKETS, 'pockets.step');
  await page.getByRole('link', { name: 'Setup' }).click();
  await page.getByRole('button', { name: 'Break all sharp edges' }).click();
  const width = page.getByLabel('Width of all broken edges');
  await width.fill('0');
  await width.press('Enter');
  await expect(page.getByText('Above nothing, and no chamfer.')).toBeVisible();
  await width.fill('0.4');
  await width.press('Enter');
  await page.getByRole('link', { name: 'Worksheet' }).click();
  await expect(edgeRow(page, '447.467')).toContainText('break with the flank');
  await expect(edgeRow(page, '446.265')).toContainText('No setup looks at it');
  await edgeRow(page, '447.467').getByRole('button').first().click();
  await expect(page.getByTestId('edge-section').getByLabel('width, in section')).toHaveValue('0.4');
  await page.getByRole('button', { name: 'leave them sharp' }).click();
  await expect(edgeRow(page, '446.265')).toContainText('nothing asks for a break');
});
