// What the scripts of the pages compute, without a page: each module of public/js/logic, by Node's own test runner.
import assert from 'node:assert/strict';
import { execFileSync } from 'node:child_process';
import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { after, test } from 'node:test';
import { fileURLToPath, pathToFileURL } from 'node:url';

const scratch = mkdtempSync(join(tmpdir(), 'scripts-'));
after(() => rmSync(scratch, { recursive: true }));

// By another name, since Node takes only that for a module.
const load = (name) => {
    const copy = join(scratch, `${name}.mjs`);
    copyFileSync(fileURLToPath(new URL(`../../public/js/logic/${name}.js`, import.meta.url)), copy);
    return import(pathToFileURL(copy).href);
};

test('a moment has one place, and a place one moment', async () => {
    const { clamped, momentOf, movedBy, placeOf } = await load('moments');
    const scale = { from: 1000, until: 2000, left: 40, width: 1080 };
    assert.deepEqual([1000, 1500, 2000].map(moment => placeOf(moment, scale)), [40, 540, 1040]);
    assert.deepEqual([40, 540, 1040].map(place => momentOf(place, scale)), [1000, 1500, 2000]);
    assert.deepEqual([-5, 1234.6, 9999].map(moment => clamped(moment, scale)), [1000, 1235, 2000]);
    assert.equal(movedBy('ArrowRight', 1500, scale), 1510);
    assert.equal(movedBy('PageDown', 1500, scale), 1400);
    assert.equal(clamped(movedBy('End', 1500, scale), scale), 2000);
    assert.equal(movedBy('a', 1500, scale), null);
});

test('a path is within a directory by its segments', async () => {
    const { isWithin } = await load('paths');
    assert.deepEqual(
        ['img', 'img/a.png', 'img/b/c.png', 'images/a.png', '', undefined].map(path => isWithin(path, 'img')),
        [true, true, true, false, false, false],
    );
});

test('permissions are digits and bits, and what stands before them stays', async () => {
    const { bits, isMode, letsEveryoneWrite, withBits } = await load('modes');
    assert.deepEqual(['644', '0644', '2755', '64', '888', '', '06444'].map(isMode),
        [true, true, true, false, false, false, false]);
    assert.equal(bits('0644'), 0o644);
    assert.deepEqual([withBits('644', 0o755), withBits('2644', 0o755), withBits('0777', 0)], ['755', '2755', '0000']);
    assert.deepEqual(['666', '664', '0777', '7', '2772'].map(letsEveryoneWrite), [true, false, true, false, true]);
});

test('sizes are decimal', async () => {
    const { words } = await load('bytes');
    assert.deepEqual([0, 999, 1000, 29_300, 1_250_000, 4e9, 5e12].map(words),
        ['0 B', '999 B', '1.0 KB', '29.3 KB', '1.3 MB', '4.0 GB', '5000.0 GB']);
});

test('a folder becomes an archive that tar reads, with names of any length and script', async () => {
    const { asTar } = await load('tar');
    const names = ['site/index.html', `site/${'long/'.repeat(40)}é ü 漢.txt`, 'site/empty.txt'];
    const files = names.map((name, at) => Object.assign(new Blob([at === 2 ? '' : `holds ${at}`]), {
        webkitRelativePath: name,
        name: 'x',
        lastModified: 1_700_000_000_000,
    }));
    const archive = join(scratch, 'folder.tar');
    writeFileSync(archive, Buffer.from(await asTar(files).arrayBuffer()));
    const env = { ...process.env, LC_ALL: 'C.UTF-8' };
    const run = (...given) => execFileSync('tar', given, { encoding: 'utf8', env });
    assert.deepEqual(run('--quoting-style=literal', '-tf', archive).trim().split('\n'), names);
    assert.equal(run('-xOf', archive, names[1]), 'holds 1');
    assert.match(run('-tvf', archive, '--utc', '--full-time', names[0]), /2023-11-14 22:13:20/);
});
