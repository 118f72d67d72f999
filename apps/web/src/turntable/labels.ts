export interface Label {
  id: string;
  text: string;
  /** Where it belongs on the screen, px. */
  x: number;
  y: number;
  /** Higher is placed first. */
  weight: number;
}

export interface PlacedLabel extends Label {
  /** Top left corner of the text's box, px. */
  left: number;
  top: number;
  width: number;
}

const HEIGHT = 22;
const CHARACTER = 8.2;
const PADDING = 14;
const GAP = 4;

/** Puts labels beside their points so that none lies on another or outside the picture; those without room are left out. */
export function placeLabels(labels: readonly Label[], width: number, height: number): PlacedLabel[] {
  const placed: PlacedLabel[] = [];
  for (const label of [...labels].sort((a, b) => b.weight - a.weight || (a.id < b.id ? -1 : 1))) {
    const wide = label.text.length * CHARACTER + PADDING;
    const outward = label.x < width / 2 ? -1 : 1;
    const spots = [0, -1, 1, -2, 2, -3, 3].flatMap((step) =>
      [outward, -outward].map((side) => ({
        left: side > 0 ? label.x + 12 : label.x - 12 - wide,
        top: label.y - HEIGHT / 2 + step * (HEIGHT + GAP) * 0.8,
      })),
    );
    const free = spots.find(
      (s) =>
        s.left >= 4 &&
        s.left + wide <= width - 4 &&
        s.top >= 4 &&
        s.top + HEIGHT <= height - 4 &&
        placed.every((p) => s.left + wide + GAP <= p.left || p.left + p.width + GAP <= s.left || Math.abs(p.top - s.top) >= HEIGHT + GAP / 2),
    );
    if (free) placed.push({ ...label, ...free, width: wide });
  }
  return placed;
}

export const LABEL_HEIGHT = HEIGHT;
