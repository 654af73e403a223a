/** Every kind of refusal the API gives: its status and title. RFC 9457 problem documents carry the kind as `type`. */
export const PROBLEMS = {
  'invalid-input': { status: 422, title: 'Some of this cannot be taken as it is' },
  'not-found': { status: 404, title: 'There is no such record' },
  'version-conflict': { status: 409, title: 'Somebody else changed this meanwhile' },
  'identity-conflict': { status: 409, title: 'This identifier already stands for something else' },
  'append-only': { status: 409, title: 'This record is never changed; add a correction instead' },
  'wrong-stage': { status: 409, title: 'It is too early or too late for this' },
  'operator-needed': { status: 401, title: 'Say who is at the bench first' },
  'wrong-origin': { status: 403, title: 'This request comes from another site' },
  'too-large': { status: 413, title: 'This is too large' },
  'too-heavy': { status: 413, title: 'This is more than can be worked out here' },
  'wrong-file': { status: 415, title: 'Files of this kind are not kept' },
  'not-json': { status: 400, title: 'The request is not readable JSON' },
  'not-readable': { status: 400, title: 'The request cannot be read' },
  'device-away': { status: 502, title: 'The device does not answer' },
  'too-many': { status: 429, title: 'More is asked at once than this server answers' },
  'disk-full': { status: 507, title: 'The disk of the server is full' },
  'database-away': { status: 503, title: 'The database does not answer' },
  internal: { status: 500, title: 'Something went wrong here' },
} as const;

export type ProblemKind = keyof typeof PROBLEMS;

/** One fault, at a field path (`power.value`) or a line of a file. */
export interface ProblemFault {
  readonly path?: string | undefined;
  readonly line?: number | undefined;
  readonly message: string;
}

/** RFC 9457 problem document. */
export interface Problem {
  readonly type: ProblemKind;
  readonly title: string;
  readonly status: number;
  readonly detail: string;
  readonly faults?: readonly ProblemFault[] | undefined;
  /** With version-conflict: the record as it stands now. */
  readonly current?: unknown;
  /** With internal: the request's id, to look for in the log. */
  readonly incident?: string | undefined;
}
