import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Problem } from '@ustle/contract';
import { LARGEST_FILE_BYTES, LARGEST_PHOTO_BYTES, type Refusal } from '@ustle/core';
import type { FileFault } from '@ustle/files';
import type { Response } from 'express';

/** Something the server will not do, said in a way a person can act on. */
export class ProblemException extends HttpException {
  constructor(
    status: number,
    readonly problem: Problem,
  ) {
    super(problem, status);
  }
}

/** A file or text with faults: all of them, the first one in front. */
export const refused = (faults: FileFault[]): ProblemException =>
  new ProblemException(400, {
    code: faults[0]!.code,
    field: faults[0]!.path,
    message: faults.length === 1 ? faults[0]!.message : `${faults[0]!.message} (and ${faults.length - 1} more)`,
    faults,
  });

/** Refusals that do not come from a wrong value, but from how things stand. */
const STATUS: Record<string, number> = {
  'not-found': 404,
  'not-decided': 409,
  answered: 409,
  open: 409,
  'not-agreed': 409,
  'nothing-to-undo': 409,
  'nothing-to-redo': 409,
};

/** An act that was refused. */
export const actRefused = ([first, ...rest]: readonly Refusal[]): ProblemException =>
  new ProblemException(STATUS[first!.code] ?? 400, {
    ...first!,
    ...(rest.length ? { faults: [first!, ...rest].map(({ field, code, message }) => ({ path: field, code, message })) } : {}),
  });

export const notFound = (what: string, field?: string): ProblemException =>
  new ProblemException(404, { code: 'not-found', message: `${what} is not here.`, ...(field ? { field } : {}) });

/** What the database says when it cannot store, by its own codes. */
const STORE_PROBLEMS: [pattern: RegExp, problem: Problem][] = [
  [
    /SQLITE_FULL|disk is full|ENOSPC|EFBIG|EDQUOT/i,
    { code: 'disk-full', message: 'The disk is full: this was not stored. What was stored before is safe. Make room, then do it again.' },
  ],
  [
    /SQLITE_READONLY|readonly|EROFS|EACCES/i,
    { code: 'read-only', message: 'The data folder cannot be written to: this was not stored. What was stored before is safe.' },
  ],
  [
    /SQLITE_BUSY|SQLITE_LOCKED|database is locked/i,
    { code: 'busy', message: 'Another program holds the data file: this was not stored. Close that one, then do it again.' },
  ],
  [/SQLITE_IOERR|disk I\/O/i, { code: 'disk', message: 'The disk does not take it: this was not stored. What was stored before is safe.' }],
];

/** A refusal of the database in words; null where it is something else. */
export function storeProblem(error: unknown): ProblemException | null {
  const { code = '', message = '' } = error as { code?: string; message?: string };
  const found = STORE_PROBLEMS.find(([pattern]) => pattern.test(`${code} ${message}`));
  return found ? new ProblemException(507, found[1]) : null;
}

/** Refusals that come from reading the body, before any rule of ours was asked. */
const BODY_PROBLEMS: Record<number, Problem> = {
  400: { code: 'not-json', message: 'The body of the request is not JSON.', field: '/' },
  429: { code: 'too-often', field: 'passphrase', message: 'That was tried too often. Wait a minute, then try again.' },
  413: {
    code: 'too-large',
    message: `That is larger than the server reads: a tree file has at most ${LARGEST_FILE_BYTES / 1048576} MB, a photo ${LARGEST_PHOTO_BYTES / 1048576} MB.`,
    field: '/',
  },
};

function problemOf(error: unknown): { status: number; problem: Problem } {
  if (error instanceof ProblemException) return { status: error.getStatus(), problem: error.problem };
  const status = error instanceof HttpException ? error.getStatus() : ((error as { status?: number }).status ?? 500);
  if (status < 500) return { status, problem: BODY_PROBLEMS[status] ?? { code: 'refused', message: 'There is nothing at this address.' } };
  new Logger('Problem').error(error instanceof Error ? error.stack : error);
  return { status: 500, problem: { code: 'server', message: 'Something went wrong on the server. Nothing was changed; its log says more.' } };
}

@Catch()
export class ProblemFilter implements ExceptionFilter {
  catch(error: unknown, host: ArgumentsHost): void {
    const { status, problem } = problemOf(error);
    host.switchToHttp().getResponse<Response>().status(status).json(problem);
  }
}
