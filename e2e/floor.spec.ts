import { readFileSync } from 'node:fs';
import AxeBuilder from '@axe-core/playwright';
import { strFromU8, unzipSync } from 'fflate';
import { plateStep } from '../demo/src/plate-step.ts';
import { openPart } from './open.ts';
import { expect, test, type Page } from './test.ts';

const PLATE = Buffer.from(plateStep({ holes: 12, diameter: 5 }));

const saved = async (page: Page, press: () => Promise<void>): Promise<{ name: string; bytes: Buffer }> => {
  const download = page.waitForEvent('download', { timeout: 60_000 });
  await press();
  const file = await download;
  return { name: file.suggestedFilename(), bytes: readFileSync(await file.path()) };
};
const save = async (page: Page, what: RegExp): Promise<void> => {
  await page.getByRole('button', { name: 'Save' }).click();
  await page.getByRole('menuitem', { name: what }).click();
};

test('a program is cut into two files in the rail, and all of it comes in one ZIP', async ({ page }) => {
  await openPart(page, PLATE, 'floor-plate.step');
  await page.keyboard.press('c');
  await expect(page.getByTestId('code')).toContainText('G8');
  await page.getByRole('button', { name: /^Another file begins: drag it/ }).click();
  await expect(page.getByTestId('rail-cut')).toHaveCount(1);
  const zip = await saved(page, () => save(page, /everything for the floor/));
  expect(zip.name).toMatch(/\.zip$/);
  const files = unzipSync(new Uint8Array(zip.bytes));
  const names = Object.keys(files).sort();
  expect(names.filter((n) => n.endsWith('.nc'))).toEqual([
    expect.stringMatching(/-part-1\.nc$/),
    expect.stringMatching(/-part-2\.nc$/),
  ]);
  expect(names.filter((n) => !n.endsWith('.nc'))).toEqual([
    'floor-sheets.html',
    'floor-sheets.pdf',
    expect.stringMatching(/-stock-after\.stl$/),
    expect.stringMatching(/-workplan\.stpnc$/),
    'tools.csv',
  ]);
  expect(strFromU8(files['tools.csv']!)).toMatch(/^id,kind,number.*DC/);
  expect(strFromU8(files['floor-sheets.html']!)).toContain('SHA-256');
  await page.getByRole('button', { name: /^No other file before T/ }).click();
  await expect(page.getByTestId('rail-cut')).toHaveCount(0);
});

test('one operation is saved as a program of its own', async ({ page }) => {
  await openPart(page, PLATE, 'floor-plate.step');
  await page.keyboard.press('c');
  await expect(page.getByTestId('code')).toContainText('G8');
  await page.getByTestId('rail-card').first().getByRole('button').last().click();
  const one = await saved(page, () => save(page, /^only /));
  expect(one.name).toMatch(/-only-[a-z]+-.*\.nc$/);
  expect(one.bytes.toString().match(/M0?6/g)).toHaveLength(1);
});

test('the floor sheet is drawn, and comes as PDF, HTML and list', async ({ page }) => {
  await openPart(page, PLATE, 'floor-plate.step');
  await page.keyboard.press('f');
  const sheet = page.getByRole('region', { name: 'Sheet' });
  await expect(sheet.getByRole('img', { name: 'X to the right, Y up' })).toBeVisible();
  await expect(sheet.getByRole('table').first()).toContainText('spot drill');
  await sheet.getByLabel('paper').selectOption('letter');
  const pdf = await saved(page, () => sheet.getByRole('button', { name: 'PDF' }).click());
  expect(pdf.bytes.toString('latin1')).toContain('/MediaBox [0 0 612. 792.]');
  const html = await saved(page, () => sheet.getByRole('button', { name: 'HTML' }).click());
  expect(html.bytes.toString()).toContain('@page{size:letter');
  const list = await saved(page, () => sheet.getByRole('button', { name: 'CSV' }).click());
  expect(list.name).toMatch(/^holes-.*\.csv$/);
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
});

test('a machine is copied, changed and stored; the sample program follows', async ({ page }) => {
  await page.goto('/shop/machines?machine=no-cycles');
  const sample = page.getByRole('region', { name: 'Sample program' });
  await expect(sample).toContainText('WRITTEN OUT: THIS CONTROL HAS NO G82');
  await page.getByRole('button', { name: 'Copy', exact: true }).click();
  await expect(page.getByLabel('machine name')).toHaveValue('no cycles, copy');
  await page.getByLabel('machine name').fill('old knee mill');
  await page.getByLabel('machine name').press('Enter');
  await page.getByRole('button', { name: 'G81', exact: true }).click();
  await page.getByLabel('own lines at the start').fill('G187');
  await page.getByLabel('own lines at the start').blur();
  await expect(sample).toContainText('G187 is not known');
  await page.getByLabel('own lines at the start').fill('G64');
  await page.getByLabel('own lines at the start').blur();
  await expect(sample).toContainText('all understood');
  await page.getByRole('button', { name: 'Add it to the list' }).click();
  await expect(page.getByRole('button', { name: 'old knee mill', exact: true })).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await page.getByRole('button', { name: 'Take away' }).click();
  await expect(page.getByRole('button', { name: 'old knee mill' })).toHaveCount(0);
});
