// A header of a tar archive (POSIX.1-1988 ustar) for one file.
const encoder = new TextEncoder();
const field = (header, at, length, value) => header.set(encoder.encode(value).slice(0, length), at);
const block = (name, size, modified, kind) => {
    const header = new Uint8Array(512);
    field(header, 0, 100, name);
    field(header, 100, 8, '0000644\0');
    field(header, 108, 16, '0000000\x000000000\0');
    field(header, 124, 12, `${size.toString(8).padStart(11, '0')}\0`);
    field(header, 136, 12, `${Math.floor(modified / 1000).toString(8).padStart(11, '0')}\0`);
    field(header, 148, 8, '        ');
    field(header, 156, 1, kind);
    field(header, 257, 8, 'ustar\x0000');
    const sum = header.reduce((all, byte) => all + byte, 0);
    field(header, 148, 8, `${sum.toString(8).padStart(6, '0')}\0 `);
    return header;
};
const padding = (size) => new Uint8Array((512 - (size % 512)) % 512);
// Names of any length and script stand in a record of their own before the file (POSIX.1-2001, pax).
const record = (path) => {
    const rest = encoder.encode(` path=${path}\n`).length;
    let length = rest + 1;
    while (String(length).length + rest !== length) {
        length = String(length).length + rest;
    }
    const text = encoder.encode(`${length} path=${path}\n`);
    return [block('pax', text.length, 0, 'x'), text, padding(text.length)];
};
// What a folder holds, as one archive that is never in memory: the browser reads each file when its turn comes.
export const asTar = (files) => {
    const parts = [];
    for (const file of files) {
        parts.push(...record(file.webkitRelativePath || file.name));
        parts.push(block('file', file.size, file.lastModified, '0'), file, padding(file.size));
    }
    parts.push(new Uint8Array(1024));
    return new Blob(parts);
};
