import { artworkWarnings, readLooseTable, spotWidth, type TextField } from '@unto/core';
import { layoutEntries, type ArtworkRecord, type CreateArtwork, type LayoutEntries } from '@unto/contract';
import { pieceSize, type PiecePreview } from '@unto/domain';
import { useQuery } from '@pinia/colada';
import { v4 as uuid } from 'uuid';
import { computed, ref, shallowRef, watch } from 'vue';
import { api, ApiProblem } from '../api/client';
import { KEYS } from '../api/keys';
import { keepPictureFile } from '../pictures/kept-picture';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import { useTicket } from '../stores/ticket';
import { useAct } from '../stores/useAct';
import { orFault } from '../ui/or-fault';
import { useDraft } from '../ui/useDraft';
import { valueOf } from '../workers/computations';
import { useComputations } from '../workers/useComputations';

type Said = CreateArtwork['entries'];
type Typed = { -readonly [K in keyof LayoutEntries]: LayoutEntries[K] };

/** Text of a table that is typed or pasted, and what is read from it. */
const NO_TABLE = { columns: [], rows: [] };

/** What lies on the pieces of the open ticket: the artwork that was brought, where it lies, and the texts that change from piece to piece. */
export function useArtwork() {
  const ticket = useTicket();
  const shop = useShop();
  const worker = useComputations();
  const own = ticket.ticket!;
  const blank = shop.inUse('blank').find(({ body }) => body.substrateId === own.substrateId)?.body;
  const piece = pieceSize(own, blank ?? null);
  const kept = ticket.page?.layout?.entered;
  const typed = ref<Typed>({ ...(kept ?? firstEntries()) });
  const draft = useDraft(`layout-${own.id}`, typed);
  const artworks = computed(() => ticket.page?.artworks ?? []);
  const artwork = computed(() => artworks.value.find(({ id }) => id === typed.value.artworkId) ?? null);
  const drawing = useQuery({
    key: () => KEYS.artwork(artwork.value?.id ?? ''),
    query: () => api.call('artworkDrawing', { params: { id: artwork.value!.id } }),
    enabled: () => artwork.value !== null,
  });

  /** Middle of the blank. */
  function centre({ measure }: ArtworkRecord): void {
    typed.value.xMm = round((piece.widthMm - measure.widthMm) / 2);
    typed.value.yMm = round((piece.heightMm - measure.heightMm) / 2);
    typed.value.turnDeg = 0;
  }

  const bringing = useBringing((brought) => {
    typed.value.artworkId = brought.id;
    centre(brought);
  });

  const lens = computed(() => ticket.fitted?.lens ?? null);
  const spotMm = computed(() => (lens.value ? spotWidth(lens.value) : 0.15));
  const intervalMm = computed(() => ticket.page?.recipes[0]?.intervalMm ?? null);
  const warnings = computed(() =>
    artwork.value
      ? artworkWarnings(artwork.value.measure, {
          ...{ spotMm: spotMm.value, intervalMm: intervalMm.value },
          ...{ pieceWidthMm: blank?.widthMm ?? null, pieceHeightMm: blank?.heightMm ?? null },
        })
      : [],
  );

  const shown = ref(1);
  const preview = shallowRef<PiecePreview | null>(null);
  const textFault = ref('');
  let asked = 0;
  watch(
    [typed, shown],
    async () => {
      const mine = (asked += 1);
      if (!typed.value.fields.length) {
        [preview.value, textFault.value] = [null, ''];
        return;
      }
      const entries = JSON.parse(JSON.stringify(typed.value)) as LayoutEntries;
      const job = { pieces: own.pieces, spotMm: spotMm.value, intervalMm: intervalMm.value };
      const answer = await worker.core.pieceTexts({
        ...{ entries, job: { ...job, piece: shown.value, pieceHeightMm: piece.heightMm } },
      });
      if (mine !== asked) return;
      textFault.value = answer.ok ? '' : answer.message;
      if (answer.ok) preview.value = valueOf(answer);
    },
    { deep: true, immediate: true },
  );

  const table = ref('');
  const tableFault = ref('');
  /** Takes a table that was pasted or brought: without a heading its columns are called by their place. */
  function takeTable(text: string): void {
    const { result, fault } = orFault(() => readLooseTable(text));
    tableFault.value = fault;
    if (!result) return;
    const columns = result.header ?? Array.from({ length: result.columns }, (_, i) => `column ${i + 1}`);
    typed.value.table = { columns: [...columns], rows: result.rows.map(({ cells }) => [...cells]) };
  }
  function dropTable(): void {
    typed.value.table = NO_TABLE;
  }

  function addText(): void {
    const column = typed.value.table.columns[typed.value.fields.length];
    const field: TextField = {
      ...{
        kind: 'letters',
        says: column ? `{${column}}` : '{n}',
        align: 'middle',
        widthMm: round(0.8 * piece.widthMm),
      },
      ...{ xMm: round(0.1 * piece.widthMm), yMm: round(0.6 * piece.heightMm), heightMm: round(0.2 * piece.heightMm) },
    };
    typed.value.fields = [...typed.value.fields, field];
  }
  function dropText(index: number): void {
    typed.value.fields = typed.value.fields.filter((_, i) => i !== index);
  }

  const checked = computed(() => orFault(() => layoutEntries.validateSync(typed.value, { strict: true })));
  const stops = computed(() => preview.value?.faults.some(({ stops: is }) => is) ?? false);
  const empty = computed(() => !typed.value.artworkId && !typed.value.fields.length);
  const { act, busy } = useAct();
  async function keep(): Promise<void> {
    const body = { id: uuid(), entries: JSON.parse(JSON.stringify(typed.value)) as LayoutEntries };
    if (!(await act('createLayout', { params: { id: own.id }, body }, 'how the pieces are marked'))) return;
    draft.forget();
    useNotices().say('Kept. The mark, its times and its prices follow it.');
  }

  return {
    ...{ typed, piece, artworks, artwork, drawing: drawing.data, centre, bringing, warnings, spotMm, intervalMm },
    ...{ shown, preview, textFault, table, tableFault, takeTable, dropTable, addText, dropText },
    ...{ fault: computed(() => checked.value.fault), stops, empty, keep, busy, pieces: own.pieces },
  };
}
export type ArtworkState = ReturnType<typeof useArtwork>;

