import { expect, type Locator, type Page } from '@playwright/test';

// Hands on a keyboard, and on nothing else.

/** More stops than any page has. */
const MOST_STOPS = 400;

const isFocused = (locator: Locator): Promise<boolean> =>
  locator.evaluate((element) => element === document.activeElement);

/** Goes there by Tab alone. */
export async function reach(page: Page, locator: Locator): Promise<void> {
  await expect(locator).toBeVisible();
  for (let stop = 0; stop < MOST_STOPS; stop += 1) {
    if (await isFocused(locator)) return;
    await page.keyboard.press('Tab');
  }
  throw new Error(`not reached by Tab: ${String(locator)}`);
}

const named = (name: string): RegExp =>
  new RegExp(`^${name.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}(, |$)`);

export async function press(page: Page, name: string): Promise<void> {
  await reach(page, page.getByRole('button', { name: named(name) }).first());
  await page.keyboard.press('Enter');
}

export async function follow(page: Page, link: Locator): Promise<void> {
  await reach(page, link);
  await page.keyboard.press('Enter');
}

export async function write(page: Page, field: Locator, text: string): Promise<void> {
  await reach(page, field);
  await page.keyboard.press('ControlOrMeta+a');
  await page.keyboard.type(text);
  await expect(field).toHaveValue(text);
}

export async function tick(page: Page, name: string): Promise<void> {
  await reach(page, page.getByRole('checkbox', { name, exact: true }));
  await page.keyboard.press('Space');
}

/** One of a few: Tab goes to the group, arrows to the one that is meant. */
export async function choose(page: Page, group: string, name: string): Promise<void> {
  const all = page.getByRole('radiogroup', { name: group });
  const wanted = all.getByRole('radio', { name, exact: true });
  await expect(wanted).toBeVisible();
  for (let stop = 0; stop < MOST_STOPS; stop += 1) {
    if (await all.evaluate((element) => element.contains(document.activeElement))) break;
    await page.keyboard.press('Tab');
  }
  for (let step = 0; step < 20 && !(await wanted.isChecked()); step += 1)
    await page.keyboard.press('ArrowDown');
  await expect(wanted).toBeChecked();
}

/** One of many: its list opens, what is typed narrows it, Enter takes the first. */
export async function pickByKeys(page: Page, label: string, title: string): Promise<void> {
  const field = page.getByRole('combobox', { name: new RegExp(`^${label}(:|$)`) });
  await reach(page, field);
  await page.keyboard.press('ArrowDown');
  await page.keyboard.type(title);
  await expect(page.getByRole('option', { name: title }).first()).toBeVisible();
  const marked = () =>
    field.evaluate((element) => {
      const id = element.getAttribute('aria-activedescendant') ?? '';
      return document.getElementById(id)?.textContent ?? '';
    });
  for (let step = 0; step < MOST_STOPS && !(await marked()).startsWith(title); step += 1)
    await page.keyboard.press('ArrowDown');
  await page.keyboard.press('Enter');
  await expect(page.getByRole('option')).toHaveCount(0);
}
