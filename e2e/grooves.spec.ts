import { readFileSync } from 'node:fs';
import { expect, test } from './test.ts';
import { openPart, rowOf } from './open.ts';

const part = (name: string): Buffer => readFileSync(new URL(`../demo/parts/${name}`, import.meta.url));

test('a T-slot is drawn across and from above, and a number typed in the plan is the operation’s', async ({
  page,
}) => {
  await openPart(page, part('mooring-rail.step'), 'rail.step');
  await rowOf(page, 'B').getByRole('button').first().click();
  const detail = page.getByTestId('detail-B');
  await expect(detail.getByRole('tab', { name: 'T-slot head' })).toBeVisible();
  await expect(detail.getByRole('img', { name: /^Section of B1, T-slot head to 17/ })).toBeVisible();
  await expect(detail.getByRole('img', { name: 'Plan of B1, T-slot head' })).toBeVisible();
  await detail.getByLabel('step sideways, in plan').fill('2');
  await detail.getByLabel('step sideways, in plan').press('Enter');
  await expect(detail.getByLabel('step sideways', { exact: true })).toHaveValue('2');
  await detail.getByRole('tab', { name: 'slot', exact: true }).click();
  await expect(detail.getByRole('img', { name: 'Plan of B1, slot' })).toBeVisible();
});

test('how a groove is made is saved as a method of its family', async ({ page }) => {
  await openPart(page, part('hatch-cover.step'), 'cover.step');
  await rowOf(page, 'D').getByRole('button').first().click();
  await page.getByRole('button', { name: 'Operations …' }).click();
  await page.getByRole('button', { name: 'Save as a method …' }).click();
  await expect(page.getByLabel('what it is for')).toHaveValue('face-groove');
  await expect(page.getByLabel('width, mm from')).toHaveValue('3');
  await expect(page.getByText(/In this job it matches D/)).toBeVisible();
});
