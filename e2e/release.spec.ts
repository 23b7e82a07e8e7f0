import AxeBuilder from '@axe-core/playwright';
import { plateStep } from '../demo/src/plate-step.ts';
import { openPart, rowOf, typeCallout } from './open.ts';
import { expect, test, type Page } from './test.ts';

const PLATE = Buffer.from(plateStep({ holes: 6, diameter: 5 }));

const idOf = (page: Page): string => /jobs\/([^/?]+)/.exec(page.url())![1]!;
const release = async (page: Page, remark: string): Promise<void> => {
  await page.getByLabel('what is new in it').fill(remark);
  await page.getByRole('button', { name: 'Prove and release' }).click();
  await expect(page.getByRole('row', { name: new RegExp(remark) })).toContainText('as the plan is now', {
    timeout: 60_000,
  });
};

test('a proved job goes to the floor, is read there on a tablet, and a note comes back', async ({ page }) => {
  await openPart(page, PLATE, 'release-plate.step');
  const id = idOf(page);
  await page.keyboard.press('r');
  await expect(page.getByText('Nothing of this job is on the floor yet.')).toBeVisible();
  await release(page, 'first parts');
  await page.getByRole('button', { name: 'Send release 1' }).click();
  await expect(page.getByText('came back as it was sent')).toBeVisible();
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);

  await page.setViewportSize({ width: 820, height: 1180 });
  await page.goto('/floor');
  await page
    .getByRole('link', { name: /release 1/ })
    .first()
    .click();
  await expect(page).toHaveURL(`/floor/${id}`);
  await expect(page.getByRole('img', { name: 'X to the right, Y up' })).toBeVisible();
  await expect(page.getByRole('table').first()).toContainText('spot drill');
  expect((await new AxeBuilder({ page }).analyze()).violations).toEqual([]);
  await page.getByRole('textbox', { name: 'note' }).fill('T6 squeals in A3');
  await page.getByRole('button', { name: 'Send the note' }).click();
  await expect(page.getByText('T6 squeals in A3').last()).toBeVisible();

  await page.setViewportSize({ width: 1280, height: 800 });
  await page.goto(`/jobs/${id}/releases`);
  const notes = page.getByRole('region', { name: 'Notes from the floor' });
  await notes.getByText('T6 squeals in A3').click();
  await expect(notes).toContainText('seen to');
});

test('a changed plan shows a release as out of date, and two are compared', async ({ page }) => {
  await openPart(page, PLATE, 'release-plate.step');
  await page.keyboard.press('r');
  await release(page, 'first parts');
  await page.keyboard.press('w');
  await typeCallout(page, 'A', '⌀5 ↧9');
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.getByRole('link', { name: 'Release' }).click();
  await expect(page.getByRole('row', { name: /first parts/ })).toContainText('out of date');
  await release(page, 'not so deep');
  await expect(page.getByTestId('difference')).toContainText('A callout');
  await expect(page.getByTestId('difference').getByRole('region', { name: /^lines of/ })).toBeVisible();
});

test('two browsers on one job see each other, and neither loses what it changed', async ({
  page,
  browser,
  baseURL,
}) => {
  await openPart(page, PLATE, 'release-plate.step');
  const context = await browser.newContext({ baseURL });
  const other = await context.newPage();
  await other.goto(`/jobs/${idOf(page)}`);
  await expect(rowOf(other, 'A')).toBeVisible({ timeout: 30_000 });
  await expect(page.getByTestId('presence')).toBeVisible({ timeout: 30_000 });
  // One changes a row, the other a setup, from the same plan.
  await typeCallout(other, 'A', '⌀5 ↧8');
  await expect(other.getByTestId('save-state')).toHaveText('saved');
  await page.keyboard.press('s');
  await page.getByLabel('clearance level').fill('33');
  await page.getByLabel('clearance level').press('Enter');
  await page.getByRole('button', { name: 'Keep both' }).click();
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.keyboard.press('w');
  await expect(rowOf(page, 'A')).toContainText('8');
  const stored = JSON.stringify(await (await page.request.get(`/api/jobs/${idOf(page)}`)).json());
  expect(stored).toContain('"clearance":33');
  expect(stored).toContain('⌀5 ↧8');
  await context.close();
});

test('jobs are found by a tool, a thread or a callout, and the whole shop is looked at before it is taken in', async ({
  page,
}) => {
  await openPart(page, PLATE, 'release-plate.step');
  await page.keyboard.press('p');
  await expect(page.getByRole('region', { name: 'Prove-out' })).toContainText('nothing wrong was found', {
    timeout: 30_000,
  });
  await expect
    .poll(async () => JSON.stringify(await (await page.request.get('/api/jobs?search=drill')).json()), {
      timeout: 60_000,
    })
    .toContain('"what":"tool"');
  await page.goto('/?search=drill');
  await expect(page.getByText(/^tool: T\d+ .*drill/).first()).toBeVisible();

  const shop = (await (await page.request.get('/api/library')).json()) as {
    materials: { id: string; name: string }[];
  };
  shop.materials[0]!.name = 'aluminium, the new bar';
  await page.goto('/shop/whole shop');
  await page.getByLabel('file of a whole shop').setInputFiles({
    name: 'shop.json',
    mimeType: 'application/json',
    buffer: Buffer.from(JSON.stringify(shop)),
  });
  const seen = page.getByRole('region', { name: 'What shop.json would change' });
  await expect(seen).toContainText('1 would change');
  await expect(seen.getByRole('row', { name: /the new bar/ })).toContainText('other name');
  await seen.getByRole('button', { name: 'Leave it' }).click();
  await expect(seen).toHaveCount(0);
});
