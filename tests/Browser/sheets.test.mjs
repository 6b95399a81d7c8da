// What a client is given: made of a month, printed, opened by a link without signing in, and withdrawn again.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { assertAccessible, assertNoSidewaysScroll, base, close, open, signIn } from './support.mjs';

after(close);

const pages = (pdf) => (pdf.toString('latin1').match(/\/Type\s*\/Page[^s]/g) ?? []).length;

test('a sheet is made, printed on two pages at the most, opened by its link and withdrawn', async () => {
    const page = await signIn();
    await page.goto(`${base}/sheets`);
    await page.getByLabel('Client', { exact: true }).selectOption({ label: 'Saltmarsh Ferries' });
    await page.getByRole('button', { name: 'Go on' }).click();
    await page.getByLabel('First day').fill('2020-01-01');
    await page.getByLabel('Last day').fill(new Date().toISOString().slice(0, 10));
    await page.getByRole('button', { name: 'Make the sheet' }).click();
    await page.getByRole('heading', { name: /What changed on \d+ sites/ }).waitFor();
    await page.getByText('Visitors without a site').waitFor();
    await assertAccessible(page);
    const sheet = page.url();

    await page.goto(`${sheet}/print`);
    await page.getByRole('heading', { name: 'Who had access' }).waitFor();
    await assertAccessible(page);
    const printed = pages(await page.pdf({ preferCSSPageSize: true }));
    assert.ok(printed >= 1 && printed <= 2, `${printed} pages`);
    // As long as a page ever gets: every table as many rows as are shown, each with names as long as there are.
    await page.evaluate(() => {
        const long = 'A-name-without-a-blank-that-is-as-long-as-any-that-is-shown-on-a-sheet-of-this-kind ';
        [9, 7, 8].forEach((rows, index) => {
            const body = document.querySelectorAll('.client-sheet tbody')[index];
            const row = body.querySelector('tr');
            row.querySelectorAll('bdi, code, .breakable').forEach((text) => (text.textContent = long.slice(0, 64)));
            body.replaceChildren(...Array.from({ length: rows }, () => row.cloneNode(true)));
        });
    });
    assert.equal(pages(await page.pdf({ preferCSSPageSize: true })), 2);

    await page.goto(sheet);
    await page.getByRole('button', { name: 'Make a link' }).click();
    const link = await page.locator('#link').textContent();

    const client = await open({ width: 390, height: 800 });
    await client.goto(link);
    await client.getByRole('heading', { name: /What changed on \d+ sites/ }).waitFor();
    assert.ok(!client.url().includes('#'), 'the code does not stay in the address');
    await assertNoSidewaysScroll(client);
    await client.reload();
    await client.getByText('Rowan Aldous').first().waitFor();

    await page.goto(sheet);
    await page.getByText(/opened once/).waitFor();
    await page.getByRole('button', { name: 'Withdraw' }).click();
    await page.getByText('The link opens nothing any more.').waitFor();
    client.troubles.length = 0;
    await client.reload();
    await client.getByRole('heading', { name: 'Nothing to see here any more' }).waitFor();
    assert.deepEqual(page.troubles, []);
});
