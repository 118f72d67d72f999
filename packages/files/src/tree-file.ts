import type { Tree } from '@ustle/core';
import type { FileFault } from './faults.js';
import { schemaFaults } from './schema-faults.js';
import { senseFaults } from './sense-faults.js';

export type ReadResult = { tree: Tree } | { faults: FileFault[] };

/** A tree file with five thousand branches stays well below this. */
export const LARGEST_FILE_BYTES = 8 * 1024 * 1024;

/** The tree of a parsed value, or every fault of it; nothing is repaired and unknown keys stay. */
export function checkTree(value: unknown): ReadResult {
  const shape = schemaFaults(value);
  if (shape.length) return { faults: shape };
  const sense = senseFaults(value as Tree);
  return sense.length ? { faults: sense } : { tree: value as Tree };
}

/** Where and why a text is not JSON, in one sentence. */
function notJson(text: string, error: unknown): FileFault {
  const bare = /[[,:\s](NaN|-?Infinity|undefined)\s*[,}\]]/.exec(text);
  const message = bare
    ? `${bare[1]} is not a number that JSON knows, near character ${bare.index + 1}.`
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
          message: `The file has ${(text.length / 1048576).toFixed(0)} MB; a tree file has at most ${LARGEST_FILE_BYTES / 1048576} MB.`,
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
  return checkTree(value);
}

/** The text of a tree file. */
export const writeTreeFile = (tree: Tree): string => `${JSON.stringify(tree, null, 2)}\n`;
