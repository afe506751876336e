// What hands and eyes need of a page, looked for in the page itself: returns a list of faults, each a sentence.
() => {
  const faults = [];
  const seen = (e) => {
    const r = e.getBoundingClientRect();
    const s = getComputedStyle(e);
    return r.width > 1 && r.height > 1 && s.visibility !== 'hidden' && !e.closest('.hidden');
  };
  const named = (e) => `${e.tagName.toLowerCase()}${e.className?.baseVal ?? e.className ? '.' + String(e.className.baseVal ?? e.className).split(' ')[0] : ''} “${(e.getAttribute('aria-label') || e.textContent || '').trim().slice(0, 30)}”`;
  const wide = document.documentElement.clientWidth;
  if (document.documentElement.scrollWidth > wide) {
    const out = [...document.querySelectorAll('body *')].filter((e) => seen(e) && e.getBoundingClientRect().right > wide + 1);
    faults.push(`scrolls sideways to ${document.documentElement.scrollWidth} of ${wide}: ${out.slice(-3).map(named).join(', ')}`);
  }
  const scrolls = (e) => ['auto', 'scroll'].includes(getComputedStyle(e).overflowX);
  for (const e of document.querySelectorAll('body *')) {
    if (!seen(e)) continue;
    const style = getComputedStyle(e);
    const own = [...e.childNodes].some((n) => n.nodeType === 3 && n.textContent.trim());
    if (e.scrollWidth > e.clientWidth + 1 && style.overflowX !== 'visible' && e.clientWidth && !(e instanceof SVGElement) && !['INPUT', 'SELECT', 'TEXTAREA'].includes(e.tagName))
      faults.push(`${scrolls(e) ? 'scrolls sideways' : 'is cut off'} inside: ${named(e)} ${e.scrollWidth} > ${e.clientWidth}`);
    if (own) {
      const scale = e instanceof SVGGraphicsElement ? Math.abs(e.getScreenCTM()?.d ?? 1) : 1;
      const size = parseFloat(style.fontSize) * scale;
      if (size < 13.9) faults.push(`text of ${size.toFixed(1)} px: ${named(e)}`);
    }
    if (e.matches('button, a[href], input, select, textarea, summary, [role=button], [role=radio], [role=tab]')) {
      const label = e.closest('label');
      const boxes = [e, ...(label ? [label] : [])].map((x) => x.getBoundingClientRect());
      const inline = e.matches('a[href]') && style.display === 'inline' && e.closest('p, li, td');
      if (!inline && !boxes.some((r) => r.height >= 43.5 && r.width >= 43.5)) {
        const r = boxes[0];
        faults.push(`touched at ${r.width.toFixed(0)}×${r.height.toFixed(0)}: ${named(e)}`);
      }
    }
  }
  return faults;
};
