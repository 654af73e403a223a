import { ApiProblem } from '../api/client';

/** A fault of a brought file, with its line where it has one. */
export interface FileFault {
  readonly line?: number | undefined;
  readonly message: string;
}

/** Hands a brought file on with its format; what is wrong with it comes back as faults by line. */
export async function bringFile<T>(
  file: File,
  send: (format: 'csv' | 'json') => Promise<T>,
): Promise<{ report: T } | { faults: readonly FileFault[] }> {
  try {
    return { report: await send(file.name.toLowerCase().endsWith('.json') ? 'json' : 'csv') };
  } catch (error) {
    if (error instanceof ApiProblem)
      return { faults: error.problem.faults?.length ? error.problem.faults : [{ message: error.problem.detail }] };
    throw error;
  }
}
