import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './test.ts';
import { holdUploads, openPart, typeHole } from './open.ts';

const BLOCK = readFileSync(new URL('../demo/parts/manifold-block.step', import.meta.url));
// Drawn by the processor, the first picture takes its time.
test.setTimeout(180_000);

const open = (page: Page): Promise<void> => openPart(page, BLOCK, 'block.step');

/** Clicks the part at a share of its pane. */
async function clickPart(page: Page, x: number, y: number): Promise<void> {
  const box = (await page.getByTestId('part-view').boundingBox())!;
  await page.mouse.click(box.x + box.width * x, box.y + box.height * y);
}

const words = (page: Page) => page.getByTestId('zero-words');

test('up, X and zero are picked on the part', async ({ page }) => {
  await open(page);
  await page.keyboard.press('s');
  const side = page.getByLabel('side up');
  await side.selectOption('-Y');
  await expect(page.locator('[data-testid=setup-tab][aria-pressed=true]')).toContainText('front up');
  await page.waitForTimeout(800);
  await page.getByRole('group', { name: 'Up' }).getByRole('button', { name: 'a face' }).click();
  await expect(page.getByRole('status').filter({ hasText: 'face that is to be up' })).toBeVisible();
  // The flat front of the picture is one of the other sides.
  await clickPart(page, 0.62, 0.72);
  await expect(page.getByText('face that is to be up')).toHaveCount(0);
  await expect(side).not.toHaveValue('-Y');
  await page.keyboard.press('Control+z');
  await expect(side).toHaveValue('-Y');
  await page.getByRole('button', { name: 'pick on the part' }).click();
  await page.keyboard.press('Escape');
  await expect(page.getByText('zero goes there')).toHaveCount(0);
  await page.getByRole('button', { name: 'other way' }).click();
  await page.getByRole('button', { name: '90° about Z' }).click();
  await page.getByLabel('zero offset X').fill('-2.5');
  await page.getByLabel('zero offset X').press('Enter');
  await expect(words(page)).toHaveText('centre, top of stock; 2.5 mm toward -X');
});

test('the part is turned by arrow keys, and the rows keep theirs', async ({ page }) => {
  await open(page);
  const part = page.getByRole('application');
  await part.focus();
  const z = page.locator('.axis-label').nth(2);
  await expect(z).toBeVisible({ timeout: 60_000 });
  const before = await z.getAttribute('style');
  await page.keyboard.press('ArrowLeft');
  await page.keyboard.press('ArrowDown');
  await expect.poll(() => z.getAttribute('style'), { timeout: 60_000 }).not.toBe(before);
  await expect(page.locator('.row.on')).toHaveCount(0);
});

test('a finding leads to its place on the part', async ({ page }) => {
  await open(page);
  await page.keyboard.press('c');
  // A hole where the part has none.
  await typeHole(page, 'X1. Y1.');
  const found = page.getByLabel('Checks').getByRole('button', { name: /where the part has no hole/ });
  await found.first().click({ timeout: 60_000 });
  await expect(page.getByTestId('place')).toBeVisible();
  // Another row in hand: the place was not its own.
  await page.keyboard.press('ArrowDown');
  await expect(page.getByTestId('place')).toHaveCount(0);
});

test('a part that was dropped is turned while the server has not read it yet', async ({ page }) => {
  const send = await holdUploads(page);
  await page.goto('/');
  await page
    .getByLabel('STEP file')
    .setInputFiles({ name: 'held.step', mimeType: 'application/step', buffer: BLOCK });
  const part = page.getByRole('region', { name: /just read/ }).getByRole('application');
  await expect(page.getByText('to turn it.')).toBeVisible();
  await expect(part).toBeVisible();
  await part.focus();
  const before = await part.screenshot();
  await page.keyboard.press('ArrowRight');
  await page.keyboard.press('ArrowRight');
  await expect.poll(async () => (await part.screenshot()).equals(before)).toBe(false);
  send();
  await expect(page).toHaveURL(/jobs\/.+/, { timeout: 60_000 });
});
