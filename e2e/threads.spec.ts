import { readFileSync } from 'node:fs';
import { expect, test } from './test.ts';
import { own } from '@yellow-pin/demo/own';
import { plateStep } from '@yellow-pin/demo/plate-step';
import { withSaid } from '@yellow-pin/demo/said-text';
import { dropPart, openPart, rowOf } from './open.ts';

const CAP = readFileSync(new URL('../demo/parts/vent-cap.step', import.meta.url));

test('a boss is given a thread by its callout, and its section shows the cutter', async ({ page }) => {
  await openPart(page, CAP, 'cap.step');
  const boss = rowOf(page, 'K');
  await expect(boss).toContainText('optional');
  await boss.locator('.callout').click();
  const field = page.getByLabel('Callout of K');
  await field.fill('M40x1.5 ↧12');
  await field.press('Enter');
  await expect(boss.getByRole('img', { name: /^thread mill/ })).toBeVisible();
  await boss.getByRole('button').first().click();
  const detail = page.getByTestId('detail-K');
  await expect(detail.getByRole('tab', { name: 'outside thread mill' })).toBeVisible();
  await expect(detail.getByRole('img', { name: /Section of K1, outside thread mill to 1\d/ })).toBeVisible();
  await expect(detail.getByText('cutter at its way out')).toBeAttached();
});

test('a thread of two starts is milled in the control’s radius, and the row says which D to change', async ({
  page,
}) => {
  await openPart(page, CAP, 'cap.step');
  const hole = rowOf(page, 'A');
  await hole.locator('.callout').click();
  await page.getByLabel('Callout of A').fill('M24x2 2 STARTS ↧16');
  await page.getByLabel('Callout of A').press('Enter');
  await expect(hole).toContainText('M24×2 2 STARTS');
  await hole.getByRole('button').first().click();
  const detail = page.getByTestId('detail-A');
  await expect(detail.getByText('"thread-milled hole" makes it')).toBeVisible();
  await detail.getByLabel('cutter radius').selectOption('in the control');
  await expect(detail.getByText(/holds the radius of .*make it smaller/)).toBeVisible();
  await page.keyboard.press('Escape');
  // What is not posted has nothing for the floor to know: its tool needs a number first.
  await page.getByRole('button', { name: /free numbers?$/ }).click();
  await page.keyboard.press('f');
  await expect(page.getByRole('region', { name: 'Sheet' })).toContainText(
    /A, thread mill: .* = 6 mm, radius/,
  );
});

test('what the part’s own file says is taken as the callout with one press', async ({ page }) => {
  const plate = plateStep({ holes: 6, diameter: 6.8 });
  const walls = own(plate).faces.flatMap((f, i) => (f.surface.kind === 'cylinder' && f.reversed ? [i] : []));
  const text = withSaid(plate, [{ faces: walls.slice(0, 1), text: 'M8x1.25 - 6H DEEP 12' }]);
  await dropPart(page, Buffer.from(text), 'said.step');
  const row = page.locator('.row', { hasText: 'the file says M8x1.25 - 6H ↧12' });
  await row.getByRole('button').first().click();
  await page.getByRole('button', { name: 'M8×1.25 - 6H ↧12' }).click();
  const taken = page.getByRole('button', { name: /^A, M8×1\.25 – 6H ↧12, 1 of them/ });
  await expect(taken).toBeVisible();
  await expect(page.getByText('the file says')).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await expect(row).toBeVisible();
});
