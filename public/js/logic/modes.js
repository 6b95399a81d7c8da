// Permissions as octal digits and as the nine bits below them.

const DIGITS = /^[0-7]{3,4}$/;

export const isMode = (digits) => DIGITS.test(digits);

export const bits = (digits) => parseInt(digits, 8);

// The digits with these bits; a fourth digit in front (set-user-ID and the like) stays as it was.
export const withBits = (digits, sum) =>
    (digits.length > 3 ? digits.slice(0, -3) : '') + sum.toString(8).padStart(3, '0');

// Whether everybody on the server may write.
export const letsEveryoneWrite = (digits) => isMode(digits) && (bits(digits) & 2) !== 0;
