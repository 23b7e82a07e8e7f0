import AxeBuilder from '@axe-core/playwright';
import { readFileSync } from 'node:fs';
import { expect, test, type Page } from './test.ts';
import { plateStep } from '../demo/src/plate-step.ts';
import { coverage, dropPart, holdUploads, openPart, rowOf, worksheet } from './open.ts';

const file = (path: string): Buffer => readFileSync(new URL(path, import.meta.url));
const BLOCK = file('../demo/parts/manifold-block.step');
const CARRIER = file('../demo/parts/sensor-carrier.step');
const verdict = (page: Page) => page.getByRole('region', { name: 'Prove-out' }).getByRole('heading');
const openBlock = (page: Page): Promise<void> => openPart(page, BLOCK, 'block.step');

test('the address holds what is in hand: reload, back and a sent link come back to it', async ({ page }) => {
  await openBlock(page);
  await rowOf(page, 'D').getByRole('button').first().click();
  await page.getByRole('tab', { name: 'spot' }).click();
  await expect(page).toHaveURL(/row=D&operation=spot/);
  await page.keyboard.press('c');
  await expect(page).toHaveURL(/\/code\?.*row=D&operation=spot/);
  await page.reload();
  await expect(page.locator('.cm-line.kin-line').first()).toBeVisible();
  await page.goBack();
  await expect(page.getByTestId('detail-D').getByRole('tab', { name: 'spot' })).toHaveAttribute(
    'aria-selected',
    'true',
  );
  // From the operation back to its tabs, arrows go along them.
  await page.getByRole('tab', { name: 'spot' }).focus();
  await page.keyboard.press('ArrowRight');
  await expect(page).toHaveURL(/operation=drill/);
});

test('what was done can be undone after a reload, one step for each thing', async ({ page }) => {
  await openBlock(page);
  await rowOf(page, 'A').locator('.callout').click();
  await page.getByLabel('Callout of A').fill('M5 8 DEEP, DRILL 14');
  // Left by Tab it is taken.
  await page.keyboard.press('Tab');
  await expect(rowOf(page, 'A')).toContainText('M5');
  await page.keyboard.press('s');
  await page.getByLabel('clearance level').fill('30');
  const stored = page.waitForResponse((r) => r.url().endsWith('/plan') && r.ok());
  await page.getByLabel('clearance level').press('Enter');
  await stored;
  await expect(page.getByTestId('save-state')).toHaveText('saved');
  await page.reload();
  await expect(page.getByLabel('clearance level')).toHaveValue('30');
  await page.keyboard.press('Control+z');
  await expect(page.getByLabel('clearance level')).toHaveValue('25');
  await page.keyboard.press('s');
  await expect(rowOf(page, 'A')).toContainText('M5');
  await page.keyboard.press('Control+z');
  await expect(rowOf(page, 'A')).toContainText('may be M5');
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled();
});

test('a tool that is not there is added in usual proportions, and the row is made', async ({ page }) => {
  await openPart(page, Buffer.from(plateStep({ holes: 4, diameter: 7.35 })), 'odd.step');
  await expect(coverage(page)).toContainText('0 / 4');
  await page
    .getByRole('region', { name: 'Not made' })
    .getByRole('button', { name: /^Add the drill/ })
    .click();
  const form = page.getByRole('dialog', { name: 'A tool for this job' });
  await expect(form.getByRole('img', { name: /drill ⌀7.35 in/ })).toBeVisible();
  await form.getByLabel('flute length').fill('-3');
  await form.getByLabel('flute length').press('Enter');
  await expect(form.getByRole('alert')).toContainText('Not less than');
  await form.getByLabel('flute length').fill('80');
  await form.getByLabel('flute length').press('Enter');
  await form.getByRole('button', { name: 'Add it to this job' }).click();
  await expect(coverage(page)).toContainText('4 / 4');
  await expect(page.getByRole('region', { name: 'Not made' })).toHaveCount(0);
  await page.keyboard.press('p');
  await expect(verdict(page)).toContainText('nothing wrong was found');
});

test('what is made elsewhere is left out with a reason of one’s own, and made after all', async ({
  page,
}) => {
  await openPart(page, CARRIER, 'carrier.step');
  const row = page.locator('.row', { hasText: 'R3' });
  await expect(row).toContainText('round with a form cutter');
  await row.getByRole('button').first().click();
  await page.getByRole('button', { name: 'Leave out …' }).click();
  await page.getByRole('button', { name: 'Leave out', exact: true }).click();
  await expect(page.getByText('Say why')).toBeVisible();
  await page.getByLabel('why it is left out').fill('milled on the big machine');
  await page.keyboard.press('Enter');
  await expect(page.locator('.row', { hasText: 'milled on the big machine' }).first()).toBeVisible();
  await page.getByRole('button', { name: 'Make it after all' }).click();
  await expect(row).toContainText('round with a form cutter');
});

