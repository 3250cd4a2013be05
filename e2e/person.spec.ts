import { expect, test } from '@playwright/test';
import { go, house } from './house';
import { sitsIn } from './sits';

const home = house({ at: '10:22' });
const { begun, formOf, goTo } = sitsIn(home);

test('what a coordinator keeps of somebody is there on their day: photo, language, and the calculator they were granted', async ({
	browser
}) => {
	const coordinator = await home.staff(browser);
	const { id } = await home.session('Lights and Shapes · Watch B');
	const person = await home.read((db) =>
		db('sitting')
			.join('candidate', 'candidate.id', 'sitting.candidate_id')
			.where({ session_id: id })
			.orderBy('number')
			.first('candidate.id', 'given', 'family', 'number')
	);
	await go(coordinator, `/prepare/people/${person.id}`);
	await coordinator
		.locator('#photo')
		.setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer: Buffer.from('no picture at all') });
	await expect(coordinator.getByRole('alert')).toContainText('A JPEG or PNG of at most 400 kB can.');
	// Any picture will do: a piece of the page.
	const buffer = await coordinator.screenshot({ clip: { x: 0, y: 0, width: 90, height: 110 } });
	await coordinator.locator('#photo').setInputFiles({ name: 'photo.png', mimeType: 'image/png', buffer });
	await expect(coordinator.getByRole('status')).toContainText('The photo is kept.');
	const kept = coordinator.getByRole('img', { name: `${person.given} ${person.family}` });
	await expect.poll(() => kept.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(1);

	await coordinator.getByLabel('Language').fill('Portuguese please');
	await coordinator.getByRole('button', { name: 'Save' }).click();
	await expect(coordinator.getByRole('alert')).toContainText('Give a language tag: en, or pt-PT.');
	await coordinator.getByLabel('Language').fill('pt-PT');
	await coordinator.getByRole('button', { name: 'Save' }).click();
	await expect(coordinator.getByRole('alert')).toHaveCount(0);

	await coordinator.getByLabel('What', { exact: true }).selectOption({ label: 'Calculator' });
	await coordinator.getByLabel('Which calculator').selectOption('scientific');
	await coordinator.getByLabel('Why').fill('agreed with the access office');
	await coordinator.getByTestId('give-standing').click();
	await expect(coordinator.getByText('a scientific calculator').first()).toBeVisible();

	const page = await home.browser(browser);
	const me = await begun(page, 0, { lockdown: { level: 'open' }, tools: { calculator: 'none' } }, async () => {
		const photo = page.getByRole('img', { name: `The photo that is kept of ${person.given} ${person.family}` });
		await expect.poll(() => photo.evaluate((img: HTMLImageElement) => img.naturalWidth)).toBeGreaterThan(1);
	});
	await expect(page.getByRole('button', { name: 'In Portuguese' })).toHaveAttribute('aria-pressed', 'true');
	const form = await formOf(me.id);
	await goTo(
		page,
		form.findIndex((question) => question.picture === 'end-on')
	);
	await expect(page.locator('[data-question] legend')).toContainText('Vê estas luzes pela proa.');
	await page.getByRole('button', { name: 'Calculator' }).click();
	await expect(page.getByTestId('calculated')).toBeVisible();
	await expect(page.getByRole('button', { name: 'sin', exact: true })).toBeVisible();

	// Taken away again, it is not at the next one's door.
	await coordinator.getByRole('button', { name: 'Remove the photo' }).click();
	await expect(coordinator.getByRole('status')).toContainText('is removed');
	await expect(kept).toHaveCount(0);
});
