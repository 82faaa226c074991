import type { ErrorCode } from '@veglia/contract';
import type { Problem } from '@veglia/core';

/** An error the API answers with; everything else that is thrown is a fault of ours. */
export class ApiError extends Error {
  readonly code: ErrorCode;
  readonly problems: readonly Problem[];

  constructor(code: ErrorCode, problems: readonly Problem[] = []) {
    super(code);
    this.name = 'ApiError';
    this.code = code;
    this.problems = problems;
  }
}
