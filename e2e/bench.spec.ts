import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './test.ts';
import { coverage, openPart, rowOf, typeCallout } from './open.ts';

const PART = readFileSync(new URL('../demo/parts/manifold-block.step', import.meta.url));

const openBlock = (page: Page): Promise<void> => openPart(page, PART, 'block.step');

test('a typed callout sets the row, the section and the code; undo takes it back', async ({ page }) => {
  await openBlock(page);
  await expect(rowOf(page, 'D')).toContainText('may be M8');
  await typeCallout(page, 'D', 'M8x1.25 - 6H ↧16');
  await expect(rowOf(page, 'D')).toContainText('M8×1.25 – 6H');
  await expect(rowOf(page, 'D').getByRole('img', { name: /tap M8/ })).toBeVisible();
  await rowOf(page, 'D').getByRole('button').first().click();
  const detail = page.getByTestId('detail-D');
  await expect(detail.getByRole('tab', { name: 'tap' })).toHaveAttribute('aria-selected', 'true');
  await expect(detail.getByRole('img', { name: /Section of D1, tap to 21 below/ })).toBeVisible();
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.keyboard.press('Escape');
  await page.keyboard.press('Control+z');
  await expect(rowOf(page, 'D')).toContainText('may be M8');
  await page.keyboard.press('Control+Shift+z');
  await expect(rowOf(page, 'D')).toContainText('M8×1.25');
});

test('what was decided is there again after loading the page', async ({ page }) => {
  await openBlock(page);
  await typeCallout(page, 'D', 'M8x1.25 ↧14');
  await expect(rowOf(page, 'D').getByRole('img', { name: /tap M8/ })).toBeVisible();
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.reload();
  await expect(rowOf(page, 'D')).toContainText('M8×1.25');
});

test('a wrong callout says what is not understood and changes nothing', async ({ page }) => {
  await openBlock(page);
  await typeCallout(page, 'A', 'M5 nonsense');
  await expect(page.getByRole('alert')).toContainText('"nonsense" in the callout is not understood');
  await page.getByLabel('Callout of A').press('Escape');
  await expect(rowOf(page, 'A')).toContainText('4.2');
});

test('a depth is typed as a sum on the drawing, and let go again', async ({ page }) => {
  await openBlock(page);
  await rowOf(page, 'A').getByRole('button').first().click();
  const detail = page.getByTestId('detail-A');
  await detail.getByRole('button', { name: /^depth at full ⌀ 14/ }).click();
  const field = detail.getByTestId('section').getByLabel('depth at full ⌀');
  await field.fill('1/2in - 0.7');
  await field.press('Enter');
  await expect(detail.getByRole('button', { name: 'depth at full ⌀ 12' })).toBeVisible();
  await detail.getByRole('button', { name: 'Let depth at full ⌀ go back' }).click();
  await expect(detail.getByRole('button', { name: 'depth at full ⌀ 14' })).toBeVisible();
});

test('a thread that has no room leaves the row open with the reason', async ({ page }) => {
  await openBlock(page);
  await typeCallout(page, 'D', 'M8x1.25 ↧22');
  await expect(rowOf(page, 'D')).toContainText('needs');
  await expect(coverage(page)).toContainText('22 / 28');
  await expect(
    page.getByRole('region', { name: 'Not made' }).getByRole('button', { name: 'Look at D' }),
  ).toBeVisible();
});

test('a method is chosen for a row, its feed is typed, and both can be let go', async ({ page }) => {
  await openBlock(page);
  await rowOf(page, 'B').getByRole('button').first().click();
  await page.getByLabel('Method of B').selectOption({ label: 'drill, floor milled flat' });
  await expect(page.getByRole('tab', { name: 'floor' })).toBeVisible();
  await page.getByLabel('feed', { exact: true }).fill('300');
  await page.keyboard.press('Enter');
  // The mill lies in the drawer: on a number it is in the program, on none it is in no program.
  const drawer = page.getByRole('region', { name: 'From the drawer' });
  await expect(drawer).toContainText('end mill ⌀5');
  await drawer.getByRole('button', { name: 'Give it a free number' }).click();
  await expect(drawer).toHaveCount(0);
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.getByRole('link', { name: 'Code' }).click();
  await expect(page.getByTestId('code')).toContainText('END MILL D5');
  await page.goBack();
  await page.getByRole('button', { name: 'Let feed go back' }).click();
  await page.getByLabel('Method of B').selectOption({ index: 0 });
  await expect(page.getByRole('tab', { name: 'floor' })).toHaveCount(0);
  await expect(drawer).toContainText('not used: end mill ⌀5');
  await drawer.getByRole('button', { name: 'Take it out' }).click();
  await expect(drawer).toHaveCount(0);
  await page.keyboard.press('Control+z');
  await page.keyboard.press('Control+z');
  await expect(page.getByRole('tab', { name: 'floor' })).toBeVisible();
});

