import { fileName } from '@ustle/contract';
import { saveFile } from './save-file';

/** Hands a drawing of the page out as an SVG file of its own: the page's colours are written into it. */
export function saveSvg(drawing: SVGSVGElement, name: string): void {
  const style = getComputedStyle(drawing);
  const copy = drawing.cloneNode(true) as SVGSVGElement;
  const { width, height } = drawing.viewBox.baseVal;
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(height));
  copy.setAttribute('font-family', 'sans-serif');
  const text = new XMLSerializer().serializeToString(copy).replace(/var\((--[a-z0-9-]+)\)/g, (_, colour: string) => style.getPropertyValue(colour).trim());
  saveFile(new Blob([text], { type: 'image/svg+xml' }), `${fileName(name)}.svg`);
}
