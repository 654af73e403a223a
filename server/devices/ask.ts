/** Asks a device that answers JSON over HTTP on this machine. @throws when it does not answer in time, or says no */
export async function askDevice(base: string, path: string, body: unknown, withinMs: number): Promise<Response> {
  const response = await fetch(new URL(path, base), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(withinMs),
  });
  if (!response.ok) throw new Error(`${path} answered ${response.status}.`);
  return response;
}