test('the whole way by keyboard', async ({ page }) => {
  await openBlock(page);
  await page.keyboard.press('ArrowDown');
  await expect(page.getByTestId('detail-A')).toBeVisible();
  await page.keyboard.press('ArrowDown');
  await expect(page.getByTestId('detail-B')).toBeVisible();
  await page.keyboard.press('[');
  await expect(page.getByTestId('detail-B').getByRole('tab', { name: 'spot' })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  await page.keyboard.press('Escape');
  await page.keyboard.press('?');
  await expect(page.getByRole('complementary', { name: 'Keys' })).toBeVisible();
  await page.keyboard.press('?');
  await page.keyboard.press('2');
  await expect(page.getByRole('button', { name: /^2 / })).toHaveAttribute('aria-pressed', 'true');
  await page.keyboard.press('c');
  await expect(page.getByTestId('code')).toBeVisible();
  await page.keyboard.press('s');
  await expect(page.getByTestId('zero-words')).toBeVisible();
});

test('a line of the code and its hole answer each other', async ({ page }) => {
  await openBlock(page);
  await page.getByRole('link', { name: 'Code' }).click();
  await page.locator('.cm-line', { hasText: 'G99 G82' }).first().click();
  await expect(page.locator('.cm-line.hand-line')).toContainText('G99 G82');
  await expect(page.locator('[data-testid=rail-card][data-in-hand]')).toHaveCount(1);
  await page
    .getByTestId('rail-card')
    .getByRole('button', { name: /, \d\d:\d\d$/ })
    .nth(1)
    .click();
  await expect(page.locator('.cm-line.kin-line').first()).toBeVisible();
  await page.getByText('line numbers').click();
  await expect(page.getByTestId('code')).toContainText('N10 G21');
});

test('another zero and unit move the numbers in the code', async ({ page }) => {
  await openBlock(page);
  await page.keyboard.press('s');
  await page.getByRole('button', { name: 'zero left front corner, top of stock' }).click();
  await expect(page.getByTestId('zero-words')).toHaveText('left front corner, top of stock');
  await page.getByLabel('units').selectOption('inch');
  await page.getByLabel('allowance on top').fill('nonsense');
  await page.getByLabel('allowance on top').press('Enter');
  await expect(page.getByRole('alert')).toContainText('not a length');
  await page.getByLabel('allowance on top').press('Escape');
  await page.keyboard.press('c');
  await expect(page.getByTestId('code')).toContainText('G20 G17 G90 G94');
  await expect(page.getByTestId('code')).toContainText('LEFT FRONT CORNER');
});

test('a plan saved elsewhere is not overwritten', async ({ page }) => {
  await openBlock(page);
  const { request } = page;
  const id = /jobs\/([^/]+)/.exec(page.url())![1]!;
  const { plan, revision } = (await (await request.get(`/api/jobs/${id}`)).json()) as {
    plan: { units: string };
    revision: number;
  };
  await request.put(`/api/jobs/${id}/plan`, { data: { revision, plan: { ...plan, units: 'inch' } } });
  await typeCallout(page, 'A', 'M5 ↧8');
  const notice = page.getByRole('alert');
  await expect(notice).toContainText('both can be kept');
  await notice.getByRole('button', { name: 'Keep both' }).click();
  await expect(notice).toHaveCount(0);
  await expect(rowOf(page, 'A')).toContainText('M5');
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  const kept = (await (await request.get(`/api/jobs/${id}`)).json()) as {
    plan: { units: string };
    revision: number;
  };
  expect(kept.plan.units).toBe('inch');
  // Where both changed the same row, it is named, and one of them stands.
  const theirs = JSON.parse(JSON.stringify(kept.plan).replaceAll('M5 ↧8', 'M5 ↧7')) as object;
  await request.put(`/api/jobs/${id}/plan`, { data: { revision: kept.revision, plan: theirs } });
  await typeCallout(page, 'A', 'M5 ↧9');
  await expect(notice).toContainText('Both of you changed row A');
  await expect(notice.getByRole('button', { name: 'Keep both' })).toHaveCount(0);
  await notice.getByRole('button', { name: 'Mine' }).click();
  await expect(notice).toHaveCount(0);
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  expect(JSON.stringify(await (await request.get(`/api/jobs/${id}`)).json())).toContain('M5 ↧9');
});

test('what is typed while the server is away is kept, and stored when it is back', async ({ page }) => {
  await openBlock(page);
  await page.route('**/api/jobs/*/plan', (route) => route.abort());
  await typeCallout(page, 'A', 'M5 ↧8');
  await expect(page.getByRole('alert')).toContainText('kept in this browser');
  await expect(page.getByTestId('save-state')).toContainText('no answer');
  // The page is closed and opened again meanwhile.
  page.on('dialog', (d) => void d.accept());
  await page.reload();
  await expect(rowOf(page, 'A')).toContainText('M5');
  const asked = page.waitForRequest('**/api/jobs/*/plan');
  await page.getByRole('button', { name: 'Try now' }).click();
  await asked;
  // It is stored by itself once the server answers: nobody has to press for it.
  await page.unroute('**/api/jobs/*/plan');
  await expect(page.getByTestId('save-state')).toHaveText('saved', { timeout: 30_000 });
});
