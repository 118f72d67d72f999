import { completed, LARGEST_FILE_BYTES, TREE_FILE, type Tree, senseFaults, type FileFault } from '@ustle/core';
import { shapeFaults } from './shape-faults.js';

export type ReadResult = { tree: Tree } | { faults: FileFault[] };

/** The tree of a parsed value, or every fault of it; lists left out are filled in empty, nothing else is repaired, unknown keys stay. */
export function checkTree(value: unknown): ReadResult {
  const shape = shapeFaults(TREE_FILE, value);
  if (shape.length) return { faults: shape };
  const tree = completed(value as Tree);
  const sense = senseFaults(tree);
  return sense.length ? { faults: sense } : { tree };
}

/** Where and why a text is not JSON, in one sentence. */
function notJson(text: string, error: unknown): FileFault {
  const bare = /[[,:\s](NaN|-?Infinity|undefined)\s*[,}\]]/.exec(text);
  const message = bare
    ? `${bare[1]} is not a number that JSON knows, near character ${bare.index + 2}.`
    : `This is not JSON: ${error instanceof Error ? error.message : String(error)}.`;
  return { path: '/', code: 'not-json', message };
}

/** Reads the text of a tree file. */
export function readTreeFile(text: string): ReadResult {
  if (text.length > LARGEST_FILE_BYTES) {
    return {
      faults: [
        {
          path: '/',
          code: 'too-large',
          message: `The file has ${(Math.ceil(text.length / 104857.6) / 10).toFixed(1)} MB; a tree file has at most ${LARGEST_FILE_BYTES / 1048576} MB.`,
        },
      ],
    };
  }
  let value: unknown;
  try {
    value = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch (error) {
    return { faults: [notJson(text, error)] };
  }
  if (isTooDeep(value)) return { faults: [{ path: '/', code: 'too-deep', message: `It is nested more than ${MOST_DEPTH} deep.` }] };
  return checkTree(value);
}

/** Parts within parts: a tree file has seven; what is far deeper would break whoever walks through it. */
const MOST_DEPTH = 40;

/** Whether a parsed value is nested deeper than is taken. */
export function isTooDeep(value: unknown): boolean {
  let level: unknown[] = [value];
  for (let depth = 0; level.length; depth++) {
    if (depth > MOST_DEPTH) return true;
    level = level.flatMap((v) => (typeof v === 'object' && v !== null ? Object.values(v) : []));
  }
  return false;
}

/** So large a file is not laid out for the eye: indents would make it several times as large. */
const LAID_OUT_BYTES = 2 * 1024 * 1024;

/** The text of a tree file. */
export function writeTreeFile(tree: Tree): string {
  const plain = JSON.stringify(tree);
  return plain.length > LAID_OUT_BYTES ? `${plain}\n` : `${JSON.stringify(tree, null, 2)}\n`;
}
