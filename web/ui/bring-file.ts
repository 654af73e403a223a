import { ApiProblem } from '../api/client';

/** A fault of a brought file, with its line where it has one. */
export interface FileFault {
  readonly line?: number | undefined;
  readonly message: string;
}

/** Faults by their lines; where they are of the file as a whole, after what is said of all of it. */
function faultsOf({ detail, faults = [] }: ApiProblem['problem']): readonly FileFault[] {
  const whole = { message: detail };
  if (faults.some(({ line }) => line !== undefined)) return faults;
  return [whole, ...faults.filter(({ message }) => message !== detail)];
}

/** Hands a brought file on with its format; what is wrong with it comes back as faults by line. */
export async function bringFile<T>(
  file: File,
  send: (format: 'csv' | 'json') => Promise<T>,
): Promise<{ report: T } | { faults: readonly FileFault[] }> {
  try {
    return { report: await send(file.name.toLowerCase().endsWith('.json') ? 'json' : 'csv') };
  } catch (error) {
    if (error instanceof ApiProblem) return { faults: faultsOf(error.problem) };
    throw error;
  }
}
