// The reach map: a lane lights up with the rows it reaches, a row with the lanes that reach it.
const light = (map, lanes, rows, words) => {
    map.classList.toggle('has-lit', lanes !== null);
    map.querySelectorAll('.is-lit').forEach((one) => one.classList.remove('is-lit'));
    lanes?.forEach((lane) => lane.classList.add('is-lit'));
    rows?.forEach((row) => row.classList.add('is-lit'));
    const read = map.parentElement.querySelector('.reach-read');
    read.textContent = words ?? read.dataset.rest;
    read.classList.toggle('is-on', words !== null);
};
const pointAt = (element) => {
    const map = element.closest('.reach');
    const lane = element.closest('a.lane');
    const row = element.closest('g.row');
    if (!map) {
        return;
    }
    if (lane) {
        light(
            map,
            [lane],
            [...map.querySelectorAll('g.row')].filter(
                one => +one.dataset.row >= +lane.dataset.from && +one.dataset.row <= +lane.dataset.to,
            ),
            lane.dataset.words,
        );
    } else if (row) {
        const lanes = [...map.querySelectorAll('a.lane')].filter(
            one => +row.dataset.row >= +one.dataset.from && +row.dataset.row <= +one.dataset.to,
        );
        light(
            map,
            lanes,
            [row],
            `Reached by ${lanes.map(one => one.querySelector('.login').textContent).join(', ')}`,
        );
    }
};
document.addEventListener('mouseover', (event) => event.target instanceof Element && pointAt(event.target));
document.addEventListener('focusin', (event) => event.target instanceof Element && pointAt(event.target));
document.addEventListener('mouseout', (event) => {
    const map = event.target instanceof Element && event.target.closest('.reach');
    if (map && !map.contains(event.relatedTarget)) {
        light(map, null, null, null);
    }
});
document.addEventListener('focusout', (event) => {
    const map = event.target instanceof Element && event.target.closest('.reach');
    if (map && !map.contains(event.relatedTarget)) {
        light(map, null, null, null);
    }
});

// htmx takes links of HTML only for links, not those of SVG.
document.addEventListener('click', (event) => {
    const fold = event.target instanceof Element && event.target.closest('a.fold');
    if (fold) {
        event.preventDefault();
        htmx.ajax('GET', fold.getAttribute('href'), { target: '#reach-map', swap: 'outerHTML' });
    }
});
