import type { NestProgress } from '@unto/core';
import { sheetEntries, type SheetEntries } from '@unto/contract';
import { nestJobOf, nestResult, workOutSheet, type SheetResult } from '@unto/domain';
import { proxy } from 'comlink';
import { v4 as uuid } from 'uuid';
import { computed, ref, shallowRef, watch } from 'vue';
import { useAct } from '../stores/useAct';
import { useShop } from '../stores/shop';
import { useNotices } from '../stores/notices';
import { useTicket } from '../stores/ticket';
import { wholeRows, type NumberColumn, type NumberRow } from '../place/rows';
import { orFault, type OrFault } from '../ui/or-fault';
import { useDraft } from '../ui/useDraft';
import { valueOf } from '../workers/computations';
import { useComputations } from '../workers/useComputations';

export const KEEP_OUT_COLUMNS: readonly NumberColumn[] = [
  { key: 'xMm', label: 'From the left', unit: 'mm' },
  { key: 'yMm', label: 'From below', unit: 'mm' },
  { key: 'widthMm', label: 'Width', unit: 'mm' },
  { key: 'heightMm', label: 'Height', unit: 'mm' },
];
export const PIECE_COLUMNS: readonly NumberColumn[] = [
  { key: 'widthMm', label: 'Width', unit: 'mm' },
  { key: 'heightMm', label: 'Height', unit: 'mm' },
  { key: 'count', label: 'How many', unit: '' },
  { key: 'test', label: 'of them tests', unit: '' },
];
const NOT_MEASURED = 'Measure the sheet: labels are often up to half an inch too large.';

interface Typed extends Omit<SheetEntries, 'keepOuts' | 'pieces'> {
  keepOuts: NumberRow[];
  pieces: NumberRow[];
}

/** The sheet of the open ticket while it is typed: laid out in rows at once, nested by the worker when asked. */
export function useSheet() {
  const ticket = useTicket();
  const own = ticket.ticket!;
  const typed = ref<Typed>(typedFrom(ticket.page?.sheet?.entries ?? firstEntries()));
  useDraft(`sheet-${own.id}`, typed);
  const entries = computed<SheetEntries>(() => ({
    ...typed.value,
    keepOuts: wholeRows(KEEP_OUT_COLUMNS, typed.value.keepOuts) as unknown as SheetEntries['keepOuts'],
    pieces: sizesOf(typed.value.pieces),
  }));
  const checked = computed<OrFault<SheetEntries>>(() => {
    const { sheetWidthMm, sheetHeightMm, mode, pieces } = entries.value;
    if (Number.isNaN(sheetWidthMm) || Number.isNaN(sheetHeightMm)) return { result: null, fault: NOT_MEASURED };
    if (mode === 'mixed' && pieces.length === 0) return { result: null, fault: 'Type the sizes, one a row.' };
    return orFault(() => sheetEntries.validateSync(entries.value, { strict: true }));
  });
  const nesting = useNesting(entries);
  const rows = computed<OrFault<SheetResult>>(() => {
    const { result, fault } = checked.value;
    return result ? orFault(() => workOutSheet(result)) : { result: null, fault };
  });
  const mixed = computed(() => entries.value.mode === 'mixed');
  const layout = computed(() =>
    mixed.value ? (checked.value.result ? nesting.layout.value : null) : rows.value.result,
  );
  const fault = computed(() => (mixed.value ? checked.value.fault || nesting.fault.value : rows.value.fault));

  const { act, busy } = useAct();
  async function keep(): Promise<void> {
    const body = { id: uuid(), entries: entries.value };
    if (await act('createSheet', { params: { id: own.id }, body }, 'the layout of a sheet'))
      useNotices().say('Kept with the ticket.');
  }
  return {
    typed,
    entries,
    mixed,
    layout,
    fault,
    ready: computed(() => checked.value.result !== null),
    nesting,
    keep,
    busy,
  };
}

/** Nesting in the worker: how far it is, the best so far, and a way to stop at that. */
function useNesting(entries: { readonly value: SheetEntries }) {
  const worker = useComputations();
  const progress = shallowRef<NestProgress | null>(null);
  const layout = shallowRef<SheetResult | null>(null);
  const fault = ref('');
  const running = ref(false);
  watch(
    () => JSON.stringify(nestJobOf(entries.value)),
    () => {
      stop();
      layout.value = null;
      fault.value = '';
    },
  );

  async function start(): Promise<void> {
    const asked = entries.value;
    running.value = true;
    fault.value = '';
    try {
      const tell = proxy((now: NestProgress) => {
        progress.value = now;
        layout.value = nestResult(asked, now.best);
      });
      layout.value = valueOf(await worker.core.sheet(JSON.parse(JSON.stringify(asked)) as SheetEntries, tell));
    } catch (error) {
      fault.value = (error as Error).message;
    } finally {
      running.value = false;
      progress.value = null;
    }
  }

  /** Stops at the best layout found so far. */
  function stop(): void {
    if (!running.value) return;
    worker.stop();
    running.value = false;
    progress.value = null;
  }
  return { progress, layout, fault, running, start, stop };
}

/** A row of sizes is its pieces, and its test pieces on their own. */
function sizesOf(rows: readonly NumberRow[]): SheetEntries['pieces'] {
  return rows
    .filter(({ widthMm, heightMm, count }) => [widthMm, heightMm, count].every(Number.isFinite))
    .flatMap(({ widthMm, heightMm, count, test }, i) => {
      const tests = Number.isFinite(test) ? test! : 0;
      const size = { widthMm: widthMm!, heightMm: heightMm! };
      const of = (many: number, testing: boolean) => ({
        ...size,
        count: many,
        test: testing,
        label: `size ${i + 1}${testing ? ', test' : ''}`,
      });
      return [of(count! - tests, false), ...(tests > 0 ? [of(tests, true)] : [])];
    });
}

function typedFrom(entries: SheetEntries): Typed {
  const rows = entries.pieces
    .filter(({ test }) => !test)
    .map(({ widthMm, heightMm, count, label }) => {
      const test = entries.pieces.find((other) => other.label === `${label}, test`)?.count ?? 0;
      return { widthMm, heightMm, count: count + test, test };
    });
  return { ...entries, keepOuts: entries.keepOuts.map((box) => ({ ...box })), pieces: rows };
}

function firstEntries(): SheetEntries {
  const own = useTicket().ticket!;
  const blank = useShop()
    .inUse('blank')
    .find(({ body }) => body.substrateId === own.substrateId)?.body;
  return {
    mode: 'rows',
    sheetWidthMm: Number.NaN,
    sheetHeightMm: Number.NaN,
    labelWidthMm: null,
    labelHeightMm: null,
    pieceWidthMm: blank?.widthMm ?? own.markWidthMm + 2 * own.coatMarginMm,
    pieceHeightMm: blank?.heightMm ?? own.markHeightMm + 2 * own.coatMarginMm,
    gapMm: 1,
    marginMm: 5,
    keepOuts: [],
    pitchXMm: null,
    pitchYMm: null,
    firstXMm: null,
    firstYMm: null,
    shiftMm: 0,
    testPlaces: 0,
    pieces: [],
  };
}
