/** The only names this server answers to and addresses it listens on: it has no sign-in. */
export const LOOPBACK: readonly string[] = ['127.0.0.1', 'localhost', '[::1]'];

/** An address to listen on that no other machine reaches. @throws Error in words */
export function requireLoopback(host: string): string {
  if (LOOPBACK.includes(host) || host === '::1') return host;
  throw new Error(`UNTO_HOST=${host}: this release has no sign-in, so it listens on loopback only.`);
}
