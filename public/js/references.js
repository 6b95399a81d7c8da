// The drawing of references: a file that is pointed at shows its own arcs and what they lead to.
const pickNode = (event) => {
    const node = event.target instanceof Element && event.target.closest('.references a.node');
    const svg = event.target instanceof Element && event.target.closest('.references svg');
    document.querySelectorAll('.references svg').forEach((one) => {
        one.classList.toggle('has-picked', Boolean(node) && one === svg);
        one.querySelectorAll('.is-picked').forEach((part) => part.classList.remove('is-picked'));
    });
    if (!node) {
        return;
    }
    const own = new Set([node.dataset.number]);
    svg.querySelectorAll('.arc').forEach((arc) => {
        if (arc.dataset.from === node.dataset.number || arc.dataset.to === node.dataset.number) {
            arc.classList.add('is-picked');
            own.add(arc.dataset.from).add(arc.dataset.to);
        }
    });
    svg.querySelectorAll('a.node').forEach((one) => {
        one.classList.toggle('is-picked', own.has(one.dataset.number));
    });
};
document.addEventListener('mouseover', pickNode);
document.addEventListener('focusin', pickNode);
document.addEventListener('click', (event) => {
    const node = event.target instanceof Element && event.target.closest('.references a.node[href]');
    if (node) {
        event.preventDefault();
        htmx.ajax('GET', node.getAttribute('href'), { target: '#references', swap: 'outerHTML' });
    }
});
