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

/** A drawing as an SVG file that looks the same without this page's styles; `paths` are added to it, by attribute. */
export function svgText(
  svg: SVGSVGElement,
  paths: readonly Readonly<Record<string, string>>[] = [],
): string {
  const copy = svg.cloneNode(true) as SVGSVGElement;
  const from = svg.querySelectorAll('*');
  const to = copy.querySelectorAll('*');
  for (const [i, el] of [...from].entries()) {
    const style = getComputedStyle(el);
    for (const k of KEPT) {
      const v = style.getPropertyValue(k);
      if (v !== '') to[i]?.setAttribute(k, v);
    }
    // A colour of the page's palette is none in a file.
    to[i]?.removeAttribute('style');
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
  return new XMLSerializer().serializeToString(copy);
}

/** Hand a drawing to the person as an SVG file. */
export function saveSvg(
  name: string,
  svg: SVGSVGElement,
  paths: readonly Readonly<Record<string, string>>[] = [],
): void {
  download(name, 'image/svg+xml', svgText(svg, paths));
}

/** Pixels of a picture for each of the drawing: sharp where it is shown larger. */
const SHARP = 2;

/** The same drawing as a PNG, on a ground of this colour. */
export async function pngOf(svg: SVGSVGElement, ground: string): Promise<Blob> {
  const picture = new Image();
  picture.src = `data:image/svg+xml;charset=utf-8,${encodeURIComponent(svgText(svg))}`;
  await picture.decode();
  const canvas = document.createElement('canvas');
  canvas.width = picture.naturalWidth * SHARP;
  canvas.height = picture.naturalHeight * SHARP;
  const pen = canvas.getContext('2d');
  if (!pen) throw new Error('This browser draws no pictures');
  pen.fillStyle = ground;
  pen.fillRect(0, 0, canvas.width, canvas.height);
  pen.drawImage(picture, 0, 0, canvas.width, canvas.height);
  return new Promise((resolve, reject) => {
    canvas.toBlob((b) => (b ? resolve(b) : reject(new Error('No picture was made'))), 'image/png');
  });
}
