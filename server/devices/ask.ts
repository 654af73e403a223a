/** A device that answers, and says no: nothing was done. Its message is the device's own. */
export class DeviceRefusal extends Error {}

/**
 * Asks a device that answers JSON over HTTP on this machine.
 * @throws DeviceRefusal when it says no (4xx); another error when it does not answer in time, or not so that anybody can tell what it did
 */
export async function askDevice(base: string, path: string, body: unknown, withinMs: number): Promise<Response> {
  const response = await fetch(new URL(path, base), {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
    signal: AbortSignal.timeout(withinMs),
  });
  if (response.status >= 400 && response.status < 500) throw new DeviceRefusal(await detailOf(response));
  if (!response.ok) throw new Error(`${path} answered ${response.status}.`);
  return response;
}

async function detailOf(response: Response): Promise<string> {
  const said = (await response.json().catch(() => null)) as { detail?: unknown } | null;
  return typeof said?.detail === 'string' && said.detail
    ? said.detail.slice(0, 300)
    : `It answered ${response.status}.`;
}
