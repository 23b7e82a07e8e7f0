import { expect, type Page } from './test.ts';

/** Jobs whose parts are read already, by what they were read from: reading a file once is enough for all tests. */
const known = new Map<string, string>();

export const worksheet = (page: Page) => page.getByRole('region', { name: 'Worksheet' });
export const rowOf = (page: Page, tag: string) => page.locator(`.row[data-tag="${tag}"]`);
export const coverage = (page: Page) => page.getByTestId('coverage');

/** Keeps files from being sent, as a slow line would; what it gives lets them go. */
export async function holdUploads(page: Page): Promise<() => void> {
  let send = (): void => undefined;
  const held = new Promise<void>((resolve) => (send = resolve));
  await page.route('**/api/jobs', async (route) => {
    if (route.request().method() === 'POST') await held;
    await route.continue();
  });
  return send;
}

/** Drops a part on the list of jobs, and waits until its worksheet stands there. */
export async function dropPart(page: Page, buffer: Buffer, name: string): Promise<void> {
  await page.goto('/');
  await page.getByLabel('STEP file').setInputFiles({ name, mimeType: 'application/octet-stream', buffer });
  await shown(page);
}

/** A job of its own for each test, a copy of one that nobody changes: whatever tests ran before, all begin alike. */
export async function openPart(page: Page, buffer: Buffer, name: string): Promise<void> {
  const key = `${name}/${buffer.length}`;
  let first = known.get(key);
  if (first === undefined) {
    await dropPart(page, buffer, name);
    first = /jobs\/([^/?]+)/.exec(page.url())![1]!;
    known.set(key, first);
  }
  await page.request.get('/api/session');
  const copied = await page.request.post(`/api/jobs/${first}/copy`);
  expect(copied.status()).toBe(201);
  const { id } = (await copied.json()) as { id: string };
  await page.goto(`/jobs/${id}`);
  await shown(page);
}

/** Types what the print says of a row. */
export async function typeCallout(page: Page, tag: string, text: string): Promise<void> {
  await rowOf(page, tag).locator('.callout').click();
  await page.getByLabel(`Callout of ${tag}`).fill(text);
  await page.getByLabel(`Callout of ${tag}`).press('Enter');
}

async function shown(page: Page): Promise<void> {
  await expect(worksheet(page)).toBeVisible({ timeout: 60_000 });
  await expect(page.locator('.row').first()).toBeVisible({ timeout: 30_000 });
}

/** Types a line of its own below the first that makes a hole: another hole at that place. */
export async function typeHole(page: Page, place: string): Promise<void> {
  await page
    .getByTestId('code')
    .locator('.cm-line', { hasText: /G8[123] .* F\d/ })
    .first()
    .click();
  await page.keyboard.press('End');
  await page.keyboard.press('Enter');
  await page.keyboard.type(place);
}
