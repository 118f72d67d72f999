import { CanvasTexture, LinearFilter } from 'three';

const FONT = "'Atkinson Hyperlegible Next Variable', sans-serif";
const kept = new Map<string, CanvasTexture>();

function painted(key: string, width: number, height: number, paint: (pen: CanvasRenderingContext2D) => void): CanvasTexture {
  const before = kept.get(key);
  if (before) return before;
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = height;
  paint(canvas.getContext('2d')!);
  const texture = new CanvasTexture(canvas);
  texture.minFilter = LinearFilter;
  texture.generateMipmaps = false;
  kept.set(key, texture);
  return texture;
}

/** A number for the rim of the table. */
export const numeral = (text: string, colour: string): CanvasTexture =>
  painted(`n${text}${colour}`, 96, 48, (pen) => {
    pen.font = `500 32px ${FONT}`;
    pen.textAlign = 'center';
    pen.textBaseline = 'middle';
    pen.fillStyle = colour;
    pen.fillText(text, 48, 25);
  });

/** A lettered pennant on a pole; filled where it is the one looked at. */
export const flag = (letter: string, filled: boolean, copper: string, sheet: string, ink: string): CanvasTexture =>
  painted(`f${letter}${filled}${copper}${sheet}`, 96, 160, (pen) => {
    pen.strokeStyle = ink;
    pen.lineWidth = 5;
    pen.beginPath();
    pen.moveTo(12, 158);
    pen.lineTo(12, 6);
    pen.stroke();
    pen.beginPath();
    pen.moveTo(14, 10);
    pen.lineTo(92, 10);
    pen.lineTo(76, 36);
    pen.lineTo(92, 62);
    pen.lineTo(14, 62);
    pen.closePath();
    pen.fillStyle = filled ? copper : sheet;
    pen.fill();
    pen.lineWidth = 4;
    pen.strokeStyle = copper;
    pen.stroke();
    pen.font = `700 40px ${FONT}`;
    pen.textAlign = 'center';
    pen.textBaseline = 'middle';
    pen.fillStyle = filled ? sheet : copper;
    pen.fillText(letter, 46, 38);
  });

/** A round soft dot for dotted lines. */
export const dot = (): CanvasTexture =>
  painted('dot', 32, 32, (pen) => {
    pen.fillStyle = '#fff';
    pen.beginPath();
    pen.arc(16, 16, 14, 0, 7);
    pen.fill();
  });
