import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Problem } from '@ustle/contract';
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

export const notFound = (what: string, field?: string): ProblemException =>
  new ProblemException(404, { code: 'not-found', message: `${what} is not here.`, ...(field ? { field } : {}) });

export const notYet = (on: string): ProblemException =>
  new ProblemException(400, { code: 'not-yet', field: 'on', message: `on: ${on} has not come yet; the record tells what was done. Nothing was changed.` });

/** Refusals that come from reading the body, before any rule of ours was asked. */
const BODY_PROBLEMS: Record<number, Problem> = {
  400: { code: 'not-json', message: 'The body of the request is not JSON.', field: '/' },
  413: { code: 'too-large', message: 'That is larger than the server reads: a tree file has at most 8 MB.', field: '/' },
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
