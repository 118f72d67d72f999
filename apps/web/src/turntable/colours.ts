import type { Band, Leaf, Species } from '@ustle/core';

/** Colours of the scene, one meaning each; the same in daylight and lamplight, only the room changes. */
export const METAL_COLOURS = { copper: '#c06a33', aluminium: '#9aa2a8' } as const;
/** Wire that is not on yet: the same metals, paler. */
export const PLANNED_COLOURS = { copper: '#eeb184', aluminium: '#d5dde2' } as const;
export const STATE_COLOURS = { clear: null, touching: '#c08f22', marking: '#a03a34', deep: '#a03a34', swallowed: '#7d241f' } as const;
/** How much a bend asks of its wood. */
export const BAND_COLOURS: Record<Band, string> = { calm: '#5f7d4e', careful: '#c08f22', heavy: '#a03a34', no: '#7d241f' };

export interface Room {
  ground: string;
  table: string;
  tableEdge: string;
  ink: string;
  outline: string;
  /** What is gone, seen through its outline; where it left the tree a fresh cut. */
  gone: string;
  pose: string;
  petal: string;
  petalBest: string;
}

export const ROOMS: Record<'paper' | 'lamp', Room> = {
  paper: {
    ground: '#f3eee2',
    table: '#e6ddc9',
    tableEdge: '#cdbfa3',
    ink: '#5f5d52',
    outline: '#8f8570',
    gone: '#f3eee2',
    pose: '#3a4e7c',
    petal: '#c9a992',
    petalBest: '#b4683d',
  },
  lamp: {
    ground: '#1e1b17',
    table: '#3a342b',
    tableEdge: '#2b261f',
    ink: '#b8b09c',
    outline: '#8b8371',
    gone: '#3d362c',
    pose: '#9db0de',
    petal: '#6f5a4b',
    petalBest: '#c77f52',
  },
};

export interface BarkLook {
  /** Light ridge and dark furrow. */
  light: string;
  dark: string;
  /** Depth of the furrows as a share of the radius, and how many run round. */
  depth: number;
  furrows: number;
}

export function barkLook(species: Species): BarkLook {
  if (species.bark === 'corky') return { light: '#a58c72', dark: '#4b3b2f', depth: 0.13, furrows: 12 };
  if (species.bark === 'thin') return { light: '#a89c8c', dark: '#75695c', depth: 0.03, furrows: 7 };
  return species.group.includes('conifer')
    ? { light: '#a98a6e', dark: '#54402f', depth: 0.1, furrows: 15 }
    : { light: '#9a8b7d', dark: '#5d5147', depth: 0.06, furrows: 11 };
}

export interface LeafLook {
  /** In shade, in light, at the lit tips. */
  shade: string;
  light: string;
  tip: string;
  /** Size of one tuft, mm, on a tree of ordinary size. */
  size: number;
}

const LEAVES: Record<Leaf, LeafLook> = {
  scale: { shade: '#33492c', light: '#5d7a44', tip: '#8aa05a', size: 30 },
  needle: { shade: '#2e4730', light: '#54734a', tip: '#86a062', size: 30 },
  tuft: { shade: '#3a5230', light: '#6a8747', tip: '#a3b467', size: 32 },
  'small leaf': { shade: '#3f5a2c', light: '#6f8c45', tip: '#a1b45f', size: 30 },
  'broad leaf': { shade: '#445a28', light: '#7c9442', tip: '#b1b961', size: 38 },
};

export const leafLook = (species: Species): LeafLook => LEAVES[species.leaf];
