// A size as people read it; decimal units.
export const words = (bytes) => {
    const units = ['B', 'KB', 'MB', 'GB'];
    let at = 0;
    for (; bytes >= 1000 && at < 3; at++) {
        bytes /= 1000;
    }
    return `${at === 0 ? bytes : bytes.toFixed(1)} ${units[at]}`;
};
