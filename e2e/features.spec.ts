import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './test.ts';
import { plateStep } from '../demo/src/plate-step.ts';
import { coverage, openPart as open, worksheet } from './open.ts';

const part = (name: string): Buffer => readFileSync(new URL(`../demo/parts/${name}`, import.meta.url));

const rowWith = (page: Page, text: string | RegExp) => page.locator('.row').filter({ hasText: text });
/** By its callout: the signs in it are drawn, so they are no text of the row. */
const rowSaying = (page: Page, name: RegExp) =>
  page.locator('.row').filter({ has: page.getByRole('button', { name }) });

test('every family has its row and its drawing', async ({ page }) => {
  await open(page, part('mooring-rail.step'), 'rail.step');
  await page.getByRole('button', { name: 'narrow down' }).click();
  await page.getByLabel('kind').selectOption('t-slot');
  await rowWith(page, '12 / 21').getByRole('button').first().click();
  await expect(page.getByRole('img', { name: /^Section of/ })).toBeVisible();
  await expect(page.getByRole('img', { name: /^Plan of/ })).toBeVisible();
  await page.getByLabel('kind').selectOption('wall-groove');
  await expect(rowWith(page, '5 wide, 5 into the wall')).toBeVisible();
  await page.getByLabel('kind').selectOption('sharp-edge');
  await expect(page.locator('.row').first()).toContainText('optional');
});

test('rows are narrowed down by size and side, and worked on together', async ({ page }) => {
  await open(page, part('manifold-block.step'), 'block.step');
  await page.getByRole('button', { name: 'narrow down' }).click();
  await page.getByLabel('kind').selectOption('hole');
  await page.getByLabel('size from – to').fill('6 – 7');
  const few = await page.locator('.row').count();
  expect(few).toBeGreaterThan(1);
  await page.getByRole('button', { name: 'choose all shown' }).click();
  await expect(page.getByRole('group', { name: new RegExp(`^Correct ${few} rows`) })).toBeVisible();
  await page.getByLabel('size from – to').fill('wide');
  await expect(page.getByLabel('size from – to')).toHaveAttribute('aria-invalid', 'true');
});

test('a depth is corrected for many at once, listed, and taken back alone', async ({ page }) => {
  await open(page, Buffer.from(plateStep({ holes: 6, diameter: 5 })), 'plate.step');
  await page.locator('.row[data-tag="B"]').getByRole('button').first().click();
  await page.getByRole('button', { name: 'correct B' }).click();
  await page
    .getByRole('group', { name: /^Correct / })
    .getByRole('button', { name: 'depth' })
    .click();
  await page.getByLabel('new depth').fill('nonsense');
  await page.getByLabel('new depth').press('Enter');
  await expect(page.getByRole('alert')).toContainText('nonsense');
  await page.getByLabel('new depth').fill('12.5');
  await page.getByLabel('new depth').press('Enter');
  await expect(rowWith(page, '12.5')).toBeVisible();
  await page.getByRole('button', { name: 'hole by position' }).click();
  await page.getByLabel('hole diameter').fill('4');
  await page.getByLabel('hole diameter').press('Enter');
  await page.getByRole('button', { name: 'Put it in' }).click();
  await expect(rowSaying(page, /⌀4 /)).toHaveCount(1);
  await page.getByRole('button', { name: 'corrections 2' }).click();
  await page.getByRole('button', { name: /^Take back: 3 holes/ }).click();
  await expect(rowWith(page, '12.5')).toHaveCount(0);
  await expect(rowSaying(page, /⌀4 /)).toHaveCount(1);
  await page.keyboard.press('Control+z');
  await expect(rowWith(page, '12.5')).toBeVisible();
});

test('a newer file is compared, and the plan goes on with it', async ({ page }) => {
  await open(page, Buffer.from(plateStep({ holes: 6, diameter: 5 })), 'plate-a.step');
  await page.locator('.row[data-tag="B"] .callout').click();
  await page.keyboard.type('M6x1 ↧6');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.keyboard.press('s');
  await page.getByLabel('newer file').setInputFiles({
    name: 'plate-b.step',
    mimeType: 'model/step',
    buffer: Buffer.from(plateStep({ holes: 8, diameter: 5 })),
  });
  const changes = page.getByLabel('What changed');
  await expect(changes).toBeVisible({ timeout: 60_000 });
  await expect(changes).toContainText('New · 2');
  await expect(changes).toContainText('Stayed · 6');
  await page.getByRole('button', { name: 'Go on with this revision' }).click();
  await expect(worksheet(page)).toBeVisible();
  await expect(rowWith(page, 'M6×1')).toContainText('×4');
  await expect(page.getByText('A newer file of this part waits')).toHaveCount(0);
});

test('a newer file can be left, and a wrong one is refused', async ({ page }) => {
  await open(page, Buffer.from(plateStep({ holes: 4, diameter: 5 })), 'plate-c.step');
  await page.keyboard.press('s');
  await page
    .getByLabel('newer file')
    .setInputFiles({ name: 'list.step', mimeType: 'text/plain', buffer: Buffer.from('shopping list') });
  await expect(page.getByRole('alert')).toContainText('not a STEP file');
  await page.getByLabel('newer file').setInputFiles({
    name: 'plate-d.step',
    mimeType: 'model/step',
    buffer: Buffer.from(plateStep({ holes: 4, diameter: 6 })),
  });
  await expect(page.getByLabel('What changed')).toContainText('Resized · 4', { timeout: 60_000 });
  await page.getByRole('button', { name: 'Leave the newer file' }).click();
  await expect(rowWith(page, '5 THRU')).toBeVisible();
  await expect(page.getByText('A newer file of this part waits')).toHaveCount(0);
});

test('a drawing becomes a plate by its typed depths', async ({ page }) => {
  await open(page, part('gasket-plate.dxf'), 'plate.dxf');
  await expect(coverage(page)).toContainText('16 / 16');
  await page.keyboard.press('s');
  await page.getByLabel('layer SEAL depth').fill('2.5');
  await page.getByLabel('layer SEAL depth').press('Enter');
  await page.getByLabel('thickness').fill('1/2in');
  await page.getByLabel('thickness').press('Enter');
  await page.keyboard.press('s');
  await expect(rowSaying(page, /3 wide ↧2.5/)).toBeVisible();
  await expect(rowWith(page, '7 x 27 THRU')).toBeVisible();
});

test('a drawing without outlines is refused in words', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles({
    name: 'empty.dxf',
    mimeType: 'image/vnd.dxf',
    buffer: Buffer.from('0\nSECTION\n2\nENTITIES\n0\nENDSEC\n0\nEOF\n'),
  });
  await expect(page.getByRole('alert')).toContainText('no entities');
});
