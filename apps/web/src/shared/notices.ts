/** Refused lines together, each once, the oldest first: more than these say nothing more. */
const MOST_LINES = 3;
export const withNotice = (lines: readonly string[], text: string): string[] => [...lines.filter((l) => l !== text), text].slice(-MOST_LINES);
