import { clamped, momentOf, movedBy, placeOf } from './logic/moments.js';

// Two moments on a drawing over time: dragged, or moved by keys; what is sent is the form below.
const scaleOf = (svg) => ({
    from: +svg.dataset.from,
    until: +svg.dataset.until,
    left: +svg.dataset.left,
    width: svg.viewBox.baseVal.width,
});
const momentAt = (handle, at) => {
    const scale = scaleOf(handle.ownerSVGElement);
    const moment = clamped(at, scale);
    const words = new Date(1000 * moment).toLocaleString('en-GB', {
        timeZone: handle.ownerSVGElement.dataset.zone,
        day: 'numeric',
        month: 'short',
        year: 'numeric',
        hour: '2-digit',
        minute: '2-digit',
    }).replace(',', '');
    handle.setAttribute('transform', `translate(${placeOf(moment, scale)} 0)`);
    handle.setAttribute('aria-valuenow', moment);
    handle.setAttribute('aria-valuetext', words);
    const form = handle.closest('.over-time').querySelector('.moments-form');
    form.elements[`${handle.dataset.moment}_at`].value = moment;
    form.querySelector(`[data-moment-words="${handle.dataset.moment}"]`).textContent = words;
};
// Within a drawing what a finger does is not the style sheet's to say: without this the page would be moved.
document.addEventListener('touchstart', (event) => {
    event.target.closest?.('.moment') && event.preventDefault();
}, { passive: false });
document.addEventListener('pointerdown', (event) => {
    const handle = event.target.closest?.('.moment');
    if (!handle) {
        return;
    }
    event.preventDefault();
    handle.focus();
    handle.setPointerCapture(event.pointerId);
    const follow = ({ clientX }) => {
        const svg = handle.ownerSVGElement;
        const box = svg.getBoundingClientRect();
        const x = ((clientX - box.left) * svg.viewBox.baseVal.width) / box.width;
        momentAt(handle, momentOf(x, scaleOf(svg)));
    };
    const end = () => handle.removeEventListener('pointermove', follow);
    handle.addEventListener('pointermove', follow);
    handle.addEventListener('pointerup', end, { once: true });
    handle.addEventListener('pointercancel', end, { once: true });
});
document.addEventListener('keydown', (event) => {
    const handle = event.target.closest?.('.moment');
    const moved = handle && movedBy(event.key, +handle.getAttribute('aria-valuenow'), scaleOf(handle.ownerSVGElement));
    if (moved !== null && moved !== undefined) {
        event.preventDefault();
        momentAt(handle, moved);
    }
});
