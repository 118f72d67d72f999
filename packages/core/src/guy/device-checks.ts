import { potStands, type AnchorPlace } from './anchors.js';
import { BARK_BEARS, CLEAR, FAR, type GuyCheck } from './checks.js';
import type { GuyWorld } from './world.js';

interface ToCheck {
  /** N. */
  force: number;
  /** MPa under its cushion of so many mm. */
  pressure: number;
  cushion: number;
  /** mm to the wood that it comes nearest to; null where none is near. */
  gap: number | null;
  anchor: AnchorPlace | null;
  /** How much it rocks the tree in its pot, N·mm; null where it does not. */
  rocks: number | null;
}

/** All that can be wrong with a device, each with its value and limit. docs: Devices. */
export function checkDevice(world: GuyWorld, { force, pressure, cushion, gap, anchor, rocks }: ToCheck): GuyCheck[] {
  const bears = BARK_BEARS[world.bark];
  const isClear = gap === null || gap >= CLEAR;
  const checks: GuyCheck[] = [
    {
      check: 'cushion',
      value: pressure,
      limit: bears,
      ok: pressure <= bears,
      said: `Padded over ${cushion} mm along the wood it presses with ${pressure.toFixed(2)} MPa; this bark bears ${bears.toFixed(1)} MPa for long.`,
    },
    { check: 'clear', value: gap ?? FAR, limit: CLEAR, ok: isClear, said: isClear ? 'It is clear of other wood.' : 'It rubs on other wood.' },
  ];
  if (anchor && Number.isFinite(anchor.capacity)) {
    const { capacity } = anchor;
    checks.push({ check: 'anchor', value: force, limit: capacity, ok: force <= capacity, said: `What it goes to bears about ${capacity.toFixed(0)} N.` });
  }
  if (rocks !== null) {
    const stands = potStands(world);
    checks.push({
      check: 'pot',
      value: rocks / 1000,
      limit: stands / 1000,
      ok: rocks <= stands,
      said: `It rocks the tree in its pot with ${(rocks / 1000).toFixed(0)} N·m; tied into it, it stands about ${(stands / 1000).toFixed(0)} N·m.`,
    });
  }
  return checks;
}
