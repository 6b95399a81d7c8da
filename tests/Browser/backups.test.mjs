// Backups as a maintainer keeps them: a rule that is tried first, a pin, a rehearsal, one file brought back.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { base, close, reloadUntil, signIn } from './support.mjs';

after(close);

test('a rule is tried and saved; a backup is pinned, rehearsed, and a file of it brought back', async () => {
    const page = await signIn();
    await page.goto(`${base}/backups/sites`);
    await page.getByRole('link', { name: 'saltmarshferries.example', exact: true }).click();
    await page.getByRole('heading', { name: /What is kept/ }).waitFor();
    await page.getByRole('link', { name: 'Change the rule' }).click();
    for (const field of ['Keep weekly', 'Keep monthly', 'Keep yearly']) {
        await page.getByLabel(field).fill('0');
    }
    await page.getByLabel('Keep daily').fill('1');
    await page.getByLabel('Rehearse every').focus();
    await page.getByText(/1 goes with the next night/).waitFor();
    await page.getByRole('button', { name: 'Save the rule' }).click();
    await page.getByText('The rule is saved.').waitFor();
    await page.getByText('1 daily').waitFor();

    const row = page.locator('tbody tr').filter({ hasText: 'goes with the next night' });
    await row.getByText('More').click();
    await row.getByLabel(/Pin it/).fill('before the winter timetable');
    await row.getByRole('button', { name: 'Pin', exact: true }).click();
    await page.getByText('before the winter timetable').waitFor();
    await page.getByText(/none goes/).waitFor();

    await page.getByRole('button', { name: 'Rehearse the newest' }).click();
    await page.getByText(/is being rehearsed/).waitFor();
    await reloadUntil(page, page.locator('tbody tr').first().getByText(/^rehearsed/));

    await page.locator('tbody td a').first().click();
    await page.getByRole('heading', { name: /Backup of/ }).waitFor();
    await page.getByLabel('index.html', { exact: true }).check();
    await page.getByRole('button', { name: 'Restore', exact: true }).click();
    await page.getByText(/Restore index.html of the backup of/).first().waitFor();
    await page.getByRole('heading', { name: /What will change/ }).waitFor();
    assert.deepEqual(page.troubles, []);
});

test('two moments are dragged on the drawing, or moved by keys, and compared', async () => {
    const page = await signIn();
    await page.goto(`${base}/sites/1/over-time?days=91`);
    const a = page.getByRole('slider', { name: 'Moment A' });
    const b = page.getByRole('slider', { name: 'Moment B' });
    const before = +(await a.getAttribute('aria-valuenow'));
    const from = +(await a.getAttribute('aria-valuemin'));
    const until = +(await a.getAttribute('aria-valuemax'));
    const grip = await a.locator('circle').boundingBox();
    const drawing = await page.locator('.over-time-scroll svg').boundingBox();
    await page.mouse.move(grip.x + grip.width / 2, grip.y + grip.height / 2);
    await page.mouse.down();
    await page.mouse.move(drawing.x + 300, grip.y, { steps: 5 });
    await page.mouse.up();
    const dragged = +(await a.getAttribute('aria-valuenow'));
    assert.ok(dragged < before && dragged > from, `${dragged} lies between ${from} and ${before}`);
    // A finger moves the moment, not the page.
    const finger = await page.context().newCDPSession(page);
    await finger.send('Emulation.setTouchEmulationEnabled', { enabled: true });
    const spot = await b.locator('circle').boundingBox();
    const at = (left) => [{ x: spot.x + spot.width / 2 - left, y: spot.y + spot.height / 2 }];
    await finger.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: at(0) });
    for (const left of [20, 60, 100, 140, 180]) {
        await finger.send('Input.dispatchTouchEvent', { type: 'touchMove', touchPoints: at(left) });
    }
    await finger.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] });
    const moved = (until - +(await b.getAttribute('aria-valuenow'))) / (until - from);
    assert.ok(moved > 0.15, `moved by ${moved} of the drawing, which is 180 of its 1026`);
    await b.focus();
    await page.keyboard.press('Home');
    assert.equal(+(await b.getAttribute('aria-valuenow')), from);
    await page.keyboard.press('End');
    await page.keyboard.press('ArrowLeft');
    const words = await b.getAttribute('aria-valuetext');
    await page.locator('.moments-form').getByText(words).waitFor();
    await page.getByRole('button', { name: 'Compare A and B' }).click();
    await page.getByRole('heading', { name: /From A to B/ }).waitFor();
    assert.equal(+new URL(page.url()).searchParams.get('a_at'), dragged);
    await page.getByText(/known from the last backup before each/).waitFor();
    assert.deepEqual(page.troubles, []);
});