test('an assembly asks which solid is made, and looks at it alone', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles({
    name: 'lid.step',
    mimeType: 'model/step',
    buffer: file('fixtures/block-under-its-lid.step'),
  });
  const asked = page.getByRole('dialog', { name: 'Which of the 2 solids is made here?' });
  await expect(asked).toBeVisible({ timeout: 60_000 });
  await expect(asked.getByRole('img', { name: 'solid 1' })).toBeVisible();
  await asked.getByRole('button', { name: /^Make solid 1/ }).click();
  // Under its lid the block's holes are still made from above.
  await expect(coverage(page)).toContainText('2 / 2', { timeout: 30_000 });
  await page.keyboard.press('s');
  await expect(page.getByLabel('solid', { exact: true })).toHaveValue('0');
});

test('search leads to rows, places and actions by keyboard', async ({ page }) => {
  await openBlock(page);
  await page.keyboard.press('Control+k');
  await page.keyboard.type('D');
  await page.keyboard.press('Enter');
  await expect(page.getByTestId('detail-D')).toBeVisible();
  await page.keyboard.press('Control+k');
  await page.keyboard.type('prove');
  await page.keyboard.press('Enter');
  await expect(page).toHaveURL(/\/prove/);
  await expect(verdict(page)).toContainText('every row made or left out: nothing wrong was found');
  await page.keyboard.press('Control+k');
  await page.keyboard.type('dark');
  await page.keyboard.press('Enter');
  await expect(page.locator('html')).toHaveClass(/dark/);
  await page.reload();
  await expect(page.locator('html')).toHaveClass(/dark/);
});

test('a file dropped on the bench is a newer one or a new job, never the browser’s', async ({ page }) => {
  await openBlock(page);
  const data = await page.evaluateHandle(
    (text) => {
      const transfer = new DataTransfer();
      transfer.items.add(new File([text], 'dropped.step'));
      return transfer;
    },
    plateStep({ holes: 2 }),
  );
  await worksheet(page).dispatchEvent('drop', { dataTransfer: data });
  const asked = page.getByRole('dialog', { name: 'dropped.step' });
  await expect(asked.getByRole('button', { name: 'A newer file of this part' })).toBeVisible();
  await asked.getByRole('button', { name: 'A new job' }).click();
  await expect(page.getByRole('heading', { level: 1 })).toContainText('plate 2', { timeout: 60_000 });
});

test('up and zero are picked from lists too', async ({ page }) => {
  await openBlock(page);
  await page.keyboard.press('s');
  await page.getByRole('group', { name: 'Up' }).getByRole('button', { name: 'a face' }).click();
  const places = page.getByLabel('or from a list');
  const front = places.locator('option').filter({ hasText: 'face to -Y' }).first();
  await places.selectOption((await front.getAttribute('value'))!);
  await expect(page.getByLabel('side up')).toHaveValue('-Y');
  await page.getByRole('button', { name: 'pick on the part' }).click();
  await page.getByLabel('or from a list').selectOption({ index: 1 });
  await expect(page.getByTestId('zero-words')).not.toContainText('of stock');
});

test('jobs: several files at once, renamed, copied, binned and brought back', async ({ page }) => {
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles([
    { name: 'rack-one.step', mimeType: 'model/step', buffer: Buffer.from(plateStep({ holes: 7 })) },
    { name: 'rack-bad.step', mimeType: 'model/step', buffer: Buffer.from('shopping list') },
    { name: 'rack-two.step', mimeType: 'model/step', buffer: Buffer.from(plateStep({ holes: 8 })) },
  ]);
  await expect(page.getByRole('alert')).toContainText('not a STEP file');
  await page.getByLabel('Search the jobs').fill('rack-');
  const rows = page.getByRole('row').filter({ hasText: 'rack-' });
  await expect(rows).toHaveCount(2);
  const one = page.getByRole('row').filter({ hasText: 'rack-one.step' });
  await expect(one.getByText('ready')).toBeVisible({ timeout: 30_000 });
  await one.getByRole('button', { name: /^More for/ }).click();
  await page.getByRole('menuitem', { name: 'Rename' }).click();
  await page.getByLabel(/^Name of/).fill('Rack, left');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('link', { name: 'Rack, left' })).toBeVisible();
  await one.getByRole('button', { name: /^More for/ }).click();
  await page.getByRole('menuitem', { name: 'Duplicate' }).click();
  await expect(page.getByRole('link', { name: 'Rack, left, copy' })).toBeVisible();
  await page.getByRole('button', { name: 'job', exact: true }).click();
  await expect(page.getByRole('columnheader', { name: 'job' })).toHaveAttribute('aria-sort', /ending/);
  await page.getByRole('button', { name: 'Delete Rack, left, copy' }).click();
  await expect(rows).toHaveCount(2);
  await page.getByRole('link', { name: 'Bin' }).click();
  await page.getByRole('button', { name: 'Bring Rack, left, copy back' }).click();
  await expect(page.getByRole('button', { name: 'Bring Rack, left, copy back' })).toHaveCount(0);
  await page.getByRole('link', { name: 'Back to the jobs' }).click();
  await expect(page.getByRole('link', { name: 'Rack, left, copy' })).toBeVisible();
});

