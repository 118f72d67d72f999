import { useMemo } from 'react';
import { sayStrip, stripSvg, type PieceStrip, type StripLook } from '@ustle/core';

/** The page's own colours, in the light and under the lamp. */
const ON_PAGE: StripLook = {
  ink: 'var(--color-ink)',
  quiet: 'var(--color-quiet)',
  rule: 'var(--color-rule)',
  sheet: 'var(--color-sheet)',
  bark: 'var(--color-bark)',
  moss: 'var(--color-moss)',
  copper: 'var(--color-copper)',
  pewter: 'var(--color-pewter)',
};

/** A piece of wire laid straight. */
export function Strip({ strip }: { strip: PieceStrip }) {
  const drawing = useMemo(() => stripSvg(strip, ON_PAGE), [strip]);
  // The drawing is ours: every word in it is written by the core, which makes it safe.
  return <div role="img" aria-label={sayStrip(strip)} className="font-sans [&_svg]:h-auto [&_svg]:w-full" dangerouslySetInnerHTML={{ __html: drawing }} />;
}
