import { layoutSheet, type SheetBox, type SheetJob, type SheetLayout } from '@unto/core';
import { computed, ref } from 'vue';
import { useBench } from '../stores/bench';
import { useTicket } from '../stores/ticket';
import { wholeRows, type NumberColumn, type NumberRow } from '../place/rows';
import { orFault, type OrFault } from '../ui/or-fault';
import { useDraft } from '../ui/useDraft';

export const KEEP_OUT_COLUMNS: readonly NumberColumn[] = [
  { key: 'xMm', label: 'From the left', unit: 'mm' },
  { key: 'yMm', label: 'From below', unit: 'mm' },
  { key: 'widthMm', label: 'Width', unit: 'mm' },
  { key: 'heightMm', label: 'Height', unit: 'mm' },
];

interface SheetEntries {
  sheetWidthMm: number;
  sheetHeightMm: number;
  pieceWidthMm: number;
  pieceHeightMm: number;
  gapMm: number;
  marginMm: number;
  keepOuts: NumberRow[];
}

/** The sheet of the open ticket while it is typed; kept in this browser per ticket. */
export function useSheet() {
  const ticket = useTicket();
  const bench = useBench();
  const own = ticket.ticket!;
  const blank = bench.inUse('blank').find(({ body }) => body.substrateId === own.substrateId)?.body;
  const entries = ref<SheetEntries>({
    sheetWidthMm: Number.NaN,
    sheetHeightMm: Number.NaN,
    pieceWidthMm: blank?.widthMm ?? own.markWidthMm + 2 * own.coatMarginMm,
    pieceHeightMm: blank?.heightMm ?? own.markHeightMm + 2 * own.coatMarginMm,
    gapMm: 1,
    marginMm: 5,
    keepOuts: [],
  });
  useDraft(`sheet-${own.id}`, entries);

  const job = computed<SheetJob>(() => {
    const { sheetWidthMm, sheetHeightMm, pieceWidthMm, pieceHeightMm, gapMm, marginMm, keepOuts } = entries.value;
    return {
      sheet: { widthMm: sheetWidthMm, heightMm: sheetHeightMm },
      piece: { widthMm: pieceWidthMm, heightMm: pieceHeightMm },
      gapMm,
      marginMm,
      keepOuts: wholeRows(KEEP_OUT_COLUMNS, keepOuts) as unknown as SheetBox[],
    };
  });
  const worked = computed<OrFault<SheetLayout>>(() => {
    if (Number.isNaN(entries.value.sheetWidthMm) || Number.isNaN(entries.value.sheetHeightMm))
      return { result: null, fault: 'Measure the sheet: labels are often up to half an inch too large.' };
    return orFault(() => layoutSheet(job.value));
  });
  return { entries, job, layout: computed(() => worked.value.result), fault: computed(() => worked.value.fault) };
}
