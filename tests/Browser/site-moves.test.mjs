// A client's account made anew at another host: the sites go there, are filled and read back; visitors are asked when
// the new host answers for the name, and not before.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { base, close, reloadUntil, signIn } from './support.mjs';

after(close);

test('sites go to another host, are filled with one press, and are not called live too early', async () => {
    const page = await signIn();
    await page.goto(`${base}/accounts/2`);
    await page.getByRole('link', { name: /anew at another host/ }).click();
    await page.getByLabel('The account there').selectOption('1');
    await page.getByRole('button', { name: 'Compare' }).click();
    const site = page.locator('tr').filter({ hasText: 'book.saltmarshferries.example' });
    await site.getByText(/backup of/).waitFor();
    await page.getByRole('button', { name: /Make what is marked/ }).click();
    await page.getByText(/There now: 2 sites/).waitFor({ timeout: 60000 });
    const there = page.locator('section').filter({ has: page.getByRole('heading', { name: /There already/ }) });
    const start = page.getByRole('button', { name: 'Start the 2 plans that wait' });
    await reloadUntil(page, start);
    await start.click();
    await page.getByText(/2 plans started/).waitFor();
    const asks = there.getByRole('button', { name: /Ask as visitors do for/ });
    await reloadUntil(page, asks.nth(1));
    assert.equal(await there.getByText('read back, visitors not asked').count(), 2);

    // All hosts of the demo world answer by the account that a name was in first.
    await there.getByRole('button', { name: /Ask as visitors do for book/ }).click();
    await page.getByRole('alert').getByText(/The token in .+ was not found/).waitFor();
    await page.goto(`${base}/?kind=not_shown`);
    await page.getByText('book.saltmarshferries.example').first().waitFor();
    await page.goto(`${base}/sites/2`);
    await page.getByText('visitors were not asked', { exact: true }).waitFor();
    assert.deepEqual(page.troubles, []);
});
