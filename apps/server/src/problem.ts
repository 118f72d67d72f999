import { Catch, HttpException, Logger, type ArgumentsHost, type ExceptionFilter } from '@nestjs/common';
import type { Problem } from '@ustle/contract';
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

export const notFound = (what: string, field?: string): ProblemException =>
  new ProblemException(404, { code: 'not-found', message: `${what} is not here.`, ...(field ? { field } : {}) });

function problemOf(error: unknown): { status: number; problem: Problem } {
  if (error instanceof ProblemException) return { status: error.getStatus(), problem: error.problem };
  if (error instanceof HttpException) return { status: error.getStatus(), problem: { code: 'refused', message: error.message } };
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large')
    return { status: 413, problem: { code: 'too-large', message: 'That is larger than the server reads: a tree file has at most 8 MB.', field: '/' } };
  if (type === 'entity.parse.failed') return { status: 400, problem: { code: 'not-json', message: 'The body is not JSON.', field: '/' } };
  if (status && status >= 400 && status < 500) return { status, problem: { code: 'refused', message: 'The request cannot be read.' } };
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
