import { download } from './download';

const KEPT = [
  'fill',
  'stroke',
  'stroke-width',
  'stroke-dasharray',
  'font-size',
  'font-family',
  'font-weight',
  'opacity',
  'fill-opacity',
  'text-anchor',
];

/** Hand a drawing to the person as an SVG file that looks the same without this page's styles; `paths` are added to it, by attribute. */
export function saveSvg(
  name: string,
  svg: SVGSVGElement,
  paths: readonly Readonly<Record<string, string>>[] = [],
): void {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = svg.querySelectorAll('*');
  const to = copy.querySelectorAll('*');
  for (const [i, el] of [...from].entries()) {
    const style = getComputedStyle(el);
    for (const k of KEPT) {
      const v = style.getPropertyValue(k);
      if (v !== '') to[i]?.setAttribute(k, v);
    }
    to[i]?.removeAttribute('class');
  }
  const style = getComputedStyle(svg);
  // Colours of the palette become what they are now.
  const plain = (v: string) =>
    v.replace(/var\((--[a-z-]+)\)/, (_, name: string) => style.getPropertyValue(name));
  for (const p of paths) {
    const path = document.createElementNS('http://www.w3.org/2000/svg', 'path');
    for (const [k, v] of Object.entries(p)) path.setAttribute(k, plain(v));
    copy.append(path);
  }
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.removeAttribute('aria-hidden');
  const [, , width, height] = (copy.getAttribute('viewBox') ?? '0 0 640 240').split(' ');
  copy.setAttribute('width', width ?? '640');
  copy.setAttribute('height', height ?? '240');
  download(name, 'image/svg+xml', new XMLSerializer().serializeToString(copy));
}
