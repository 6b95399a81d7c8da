// A scale of time: { from, until } in seconds of Unix time, drawn between { left } and { width - left } units.

const inner = ({ left, width }) => width - 2 * left;

// Whole seconds within the scale.
export const clamped = (moment, { from, until }) => Math.round(Math.min(until, Math.max(from, moment)));

export const placeOf = (moment, scale) =>
    scale.left + (inner(scale) * (moment - scale.from)) / (scale.until - scale.from);

export const momentOf = (place, scale) =>
    scale.from + ((scale.until - scale.from) * (place - scale.left)) / inner(scale);

const STEPS = {
    ArrowLeft: -0.01,
    ArrowDown: -0.01,
    ArrowRight: 0.01,
    ArrowUp: 0.01,
    PageDown: -0.1,
    PageUp: 0.1,
    Home: -1,
    End: 1,
};

// By the keys of a slider (WAI-ARIA Authoring Practices); null for any other key.
export const movedBy = (key, moment, { from, until }) =>
    key in STEPS ? moment + STEPS[key] * (until - from) : null;
