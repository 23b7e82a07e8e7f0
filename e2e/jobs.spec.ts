import AxeBuilder from '@axe-core/playwright';
import { expect, test } from './test.ts';
import { plateStep } from '../demo/src/plate-step.ts';
import { coverage, worksheet } from './open.ts';

const row = (page: import('@playwright/test').Page, name: RegExp | string) =>
  page.getByRole('row').filter({ hasText: name });

test('the sample jobs are there, ready to look at', async ({ page }) => {
  await page.goto('/');
  await expect(row(page, 'manifold-block.step').getByText('ready')).toBeVisible({ timeout: 60_000 });
  await expect(row(page, 'adapter-plate.step').getByText('ready')).toBeVisible({ timeout: 60_000 });
  const { violations } = await new AxeBuilder({ page }).analyze();
  expect(violations.map((v) => `${v.id}: ${v.nodes[0]?.target.join(' ')}`)).toEqual([]);
});

test('a dropped part leads to its code', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles({
    name: 'plate of nobody.step',
    mimeType: 'model/step',
    buffer: Buffer.from(plateStep({ holes: 12, diameter: 5 })),
  });
  await expect(worksheet(page)).toBeVisible({ timeout: 60_000 });
  await expect(coverage(page)).toContainText('12 / 12');
  await page.getByRole('link', { name: 'Code' }).click();
  await expect(page.getByTestId('code')).toContainText('G82');
  const download = page.waitForEvent('download');
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('menuitem', { name: /plate-12.*\.nc/ }).click();
  expect((await download).suggestedFilename()).toMatch(/^plate-12.*\.nc$/);
});

test('a part opens once it is read, even where the list does not show it', async ({ page }) => {
  // The list is asked for before the part is sent, and answered after.
  let asked = 0;
  await page.route('**/api/jobs?*', async (route) => {
    const answer = await route.fetch();
    if (asked++ === 0) await new Promise((r) => setTimeout(r, 2500));
    await route.fulfill({ response: answer });
  });
  const part = { name: 'early.step', mimeType: 'model/step', buffer: Buffer.from(plateStep({ holes: 4 })) };
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles(part);
  await expect(worksheet(page)).toBeVisible({ timeout: 30_000 });
  await page.goto('/?search=manifold');
  await page.getByLabel('STEP file').setInputFiles({ ...part, name: 'aside.step' });
  await expect(worksheet(page)).toBeVisible({ timeout: 30_000 });
});

test('wrong files are refused in words, and nothing is stored', async ({ page }) => {
  await page.goto('/');
  await expect(page.getByRole('table')).toBeVisible();
  const before = await page.getByRole('row').count();
  const input = page.getByLabel('STEP file');
  await input.setInputFiles({
    name: 'notes.step',
    mimeType: 'text/plain',
    buffer: Buffer.from('shopping list'),
  });
  await expect(page.getByRole('alert')).toContainText('not a STEP file');
  await input.setInputFiles({
    name: 'huge.step',
    mimeType: 'model/step',
    buffer: Buffer.alloc(6 * 1048576, 65),
  });
  const refused = page.getByRole('alert');
  await expect(refused).toHaveCount(2);
  await expect(refused.nth(1)).toContainText('too large');
  expect(await page.getByRole('row').count()).toBe(before);
});

test('a hostile product name is harmless text', async ({ page }) => {
  await page.goto('/');
  const text = plateStep({ holes: 1 }).replace(
    /'plate 1'/g,
    `'<img src=x onerror=alert(1)>${'n'.repeat(500)}'`,
  );
  page.on('dialog', () => {
    throw new Error('a script ran');
  });
  await page
    .getByLabel('STEP file')
    .setInputFiles({ name: 'hostile.step', mimeType: 'model/step', buffer: Buffer.from(text) });
  await expect(page.getByRole('heading', { level: 1 })).toContainText('<img src=x', { timeout: 60_000 });
});

test('delete can be undone', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles({
    name: 'short-lived.step',
    mimeType: 'model/step',
    buffer: Buffer.from(plateStep({ holes: 3 })),
  });
  await expect(worksheet(page)).toBeVisible({ timeout: 60_000 });
  await page.goto('/');
  await row(page, 'short-lived.step')
    .getByRole('button', { name: /^Delete/ })
    .click();
  await expect(row(page, 'short-lived.step')).toHaveCount(0);
  await page.getByRole('button', { name: 'Undo' }).click();
  await expect(row(page, 'short-lived.step')).toHaveCount(1);
});

test('an address without a job says so', async ({ page }) => {
  await page.goto('/jobs/00000000-0000-4000-8000-000000000000');
  await expect(page.getByRole('alert')).toContainText('no such job');
  await page.goto('/nowhere');
  await expect(page.getByRole('heading')).toContainText('nothing at this address');
});

test('what could not be read is read again at a press, and a lost cookie is no obstacle', async ({
  page,
}) => {
  await page.goto('/');
  const text = plateStep({ holes: 1 }).replace(/CLOSED_SHELL/g, 'CLOSED_SHELF');
  await page
    .getByLabel('STEP file')
    .setInputFiles({ name: 'no-shell.step', mimeType: 'model/step', buffer: Buffer.from(text) });
  const again = row(page, 'no-shell.step').getByRole('button', { name: /^Read .* again$/ });
  await expect(again).toBeVisible({ timeout: 60_000 });
  await page.context().clearCookies();
  const asked = page.waitForResponse((r) => r.url().endsWith('/retry') && r.status() === 200);
  await again.click();
  await asked;
  await expect(again).toBeVisible({ timeout: 60_000 });
});
