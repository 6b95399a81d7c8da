// Draws the QR code of a key here, in the browser: it is sent to nobody.
import { generate } from '/vendor/lean-qr-2.7.4.js';

const box = document.querySelector('[data-qr]');
if (box) {
    const canvas = document.createElement('canvas');
    generate(box.dataset.qr).toCanvas(canvas, { padX: 4, padY: 4 });
    box.append(canvas);
}
