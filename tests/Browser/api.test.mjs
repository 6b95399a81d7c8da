// The interface for build pipelines, against the running application, held against its description.
import { after, test } from 'node:test';
import assert from 'node:assert/strict';
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { tmpdir } from 'node:os';
import { assertAccessible, base, close, root, signIn } from './support.mjs';

after(close);

const description = JSON.parse(readFileSync(join(root, 'docs/api.json')));
const resolved = (part) => {
    const path = part.$ref?.slice(2).split('/');
    return path === undefined ? part : resolved(path.reduce((at, name) => at[name], description));
};

function kindOf(value) {
    if (value === null) return 'null';
    if (Array.isArray(value)) return 'array';
    return Number.isInteger(value) ? 'integer' : typeof value;
}

/** As much of JSON Schema as the description uses. */
function assertFits(value, given, at) {
    const schema = resolved(given);
    const types = [schema.type ?? []].flat();
    const kind = kindOf(value);
    types.length > 0 && assert.ok(types.includes(kind), `${at} is ${kind}, not ${types}`);
    schema.enum && assert.ok(schema.enum.includes(value), `${at} is ${value}`);
    schema.pattern && assert.match(value, new RegExp(schema.pattern), at);
    if (kind === 'array') {
        value.forEach((one, number) => assertFits(one, schema.items, `${at}[${number}]`));
    } else if (kind === 'object') {
        (schema.required ?? []).forEach(name => assert.ok(name in value, `${at} lacks ${name}`));
        Object.entries(value).forEach(([name, one]) => {
            const known = schema.properties?.[name];
            assert.ok(known || schema.additionalProperties !== false, `${at} has ${name}, which is not described`);
            known && assertFits(one, known, `${at}.${name}`);
        });
    }
}

async function post(path, token, file, name) {
    const form = new FormData();
    file && form.set('package', new Blob([readFileSync(file)]), name);
    const answer = await fetch(base + path, {
        method: 'POST',
        body: form,
        headers: token ? { Authorization: `Bearer ${token}` } : {},
    });
    const said = description.paths[path].post.responses[answer.status];
    assert.ok(said, `${path} answers ${answer.status}, which is not described`);
    const body = await answer.json();
    assertFits(body, resolved(said).content['application/json'].schema, path);
    return [answer.status, body];
}

async function makeToken(page, name, scope, only = '') {
    await page.goto(`${base}/me/tokens`);
    await page.getByLabel('What uses it').fill(name);
    await page.getByLabel('It may').selectOption({ label: scope });
    await page.getByLabel('Only packages named').fill(only);
    await page.getByRole('button', { name: 'Make it' }).click();
    await page.getByText('shown now and never again').waitFor();
    return [await page.locator('#token').textContent(), await page.locator('#line').textContent()];
}

test('a pipeline delivers with a token, as its page says, until it is revoked', async () => {
    const directory = mkdtempSync(join(tmpdir(), 'pipeline-'));
    mkdirSync(join(directory, 'dist'));
    writeFileSync(join(directory, 'dist/index.html'), `<title>Built</title><img src="Gone.png"><p>${directory}`);
    execFileSync('tar', ['-C', directory, '-czf', join(directory, 'lamp-room-7.tar.gz'), 'dist']);
    const file = join(directory, 'lamp-room-7.tar.gz');
    const page = await signIn();
    const [token, line] = await makeToken(page, 'The build of the lamp room', 'deliver packages', 'lamp-room');
    await assertAccessible(page);

    assert.equal((await post('/api/packages', '', file, 'lamp-room-7.tar.gz'))[0], 401);
    assert.equal((await post('/api/packages', `${token}x`, file, 'lamp-room-7.tar.gz'))[0], 401);
    assert.equal((await post('/api/packages', token))[0], 422);
    assert.equal((await post('/api/packages', token, file, 'quay-7.tar.gz'))[0], 403);
    const [asked, inspected] = await post('/api/inspections', token, file, 'lamp-room-7.tar.gz');
    assert.deepEqual([asked, inspected.ok, inspected.root_lifted], [200, true, 'dist']);
    assert.ok(inspected.findings.some(finding => finding.code === 'reference_missing'));

    // The line of the page, as a shell runs it.
    const said = execFileSync('bash', ['-c', line.replace('-$VERSION.zip', '-7.tar.gz')], {
        cwd: directory,
        env: { ...process.env, CELLARIUM_TOKEN: token, VERSION: '7' },
    });
    const delivered = JSON.parse(said);
    assert.deepEqual([delivered.name, delivered.version, delivered.findings.warn], ['lamp-room', '7', 1]);
    const [again, same] = await post('/api/packages', token, file, 'lamp-room-7.tar.gz');
    assert.deepEqual([again, same.id], [200, delivered.id]);
    await page.goto(delivered.url);
    await page.getByRole('heading', { name: 'lamp-room 7' }).waitFor();

    await page.goto(`${base}/me/tokens`);
    assert.ok(!(await page.content()).includes(token));
    await page.getByRole('button', { name: 'Revoke The build of the lamp room' }).first().click();
    await page.getByText('it lets nobody in any more').waitFor();
    assert.equal((await post('/api/packages', token, file, 'lamp-room-7.tar.gz'))[0], 401);
});

test('a token to have packages inspected delivers none, and none opens a page', async () => {
    const file = join(root, 'demo/packages/pilgrim-stones-1.0.zip');
    const page = await signIn();
    const [token] = await makeToken(page, 'Checks before a merge', 'have packages inspected');
    assert.equal((await post('/api/inspections', token, file, 'pilgrim-stones-1.0.zip'))[0], 200);
    assert.equal((await post('/api/packages', token, file, 'pilgrim-stones-1.0.zip'))[0], 403);
    const accounts = await fetch(`${base}/accounts`, {
        headers: { Authorization: `Bearer ${token}` },
        redirect: 'manual',
    });
    assert.equal(accounts.status, 302);
});
