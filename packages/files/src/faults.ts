/** One fault of a file: where (a JSON pointer), a code for programs, a sentence for people. */
export interface FileFault {
  path: string;
  code: string;
  message: string;
}

/** More faults than this help nobody. */
export const MOST_FAULTS = 60;