function firstEntries(): LayoutEntries {
  return {
    ...{ artworkId: null, xMm: 0, yMm: 0, turnDeg: 0, work: 'both', outlineFirst: false, fields: [] },
    ...{ table: NO_TABLE, numberFrom: 1, numberStep: 1 },
  };
}

const round = (mm: number) => Math.round(mm * 100) / 100;

/** A file of artwork on its way: kept, then read; what it does not say itself is asked for, and the same file read again with it. */
function useBringing(brought: (artwork: ArtworkRecord) => void) {
  const ticket = useTicket();
  const outbox = useOutbox();
  const said = ref<Said>({ unit: null, closed: 'filled', widthMm: null, darker: 128 });
  const file = shallowRef<{ readonly hash: string; readonly name: string } | null>(null);
  const fault = ref('');
  const busy = ref(false);

  async function attempt(work: () => Promise<void>): Promise<void> {
    [busy.value, fault.value] = [true, ''];
    try {
      await work();
    } catch (error) {
      fault.value = error instanceof ApiProblem ? error.problem.detail : (error as Error).message;
    } finally {
      busy.value = false;
    }
  }
  const bring = (from: File) =>
    attempt(async () => {
      const { hash } = await keepPictureFile(from);
      file.value = { hash, name: from.name };
      said.value = { ...said.value, unit: null, widthMm: null };
      await read();
    });
  async function read(): Promise<void> {
    const { hash, name } = file.value!;
    const body = { id: uuid(), fileHash: hash, name, entries: { ...said.value } };
    const call = { params: { id: ticket.ticket!.id }, body };
    const artwork = await outbox.send('createArtwork', call, 'the artwork');
    if (artwork) brought(artwork);
  }
  return { said, file, fault, busy, bring, again: () => attempt(read) };
}
