import { AxeBuilder } from '@axe-core/playwright';
import { expect, type Page } from '@playwright/test';

export const OWN = 'http://127.0.0.1:4801';
export const DEMO = 'http://127.0.0.1:4802';

/** Fails on anything that axe calls serious or critical. */
export async function expectAccessible(page: Page): Promise<void> {
	const { violations } = await new AxeBuilder({ page })
		.withTags(['wcag2a', 'wcag2aa', 'wcag21aa', 'wcag22aa'])
		.analyze();
	const grave = violations
		.filter((violation) => violation.impact === 'serious' || violation.impact === 'critical')
		.map(
			(violation) =>
				`${violation.id}: ${violation.nodes.map((node) => `${node.target.join(' ')} ${node.failureSummary ?? ''}`).join('; ')}`
		);
	expect(grave).toEqual([]);
}

/** Opens a page and waits until it answers to clicks. */
export async function open(page: Page, address: string): Promise<void> {
	await page.goto(address);
	await page.waitForLoadState('networkidle');
}

export async function treeId(tag: string, server = DEMO): Promise<string> {
	const response = await fetch(`${server}/api/v1/trees`);
	const { trees } = (await response.json()) as { trees: { id: string; tag: string }[] };
	const found = trees.find((tree) => tree.tag === tag);
	if (!found) throw new Error(`no tree ${tag}`);
	return found.id;
}

export const told = (page: Page, text: string | RegExp) =>
	page.locator('[data-sonner-toast]').filter({ hasText: text }).first();
