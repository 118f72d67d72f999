import { useMemo } from 'react';
import { create } from 'qrcode';

/** A text as a QR code, dark on light whatever the lamp. */
export function QrCode({ text, size }: { text: string; size: number }) {
  const { cells, path } = useMemo(() => {
    const { modules } = create(text, { errorCorrectionLevel: 'M' });
    const marks: string[] = [];
    for (let y = 0; y < modules.size; y++) for (let x = 0; x < modules.size; x++) if (modules.get(y, x)) marks.push(`M${x} ${y}h1v1h-1z`);
    return { cells: modules.size, path: marks.join('') };
  }, [text]);
  return (
    <svg
      width={size}
      height={size}
      viewBox={`-2 -2 ${cells + 4} ${cells + 4}`}
      role="img"
      aria-label={`Code for ${text}`}
      className="shrink-0 bg-white"
      shapeRendering="crispEdges"
    >
      <path d={path} fill="#000" />
    </svg>
  );
}
