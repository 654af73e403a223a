import { CoreError, decodeTable } from '@unto/core';
import { ApiProblem } from '../api/client';

/** A fault of a brought file, with its line where it has one. */
export interface FileFault {
  readonly line?: number | undefined;
  readonly message: string;
}

/**
 * Hands a brought file on with its format and a way to read it as text; what is wrong with it comes back as faults by line.
 */
export async function bringFile<T>(
  file: File,
  send: (format: 'csv' | 'json', text: () => Promise<string>) => Promise<T>,
): Promise<{ report: T } | { faults: readonly FileFault[] }> {
  try {
    const text = async () => decodeTable(new Uint8Array(await file.arrayBuffer()));
    return { report: await send(file.name.toLowerCase().endsWith('.json') ? 'json' : 'csv', text) };
  } catch (error) {
    if (error instanceof CoreError) return { faults: [{ message: error.message }] };
    if (error instanceof ApiProblem)
      return { faults: error.problem.faults?.length ? error.problem.faults : [{ message: error.problem.detail }] };
    throw error;
  }
}
