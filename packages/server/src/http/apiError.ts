import type { ErrorCode } from '@veglia/contract';
import type { Problem } from '@veglia/core';

/** An error the API answers with; everything else that is thrown is a fault of ours. */
export class ApiError extends Error {
  readonly code: ErrorCode;
  readonly problems: readonly Problem[];
  /** When it is worth another try, seconds. */
  readonly afterSeconds: number | undefined;

  constructor(code: ErrorCode, problems: readonly Problem[] = [], afterSeconds?: number) {
    super(code);
    this.name = 'ApiError';
    this.code = code;
    this.problems = problems;
    this.afterSeconds = afterSeconds;
  }
}
