import { CoreError, decodeTable, readLooseTable, type LooseTable, type SubstrateFamily } from '@unto/core';
import {
  guessColumns,
  readOldRecords,
  unitOf,
  unknownMaterials,
  type OldField,
  type OldRecordPlan,
} from '@unto/domain';
import { v4 as uuid } from 'uuid';
import { computed, ref, shallowRef, watch } from 'vue';

/** More at once would make a request too large. */
const AT_ONCE = 200;

/** A sheet as it is brought: what its columns hold, what holds for all of it, and what every line comes to. */
export function useOldRecords() {
  const text = ref('');
  const name = ref('');
  const fault = ref('');
  const table = shallowRef<LooseTable | null>(null);
  const plan = ref<OldRecordPlan>(emptyPlan());
  /** The same lines keep their ids, so that they are kept once however often they are sent. */
  let ids = new Map<number, string>();

  watch(text, (now) => {
    fault.value = '';
    table.value = null;
    ids = new Map();
    if (!now.trim()) return;
    try {
      table.value = readLooseTable(now);
      plan.value = { ...plan.value, columns: guessColumns(table.value), source: name.value || plan.value.source };
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      fault.value = error.message;
    }
  });

  async function bring(file: File): Promise<void> {
    try {
      const read = decodeTable(new Uint8Array(await file.arrayBuffer()));
      name.value = file.name;
      text.value = read;
    } catch (error) {
      if (!(error instanceof CoreError)) throw error;
      fault.value = `${file.name}: ${error.message}`;
    }
  }

  /** Takes a column as something else; what held that before goes into the note. */
  function take(column: number, field: OldField | null): void {
    const cells = (table.value?.rows ?? []).map(({ cells: row }) => row[column] ?? '');
    const heading = table.value?.header?.[column] ?? '';
    const columns = plan.value.columns.map((now, i) => {
      if (i === column) return field && { field, unit: unitOf(field, heading.toLowerCase(), cells) };
      return now?.field === field && field !== 'note' ? null : now;
    });
    plan.value = { ...plan.value, columns };
  }

  function readIn(column: number, unit: string): void {
    const columns = plan.value.columns.map((now, i) => (i === column && now ? { ...now, unit } : now));
    plan.value = { ...plan.value, columns };
  }

  const means = (word: string, family: SubstrateFamily): void => {
    plan.value = { ...plan.value, materials: { ...plan.value.materials, [word]: family } };
  };

  const records = computed(() => (table.value ? readOldRecords(table.value, plan.value) : []));
  const good = computed(() => records.value.flatMap(({ line, setting }) => (setting ? [{ line, setting }] : [])));
  const bad = computed(() => records.value.filter(({ setting }) => !setting));
  const strange = computed(() => (table.value ? unknownMaterials(table.value, plan.value.columns) : []));

  /** What is to be kept, in parts that a request takes. */
  function parts() {
    const settings = good.value.map(({ line, setting }) => {
      if (!ids.has(line)) ids.set(line, uuid());
      return { id: ids.get(line)!, ...setting };
    });
    return Array.from({ length: Math.ceil(settings.length / AT_ONCE) }, (_, i) =>
      settings.slice(i * AT_ONCE, (i + 1) * AT_ONCE),
    );
  }

  return { text, fault, table, plan, records, good, bad, strange, bring, take, readIn, means, parts };
}

function emptyPlan(): OldRecordPlan {
  return {
    ...{ columns: [], materials: {}, family: null, beam: null, compound: '' },
    ...{ ratedW: null, topSpeedMmPerS: null, source: 'old records' },
  };
}
