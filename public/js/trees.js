// Trees that open level by level.
import { isWithin } from './logic/paths.js';

// A directory of a plan that is open is folded by the same button: the rows below it go.
document.addEventListener('htmx:beforeRequest', (event) => {
    const fold = event.detail.elt;
    if (fold.matches('[data-fold][aria-expanded="true"]')) {
        event.preventDefault();
        const row = fold.closest('tr');
        while (isWithin(row.nextElementSibling?.dataset.in, row.dataset.path)) {
            row.nextElementSibling.remove();
        }
        fold.setAttribute('aria-expanded', 'false');
    }
});
document.addEventListener('htmx:afterRequest', (event) => {
    if (event.detail.elt.matches('[data-fold]') && event.detail.successful) {
        event.detail.elt.setAttribute('aria-expanded', 'true');
    }
});

// A branch that is open is closed by the same button.
document.addEventListener('htmx:beforeRequest', (event) => {
    const twig = event.detail.elt;
    if (twig.classList.contains('twig') && event.detail.target.children.length > 0) {
        event.preventDefault();
        event.detail.target.replaceChildren();
        twig.textContent = '+';
    }
});
document.addEventListener('htmx:afterRequest', (event) => {
    if (event.detail.elt.classList.contains('twig') && event.detail.successful) {
        event.detail.elt.textContent = '−';
    }
});
