interface Heading {
  bearing: number;
  elevation: number;
}

/** Where a bend goes, roughly: "down and to the left". Seen along the branch from the trunk. */
export function sayTurn(from: Heading, to: Heading): string {
  const aside = ((to.bearing - from.bearing + 540) % 360) - 180;
  const rise = to.elevation - from.elevation;
  const parts = [Math.abs(rise) > 5 ? (rise > 0 ? 'up' : 'down') : '', Math.abs(aside) > 5 ? (aside > 0 ? 'to the right' : 'to the left') : ''].filter(Boolean);
  return parts.join(' and ') || 'on';
}