test('it is usable at twice the size, where the window is small', async ({ page }) => {
  await openBlock(page);
  for (const size of [
    { width: 640, height: 400 },
    { width: 900, height: 700 },
    { width: 1024, height: 700 },
  ]) {
    await page.setViewportSize(size);
    // Rows are put up anew where the room changes: what is scrolled to is looked for again.
    await expect(async () => {
      await rowOf(page, 'A').scrollIntoViewIfNeeded({ timeout: 1000 });
      await expect(rowOf(page, 'A')).toBeInViewport({ timeout: 1000 });
    }).toPass({ timeout: 20_000 });
    const over = await page.evaluate(() => document.documentElement.scrollWidth - window.innerWidth);
    expect(over).toBeLessThanOrEqual(0);
  }
});

for (const colours of ['light', 'dark'] as const) {
  test(`every place reads well for everyone, ${colours}`, async ({ page }) => {
    test.setTimeout(240_000);
    await page.emulateMedia({ colorScheme: colours });
    const look = async (where: string): Promise<void> => {
      const axe = new AxeBuilder({ page }).options({ resultTypes: ['violations'] });
      // By night only the colours differ.
      const { violations } = await (colours === 'dark' ? axe.withRules(['color-contrast']) : axe).analyze();
      const said = violations.map(
        (v) => `${where} ${v.id}: ${v.nodes[0]?.target.join(' ')} ${v.nodes[0]?.failureSummary}`,
      );
      expect(said).toEqual([]);
    };
    await openBlock(page);
    await rowOf(page, 'D').getByRole('button').first().click();
    await expect(page.getByTestId('section')).toBeVisible();
    await look('worksheet');
    // The setup has its own look by day.
    for (const [key, place] of [
      ...(colours === 'dark' ? ([['s', 'Setup']] as const) : []),
      ['p', 'Prove-out'],
      ['c', 'Code'],
      ['f', 'Sheet'],
    ] as const) {
      await page.keyboard.press(key);
      await expect(page.getByRole('region', { name: place })).toBeVisible();
      await look(place);
    }
    await page.goto('/');
    await expect(page.getByRole('row').nth(1)).toBeVisible();
    await look('jobs');
    for (const [place, there] of [
      ['tools?kind=tap&tool=tap-M6x1-plug-cutting-right', 'Store the changes'],
      ['holders', 'step'],
      ['methods?method=bored', 'Copy it to change it'],
      ['materials', 'another row'],
    ] as const) {
      await page.goto(`/shop/${place}`);
      await expect(page.getByRole('button', { name: there }).first()).toBeVisible();
      await look(`shop ${place}`);
    }
  });
}

test('a part that is dropped opens on what can be made', async ({ page }) => {
  await dropPart(page, Buffer.from(plateStep({ holes: 9, diameter: 6 })), 'nine.step');
  await expect(page.locator('[data-testid=setup-tab][aria-pressed=true]')).toContainText('top up');
  await page.keyboard.press('c');
  await expect(page.getByTestId('code')).toContainText('G82');
  await expect(page.getByRole('list', { name: 'Checks' })).toContainText('The floor is flat');
});

test('a part that is dropped is shown before the server has it', async ({ page }) => {
  const send = await holdUploads(page);
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles({
    name: 'seven.step',
    mimeType: 'application/step',
    buffer: Buffer.from(plateStep({ holes: 7, diameter: 6 })),
  });
  const shown = page.getByRole('region', { name: /just read/ });
  await expect(shown.getByRole('img')).toBeVisible();
  await expect(shown).toContainText('mm');
  // All of the picture is there, and something is drawn in its middle and nothing in its corner.
  const drawn = await shown.locator('canvas').evaluate((c: HTMLCanvasElement) => {
    const at = (x: number, y: number) => c.getContext('2d')!.getImageData(x, y, 1, 1).data[3]!;
    return [c.width, at(c.width / 2, c.height / 2), at(1, 1)];
  });
  expect(drawn).toEqual([400, 255, 0]);
  send();
  await expect(page).toHaveURL(/jobs\/.+/, { timeout: 30_000 });
});
