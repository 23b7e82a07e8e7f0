import { expect, test, type Page } from './test.ts';
import { plateStep } from '../demo/src/plate-step.ts';
import { openPart, typeHole } from './open.ts';

const PLATE = Buffer.from(plateStep({ holes: 6 }));
const prove = (page: Page) => page.getByRole('region', { name: 'Prove-out' });
const moment = (page: Page) => page.getByRole('slider', { name: 'Moment of the program' });

test('a program is played: the metal comes off, line by line, and is compared with the part', async ({
  page,
}) => {
  await openPart(page, PLATE, 'small-plate.step');
  await page.keyboard.press('p');
  await expect(prove(page).getByRole('group', { name: 'Play' })).toBeVisible({ timeout: 30_000 });
  await expect(prove(page).getByText(/too much cut: 0\.0 mm³/)).toBeVisible({ timeout: 60_000 });
  // By line, with the text beside it.
  await prove(page).getByRole('button', { name: 'The next line' }).click();
  await expect(moment(page)).not.toHaveAttribute('aria-valuenow', '0');
  await expect(prove(page).getByText(/^line \d+$/)).toBeVisible();
  // The key plays, and stops where another tool begins.
  await prove(page).getByRole('button', { name: 'stop at the next tool' }).click();
  await prove(page).getByLabel('How fast').selectOption('256');
  await page.getByRole('heading', { level: 2 }).first().click();
  await page.keyboard.press(' ');
  await expect(prove(page).getByRole('button', { name: 'Play' })).toBeVisible({ timeout: 30_000 });
  await expect(page.locator('[data-at-work]')).toHaveCount(1);
  // The rail leads to an operation's beginning.
  const before = await moment(page).getAttribute('aria-valuenow');
  await page.getByTestId('rail-card').last().getByRole('button').last().click();
  await expect(moment(page)).not.toHaveAttribute('aria-valuenow', before!);
  // Cut open, and in a colour of one's own.
  await prove(page).getByLabel('Cut open along').selectOption('x');
  await expect(page.getByRole('slider', { name: 'Where it is cut open' })).toBeVisible();
  await prove(page)
    .getByRole('button', { name: /Another colour for T/ })
    .first()
    .click();
});

test('what the metal shows is told in the code and in the list of jobs as well', async ({ page }) => {
  await openPart(page, PLATE, 'small-plate.step');
  await page.keyboard.press('c');
  // A hole where the part has none.
  await typeHole(page, 'X1. Y1.');
  const found = page.getByLabel('Checks').getByRole('button', { name: /into what is to stay/ });
  await expect(found.first()).toBeVisible({ timeout: 60_000 });
  // The list of jobs knows it: it is not to be sent.
  await page.goto('/');
  await expect(page.getByText('wrong: not to be sent').first()).toBeVisible();
});

test('what is left counts from the depth that is asked for, in the unit of the job', async ({ page }) => {
  await openPart(page, PLATE, 'small-plate.step');
  await page.keyboard.press('p');
  const field = prove(page).getByLabel('Differences from how deep on are told');
  await expect(field).toBeVisible({ timeout: 60_000 });
  await field.fill('0.001');
  await field.press('Enter');
  await expect(prove(page).getByText('Not less than 0.005.')).toBeVisible();
  await field.fill('0.5');
  await field.press('Enter');
  await expect(prove(page).getByText(/left: /)).toBeVisible({ timeout: 60_000 });
});
