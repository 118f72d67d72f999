import { branchIn, type LineKind, type RecordLine } from '@ustle/core';

export const FILTERS = ['all', 'work', 'cuts', 'wire', 'ties', 'looks', 'photos', 'notes'] as const;
export type Filter = (typeof FILTERS)[number];
const KINDS: Record<Exclude<Filter, 'all'>, readonly LineKind[]> = {
  work: ['session', 'worked', 'hours', 'styled', 'repotted', 'fed', 'pruned', 'defoliated', 'promised', 'fulfilled'],
  cuts: ['removed', 'shortened', 'agreed'],
  wire: ['wired', 'bent', 'pushed', 'cut', 'unwired'],
  ties: ['guyed'],
  looks: ['inspected', 'snoozed', 'measured', 'ailing'],
  photos: ['photo'],
  notes: ['note'],
};

/** Lines that pass a filter, as they stand in the record; a withdrawal is told by what it struck out. */
export const filtered = (record: readonly RecordLine[], filter: Filter, branch: string | null): RecordLine[] =>
  record.filter((l) => l.kind !== 'withdrawn' && (filter === 'all' || KINDS[filter].includes(l.kind)) && (!branch || branchIn(l) === branch));
