import { randomUUID } from 'node:crypto';

/** What pictures show beside the demo's own data: artwork that somebody brought, a run that was counted, washed and photographed. */
export class ShotData {
  constructor(
    private readonly base: string,
    private readonly operator: string,
  ) {}

  private async send<T = { id: string; hash: string }>(
    method: string,
    path: string,
    body: unknown,
    type = 'application/json',
  ): Promise<T> {
    const headers = { 'content-type': type, 'x-unto-operator': this.operator };
    const text = typeof body === 'string' ? body : JSON.stringify(body);
    const answer = await fetch(this.base + path, { method, headers, body: text });
    if (!answer.ok) throw new Error(await answer.text());
    return (await answer.json()) as T;
  }

  private async ticketOf(title: string): Promise<string> {
    const answer = await fetch(`${this.base}/api/tickets?limit=500`);
    const { records } = (await answer.json()) as { records: { id: string; title: string }[] };
    return records.find((one) => one.title === title)!.id;
  }

  /** Brings artwork to a ticket and lays it on its pieces with a text that changes. */
  private async lay(title: string, svg: string, { widthMm, ...entries }: Laid): Promise<void> {
    const id = await this.ticketOf(title);
    const { hash } = await this.send('POST', '/api/files?name=mark.svg', svg, 'application/octet-stream');
    const said = { unit: null, closed: 'filled', widthMm, darker: 128 };
    const brought = { id: randomUUID(), fileHash: hash, name: 'mark.svg', entries: said };
    const artwork = await this.send('POST', `/api/tickets/${id}/artworks`, brought);
    const layout = {
      ...{ artworkId: artwork.id, turnDeg: 0, work: 'both', outlineFirst: false, numberFrom: 1, numberStep: 1 },
      ...{ table: { columns: [], rows: [] }, ...entries },
    };
    await this.send('POST', `/api/tickets/${id}/layouts`, { id: randomUUID(), entries: layout });
  }

  /** A trail marker with its number. */
  bringMarkers = () =>
    this.lay('Arboretum trail markers', MARKER, {
      ...{ widthMm: 80, xMm: 5, yMm: 8 },
      fields: [{ kind: 'letters', says: 'TRAIL {n:2}', xMm: 6, yMm: 26, heightMm: 6, widthMm: 45, align: 'left' }],
    });

  /** A bed tag with its number. */
  bringTags = () =>
    this.lay('Orchid bed tags', TAG, {
      ...{ widthMm: 34, xMm: 5, yMm: 4 },
      fields: [{ kind: 'letters', says: 'BED {n}', xMm: 5, yMm: 14, heightMm: 6, widthMm: 34, align: 'left' }],
    });

  /** Counts the run that is under way to its end, washes it, draws a sample and reads it from a picture. */
  async finishRun(): Promise<void> {
    const ticket = await this.ticketOf('Orchid bed tags');
    const { marking } = (await (await fetch(`${this.base}/api/tickets/${ticket}`)).json()) as {
      marking: Counted | null;
    };
    if (!marking) return;
    const done = new Set(marking.counted.map(({ piece }) => piece));
    for (let piece = 1; piece <= marking.pieces; piece += 1)
      if (!done.has(piece))
        await this.send('POST', `/api/markings/${marking.id}/pieces`, {
          id: randomUUID(),
          piece,
          what: 'done',
          why: null,
        });
    const runId = randomUUID();
    await this.send('PUT', `/api/markings/${marking.id}/end`, { runId });
    const washed = { id: randomUUID(), method: 'water and sponge', minutes: 4, residue: 'none' };
    await this.send('POST', `/api/runs/${runId}/cleanings`, washed);
    await this.send('POST', `/api/runs/${runId}/draws`, { id: randomUUID(), scrub: Math.min(4, marking.pieces) });
    const pieces = Array.from({ length: marking.pieces }, (_, i) => i + 1);
    let job = await this.send<Job>('POST', `/api/runs/${runId}/camera`, { pieces });
    while (job.state === 'waiting') {
      await new Promise((resolve) => setTimeout(resolve, 300));
      job = (await (await fetch(`${this.base}/api/devices/jobs/${job.kind}/${job.id}`)).json()) as Job;
    }
    if (!job.picture) throw new Error(`The camera took no picture: ${job.fault}`);
    await this.send('POST', `/api/runs/${runId}/trays`, { id: randomUUID(), fileHash: job.picture.hash, pieces });
  }
}

interface Laid {
  /** Width that the artwork is brought to, mm. */
  readonly widthMm: number;
  readonly xMm: number;
  readonly yMm: number;
  readonly fields: readonly object[];
}

interface Counted {
  readonly id: string;
  readonly pieces: number;
  readonly counted: readonly { readonly piece: number }[];
}

interface Job {
  readonly id: string;
  readonly kind: string;
  readonly state: string;
  readonly fault: string;
  readonly picture: { readonly hash: string } | null;
}

const MARKER = `<svg xmlns="http://www.w3.org/2000/svg" width="44mm" height="24mm" viewBox="0 0 44 24">
<path d="M2 20h40v1.4h-40zM2 22.6h26v1.4h-26z"/><path fill-rule="evenodd" d="M34 2l7 13h-14zM34 6l-3.6 7h7.2z"/>
<path d="M27 16.5h14" fill="none" stroke="#000" stroke-width="0.3"/></svg>`;
const TAG = `<svg xmlns="http://www.w3.org/2000/svg" width="34mm" height="7mm" viewBox="0 0 34 7">
<path d="M0 5.6h34v1.4h-34z"/><path fill-rule="evenodd" d="M25 0h9v4h-9zM27 1.2h5v1.6h-5z"/></svg>`;
