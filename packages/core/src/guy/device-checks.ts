import { SEASON_RISK, STAGE_RISK } from '../wood/index.js';
import type { DeviceKind } from '../tree/index.js';
import { potStandsFast, type AnchorPlace } from './anchors.js';
import { BARK_BEARS, CLEAR, FAR, tieBears, type GuyCheck } from './checks.js';
import type { GuyWorld } from './world.js';
import { sayForce, sayTurning } from '../units/index.js';

/** What a device is set with, N: by two hands, pressed in with a thread or a wedge, or by a screw of its own. Own estimates of what anybody wants beside him. */
const SET_WITH: Record<DeviceKind, number> = { spacer: 150, prop: 150, bar: 150, spreader: 300, stays: 250, frame: 400, jack: 400, clamp: 900 };

interface ToCheck {
  kind: DeviceKind;
  /** Whether a screw moves it, stage by stage. */
  screw: boolean;
  /** What each tie that it is made of pulls with, N, and its thickness; null where it is made of none. */
  tie: { tension: number; wire: number } | null;
  /** The wood that is asked for most. */
  worst: { strain: number; risk: number; diameter: number };
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
export function checkDevice(world: GuyWorld, { kind, screw, tie, worst, force, pressure, cushion, gap, anchor, rocks }: ToCheck): GuyCheck[] {
  const bears = BARK_BEARS[world.bark];
  const isClear = gap === null || gap >= CLEAR;
  // What has no screw is set in one go.
  const bearsRisk = screw ? SEASON_RISK : STAGE_RISK;
  const least = SET_WITH[kind];
  const checks: GuyCheck[] = [
    {
      check: 'force',
      value: force,
      limit: least,
      ok: force <= least,
      said: `It holds with about ${sayForce(force)}; one such is set with ${sayForce(least)} at most.`,
    },
    {
      check: 'wood',
      value: worst.risk,
      limit: bearsRisk,
      ok: worst.risk <= bearsRisk,
      said: `Its wood, ${worst.diameter.toFixed(0)} mm thick there, is strained by ${(100 * worst.strain).toFixed(1)}%; in ${screw ? 'the stages of one season' : 'one go'} it bears ${((100 * worst.strain * bearsRisk) / Math.max(1e-9, worst.risk)).toFixed(1)}%.`,
    },
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
    checks.push({ check: 'anchor', value: force, limit: capacity, ok: force <= capacity, said: `What it goes to bears about ${sayForce(capacity)}.` });
  }
  if (tie) {
    const bears = tieBears(tie.wire);
    checks.push({
      check: 'wire',
      value: tie.tension,
      limit: bears,
      ok: tie.tension <= bears,
      said: `Each is of copper, ${tie.wire} mm doubled, and pulls with ${sayForce(tie.tension)}; it bears ${sayForce(bears)} safely.`,
    });
  }
  if (rocks !== null) {
    const stands = potStandsFast(world);
    checks.push({
      check: 'pot',
      value: rocks / 1000,
      limit: stands / 1000,
      ok: rocks <= stands,
      said: `It rocks the tree in its pot with ${sayTurning(rocks)}; tied fast into it by two wires, it stands about ${sayTurning(stands)}.`,
    });
  }
  return checks;
}
