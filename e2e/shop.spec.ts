import { readFile } from 'node:fs/promises';
import { expect, test, type Locator, type Page } from './test.ts';
import { plateStep } from '../demo/src/plate-step.ts';
import { openPart, rowOf } from './open.ts';

const PLATE = Buffer.from(plateStep({ holes: 9, diameter: 6 }));
const openPlate = (page: Page): Promise<void> => openPart(page, PLATE, 'shop-plate.step');

test('a tool is looked for, made up, drawn while it is typed, stored and taken away', async ({ page }) => {
  await page.goto('/shop/tools');
  await page.getByLabel('Search tools').fill('m6x1 forming');
  await expect(page.getByRole('group', { name: 'Tools' }).getByRole('button')).toHaveCount(1);
  await page.getByLabel('Search tools').fill('');
  await page.getByLabel('kind of the new tool').selectOption('back-chamfer-cutter');
  await page.getByRole('button', { name: 'New', exact: true }).click();
  const panel = page.getByRole('region', { name: 'Tool in hand' });
  await expect(panel.getByRole('img', { name: /back chamfer cutter/ })).toBeVisible();
  // A neck wider than its cutter is refused with the reason.
  const neck = await panel.getByLabel('neck ⌀').inputValue();
  await panel.getByLabel('neck ⌀').fill('40');
  await page.keyboard.press('Enter');
  await expect(panel).toContainText('The neck is as wide as the cutter or wider');
  await expect(panel.getByRole('button', { name: 'Add it to the list' })).toBeDisabled();
  await panel.getByLabel('neck ⌀').fill(neck);
  await page.keyboard.press('Enter');
  await panel.getByLabel('tool name').fill('made for a test');
  await page.keyboard.press('Enter');
  await panel.getByRole('button', { name: 'Add it to the list' }).click();
  await expect(page.getByText('made for a test is stored')).toBeVisible();
  await page.reload();
  await expect(panel.getByLabel('tool name')).toHaveValue('made for a test');
  await panel.getByRole('button', { name: 'Take away' }).click();
  await expect(page.getByText('made for a test is taken off the list')).toBeVisible();
  await expect(page.getByRole('button', { name: /made for a test/ })).toHaveCount(0);
});

test('a number that holds another tool is refused, and the free one named', async ({ page }) => {
  await page.goto('/shop/tools?tool=drill-7.3');
  const panel = page.getByRole('region', { name: 'Tool in hand' });
  await panel.getByRole('button', { name: /^Put it on T/ }).click();
  await panel.getByLabel('tool number').fill('1');
  await page.keyboard.press('Enter');
  await expect(panel).toContainText('T1 holds spot drill');
  await expect(panel).toContainText('is free');
  await expect(panel.getByRole('button', { name: 'Store the changes' })).toBeDisabled();
  await panel.getByRole('button', { name: 'Give them up' }).click();
  await expect(panel).toContainText('in the drawer');
});

test('tools go out as CSV and come in again, a bad row named and the rest kept', async ({ page }) => {
  await page.goto('/shop/tools');
  const [file] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('button', { name: 'CSV' }).click(),
  ]);
  const text = await readFile(await file.path(), 'utf8');
  expect(text.split('\r\n')[0]).toContain('DC');
  expect(text).toContain('drill-7.3');
  const rows = [
    'kind,DC,SIG,LCF,OAL,LPR,holder,description',
    'drill,7.35,118,60,100,65,chuck13,drill from a file',
    'drill,7.45,118,600,100,65,chuck13,too long',
  ];
  await page
    .getByLabel('file of tools')
    .setInputFiles({ name: 'mine.csv', mimeType: 'text/csv', buffer: Buffer.from(rows.join('\n')) });
  await expect(page.getByRole('alert').first()).toContainText('mine.csv: 1 taken.');
  await expect(page.getByRole('alert').first()).toContainText('line 3: The flutes are longer');
  await page.getByLabel('Search tools').fill('from a file');
  await page.getByRole('button', { name: /drill from a file/ }).click();
  await page.getByRole('button', { name: 'Take away' }).click();
  await expect(page.getByText('No tool is like that')).toBeVisible();
});

test('operations of a row are changed, and the row becomes a method that says which sizes it matches', async ({
  page,
}) => {
  await openPlate(page);
  await rowOf(page, 'A').getByRole('button').first().click();
  await expect(page.getByRole('tab', { name: 'spot' })).toBeVisible();
  await page.getByRole('button', { name: 'Operations …' }).click();
  await page.getByRole('button', { name: 'Take operation 1 out' }).click();
  await expect(page.getByRole('tab', { name: 'spot' })).toHaveCount(0);
  await page.getByRole('button', { name: 'Back to the method' }).click();
  await expect(page.getByRole('tab', { name: 'spot' })).toBeVisible();
  await page.getByRole('button', { name: 'Save as a method …' }).click();
  await page.getByLabel('method name').fill('bores of the test');
  await page.keyboard.press('Enter');
  await page.getByLabel('when it is taken').selectOption('chosen');
  await expect(page.getByText(/In this job it matches A/)).toBeVisible();
  await page.getByRole('button', { name: 'Save it' }).click();
  await expect(page.getByText('"bores of the test" is one of the shop')).toBeVisible();
  await page.getByRole('button', { name: 'Close' }).first().click();
  await page.goto('/shop/methods');
  await page.getByRole('button', { name: /bores of the test/ }).click();
  await expect(page.getByLabel('operation 1', { exact: true })).toHaveValue('spot');
  await page.getByRole('button', { name: 'Take away' }).click();
  await expect(page.getByRole('button', { name: /^bores of the test/ })).toHaveCount(0);
});

test('one method is given to all chosen rows in one step, and taken back in one', async ({ page }) => {
  await openPlate(page);
  await page.getByRole('button', { name: 'choose all shown' }).click();
  const all = page.getByLabel('Method of all chosen rows');
  await all.selectOption({ label: await labelOf(all, /^drill, rim broken/) });
  await page.getByRole('button', { name: /let go of/ }).click();
  for (const tag of ['A', 'B']) {
    await rowOf(page, tag).getByRole('button').first().click();
    await expect(page.getByLabel(`Method of ${tag}`)).toHaveValue('drilled-rim-broken');
    await expect(page.getByRole('tab', { name: 'rim break' })).toBeVisible();
  }
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await rowOf(page, 'A').getByRole('button').first().click();
  await expect(page.getByLabel('Method of A')).toHaveValue('');
});

/** The words of the first option that begin so. */
const labelOf = async (list: Locator, words: RegExp): Promise<string> =>
  (await list.locator('option').allInnerTexts()).find((t) => words.test(t)) ?? '';

test('another tool that does is taken for an operation, and the order of the holes is chosen', async ({
  page,
}) => {
  await openPlate(page);
  await rowOf(page, 'A').getByRole('button').first().click();
  await page.getByRole('tab', { name: 'spot' }).click();
  const tool = page.getByLabel('Tool of spot');
  await tool.selectOption({ index: 2 });
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await tool.selectOption({ index: 0 });
  await page.getByRole('button', { name: '5 holes' }).click();
  await page.getByLabel('Order of the holes of A').selectOption('as picked');
  const places = page.getByRole('region', { name: 'Places of A' });
  const first = (await places.getByRole('row').nth(2).innerText()).trim();
  await places.getByRole('button', { name: 'one earlier' }).nth(1).click();
  await expect.poll(async () => (await places.getByRole('row').nth(2).innerText()).trim()).not.toBe(first);
});
