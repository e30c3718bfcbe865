import { readFileSync } from 'node:fs';
import type { Page } from '@playwright/test';

const AXE = readFileSync(require.resolve('axe-core/axe.min.js'), 'utf8');

interface Finding {
  readonly id: string;
  readonly impact: string | null;
  readonly nodes: readonly { readonly html: string }[];
}

/** What axe-core holds to be serious or critical on a page. */
export async function findings(page: Page): Promise<readonly string[]> {
  await page.evaluate(AXE);
  const all = await page.evaluate<readonly Finding[]>(
    `axe.run({ runOnly: ['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa'] }).then((it) => it.violations)`,
  );
  return all
    .filter(({ impact }) => impact === 'serious' || impact === 'critical')
    .map(({ id, nodes }) => `${id} n=${nodes.length}: ${nodes[0]?.html.slice(0, 160)}`);
}
