<script setup lang="ts">
import { RUN_CHECKS, type RunCheck } from '@unto/contract';
import type { MarkSetting } from '@unto/core';
import { computed } from 'vue';
import { useUnits } from '../ui/useUnits';

/** What is looked at on the machine before the beam fires, a press each; the one who begins the run is kept with it. */
const checked = defineModel<readonly RunCheck[]>({ required: true });
const props = defineProps<{
  setting: Pick<MarkSetting, 'focusOffsetMm' | 'air' | 'extraction' | 'passes' | 'hatches' | 'angleDeg'>;
  /** Whether the compound dries to powder, which air would blow away. */
  powder: boolean;
}>();
const units = useUnits();
const tiles = computed<Record<RunCheck, { label: string; aside: string }>>(() => {
  const { focusOffsetMm, air, extraction, passes, hatches, angleDeg } = props.setting;
  const focus =
    focusOffsetMm === 0
      ? 'In focus'
      : `Focus ${focusOffsetMm > 0 ? '+' : '−'}${units.text('length', Math.abs(focusOffsetMm))}`;
  return {
    focus: { label: focus, aside: 'on the bare twin' },
    air: { label: air ? `Air ${air}` : 'Air: say below', aside: props.powder ? 'powder coat: off' : 'film coat: free' },
    extraction: { label: extraction === 'off' ? 'Extraction off' : 'Extraction on', aside: 'filter suited, lid shut' },
    passes: {
      label: passes === 1 ? '1 pass' : `${passes} passes`,
      aside: hatches > 1 ? 'crossed hatch' : `hatch ${angleDeg}°`,
    },
  };
});
function turn(check: RunCheck): void {
  checked.value = checked.value.includes(check)
    ? checked.value.filter((one) => one !== check)
    : [...checked.value, check];
}
</script>

<template>
  <div class="checks">
    <button
      v-for="check in RUN_CHECKS"
      :key="check"
      type="button"
      role="checkbox"
      :aria-checked="checked.includes(check)"
      :data-test-id="`check-${check}`"
      @click="turn(check)"
    >
      <span class="box" aria-hidden="true">{{ checked.includes(check) ? '✓' : '' }}</span>
      <span
        ><strong>{{ tiles[check].label }}</strong
        ><small class="quiet">{{ tiles[check].aside }}</small></span
      >
    </button>
  </div>
</template>

<style scoped>
.checks {
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(9.5rem, 1fr));
  border: 1px solid var(--unto-rule);
  background: var(--unto-surface);
}

button {
  display: flex;
  gap: 0.7rem;
  align-items: center;
  min-height: 60px;
  padding: 0.4rem 0.7rem;
  border: 0;
  background: none;
  color: inherit;
  font: inherit;
  text-align: left;
  cursor: pointer;
}

strong,
small {
  display: block;
  line-height: 1.2;
}

.box {
  display: grid;
  flex: none;
  place-items: center;
  width: 1.9rem;
  height: 1.9rem;
  border: 2px solid var(--unto-quiet);
  border-radius: 3px;
  font-weight: 700;
}

[aria-checked='true'] .box {
  border-color: var(--unto-bonded);
  background: var(--unto-bonded);
  color: var(--unto-surface);
}
</style>
