const KEY = 'ustle-taken';

function taken(): string[] {
  try {
    const kept: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(kept) ? kept.filter((k) => typeof k === 'string') : [];
  } catch {
    return [];
  }
}

/** Whether something was done in a stage on this device before. */
export const isTaken = (stage: string): boolean => taken().includes(stage);

/** Keeps that something was done in a stage. */
export function nowTaken(stage: string): void {
  const before = taken();
  if (before.includes(stage)) return;
  try {
    localStorage.setItem(KEY, JSON.stringify([...before, stage]));
  } catch {
    // Without room it is told again.
  }
}
