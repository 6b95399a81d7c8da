// The plan of a site that somebody changed on the server: its tree, its questions, all three sides of a file.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { assertAccessible, assertNoBrokenWord, assertNoSidewaysScroll, base, close, signIn } from './support.mjs';

after(close);

async function assertGood(page) {
    await assertAccessible(page);
    await assertNoSidewaysScroll(page);
    await assertNoBrokenWord(page);
}

/** The demo world has one plan that waits. */
async function plan(page) {
    await page.goto(`${base}/deployments`);
    await page.getByRole('link', { name: 'winter-timetable 2.4.0' }).first().click();
    await page.getByRole('heading', { name: /What will change/ }).waitFor();
}

const rows = async page => (await page.locator('table.plan tbody tr td:first-child code').allTextContents())
    .map(text => text.trim());

test('questions come first, are looked at from all sides and answered; nothing starts before', async () => {
    const page = await signIn();
    await plan(page);
    assert.deepEqual(await rows(page), ['timetables/', 'summer.html', 'winter.html']);
    assert.equal(await page.getByRole('button', { name: 'Back up, then replace' }).isDisabled(), true);
    await page.getByText('after 2 answers').waitFor();
    const act = await page.getByRole('button', { name: 'Back up, then replace' }).boundingBox();
    assert.ok(act.y + act.height <= 800, `the main action stands at ${act.y}, below what is seen without scrolling`);
    await assertGood(page);

    await page.getByRole('link', { name: 'Look at all three' }).click();
    await page.locator('td.is-added').getByText('the last boat sails at 17:40').waitFor();
    await page.locator('td.is-changed').getByText('version 2.4.0').waitFor();
    await assertGood(page);
    await page.getByRole('button', { name: 'Both', exact: true }).click();
    await page.getByText('after 1 answer').waitFor();

    const summer = page.locator('tr', { hasText: 'summer.html' });
    await summer.getByRole('button', { name: 'Leave it away' }).click();
    await page.getByRole('button', { name: 'Back up, then replace' }).and(page.locator(':enabled')).waitFor();
    assert.equal(
        await summer.getByRole('button', { name: 'Leave it away' }).getAttribute('aria-pressed'),
        'true',
    );
    await page.getByRole('radio', { name: 'All', exact: true }).check();
    await page.getByRole('row', { name: /winter\.live-\d{4}-\d\d-\d\d\.html.*under a name of its own/ }).waitFor();
    await page.close();
});

test('the tree folds and opens on request, and is filtered by change and by name', async () => {
    const page = await signIn();
    await plan(page);
    await page.getByRole('radio', { name: 'All', exact: true }).check();
    await page.getByRole('row', { name: /robots\.txt/ }).waitFor();
    const all = await rows(page);
    await page.getByRole('button', { name: 'What is in img' }).click();
    await page.locator('tr[data-in="img"]').first().waitFor({ state: 'detached' });
    const folded = await rows(page);
    assert.ok(folded.length < all.length && folded.includes('img/') && folded.includes('assets/'));
    await page.getByRole('button', { name: 'What is in img' }).click();
    await page.locator('tr[data-in="img"]').first().waitFor();
    assert.deepEqual(await rows(page), all);

    await page.getByLabel('Part of a name').fill('MAP');
    await page.getByRole('row', { name: /robots\.txt/ }).waitFor({ state: 'detached' });
    assert.deepEqual(await rows(page), ['img/map.svg']);
    await page.getByLabel('Part of a name').fill('nowhere');
    await page.getByText('No file fits that.').waitFor();
    await page.close();
});

test('the ways to replace stand beside each other, and what is chosen changes the room they need', async () => {
    const page = await signIn();
    await plan(page);
    await page.getByText('is proposed:').waitFor();
    for (const [way, step] of [[/^Swap the directory/, 'tree laid'], [/^Unpack at the host/, 'unpacked']]) {
        await page.getByRole('radio', { name: way }).check();
        await page.locator('svg.room text', { hasText: step }).waitFor();
        assert.equal(await page.getByRole('radio', { name: way }).isChecked(), true);
    }
    await assertGood(page);
    await page.reload();
    assert.equal(await page.getByRole('radio', { name: /^Unpack at the host/ }).isChecked(), true);
    await page.getByRole('radio', { name: /^File by file/ }).check();
    await page.locator('svg.room text', { hasText: 'sent beside' }).waitFor();
    await page.close();
});
