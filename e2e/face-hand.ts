import type { Page } from '@playwright/test';
import { expect } from '@playwright/test';

/*
 * What stories about tables and formulas do with faces.
 */

/** Opens a face, or closes it. */
export const face = async (page: Page, name: string, isOpen = true) => {
  await page.getByRole('button', { name: 'Faces' }).click();
  await page.getByRole('menuitemcheckbox', { name }).click();
  await expect(page.getByRole('region', { name })).toBeVisible({ visible: isOpen });
};
/** The line for the names of a table that is filled in. */
export const names = (page: Page) => page.getByPlaceholder('Key, Bars, Clear = Drive, Warn');
export const planned = (page: Page) => page.getByRole('grid', { name: 'Table to fill in' });
