import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './test.ts';
import { coverage, openPart } from './open.ts';

const CARRIER = readFileSync(new URL('../demo/parts/sensor-carrier.step', import.meta.url));
const BLOCK = readFileSync(new URL('../demo/parts/manifold-block.step', import.meta.url));

const open = (page: Page, buffer: Buffer): Promise<void> =>
  openPart(page, buffer, buffer === BLOCK ? 'block.step' : 'carrier.step');

const words = (page: Page) => page.getByTestId('zero-words');

test('a job in two setups, set up from nothing', async ({ page }) => {
  await open(page, CARRIER);
  await page.keyboard.press('s');
  // From nothing: one setup, nothing chosen.
  await page.getByRole('button', { name: 'Remove this setup' }).click();
  await expect(page.getByTestId('setup-tab')).toHaveCount(1);
  await page.getByLabel('side up').selectOption('+Z');
  await page.getByLabel('work offset').selectOption('G54');
  await page.getByRole('button', { name: 'zero left front corner, top of stock' }).click();
  await expect(words(page)).toHaveText('left front corner, top of stock');
  await page.getByRole('button', { name: 'block', exact: true }).click();
  await page.getByLabel('allowance on top').fill('2');
  await page.getByLabel('allowance on top').press('Enter');
  await page.getByRole('button', { name: 'vise with parallel jaws' }).click();
  await page.getByLabel('grip depth').fill('10');
  await page.getByLabel('grip depth').press('Enter');
  await page.getByRole('button', { name: 'Next, turned over' }).click();
  await expect(page.getByTestId('setup-tab')).toHaveCount(2);
  await expect(page.locator('[data-testid=setup-tab][aria-pressed=true]')).toContainText('2 bottom up');
  await expect(page.getByLabel('work offset')).toHaveValue('G55');
  await expect(page.getByRole('button', { name: 'what is left' })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('s');
  // The block's faces and outline count as well; the rounded edge is all that no method makes.
  await expect(coverage(page)).toContainText('15 / 16');
  // Both programs say where their zero is.
  await page.getByRole('button', { name: /^1/ }).click();
  await page.getByRole('link', { name: 'Code' }).click();
  await expect(page.getByTestId('code')).toContainText('G54 AT LEFT FRONT CORNER, TOP OF STOCK');
  await page.getByRole('button', { name: /^2/ }).click();
  await expect(page.getByTestId('code')).toContainText('G55');
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.reload();
  await expect(page.getByTestId('setup-tab')).toHaveCount(2);
});

test('a clamp over a hole leaves it out and says so', async ({ page }) => {
  await open(page, BLOCK);
  const before = await coverage(page).textContent();
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'keep-out box' }).click();
  for (const [name, value] of [
    ['box 1 X from', '-75'],
    ['box 1 X to', '-40'],
    ['box 1 Y from', '-60'],
    ['box 1 Y to', '60'],
  ] as const) {
    await page.getByLabel(name).fill(value);
    await page.getByLabel(name).press('Enter');
  }
  await expect(coverage(page)).not.toHaveText(before!);
  await page.keyboard.press('s');
  await page.getByRole('button', { name: /^to look at [1-9]/ }).click();
  await page.locator('.row').first().getByRole('button').first().click();
  await expect(page.getByRole('note').filter({ hasText: 'beside box 1' }).first()).toBeVisible();
});

test('stock is fitted again, and may be a bar or another part', async ({ page }) => {
  await open(page, CARRIER);
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'round bar' }).click();
  await expect(page.getByLabel('bar diameter')).toHaveValue('150');
  await page.getByLabel('lies along').selectOption('x');
  await expect(page.getByLabel('bar diameter')).toHaveValue('101.08');
  await page.getByRole('button', { name: 'outline', exact: true }).click();
  await page.getByLabel('margin round the outline').fill('4');
  await page.getByLabel('margin round the outline').press('Enter');
  await page.getByRole('button', { name: 'Fit again' }).click();
  await expect(page.getByLabel('margin round the outline')).toHaveValue('0');
  await page.getByRole('button', { name: 'another part' }).click();
  const choice = page
    .getByLabel('stock part')
    .locator('option')
    .filter({ hasText: 'Manifold block TW-114' })
    .first();
  await page.getByLabel('stock part').selectOption((await choice.getAttribute('value'))!);
  await expect(page.getByTestId('save-state')).toHaveText('saved');
});

test('the setup reads well for everyone', async ({ page }) => {
  await open(page, CARRIER);
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'vise with parallel jaws' }).click();
  await page.getByRole('button', { name: 'keep-out box' }).click();
  const { violations } = await new AxeBuilder({ page }).exclude('canvas').analyze();
  expect(
    violations.map((v) => `${v.id}: ${v.nodes[0]?.target.join(' ')} ${v.nodes[0]?.failureSummary ?? ''}`),
  ).toEqual([]);
});
