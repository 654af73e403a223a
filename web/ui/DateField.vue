<script setup lang="ts">
import DatePicker from 'primevue/datepicker';
import { computed } from 'vue';
import FieldRow from './FieldRow.vue';
import { useNamedField, type FieldProps } from './useNamedField';

/** A calendar day, picked or typed as year-month-day; null where none is given. */
const model = defineModel<string | null>();
const props = defineProps<FieldProps>();
const emit = defineEmits<{ left: [] }>();
const { value, fault: shownFault, required, left } = useNamedField<string | null>(props, model);

const two = (part: number) => String(part).padStart(2, '0');
const day = computed<Date | null>({
  get() {
    const [year, month, date] = (value.value ?? '').split('-').map(Number);
    return year && month && date ? new Date(year, month - 1, date) : null;
  },
  set(picked) {
    // What is half typed comes as text: it is no day yet.
    value.value =
      picked instanceof Date && !Number.isNaN(picked.getTime())
        ? `${picked.getFullYear()}-${two(picked.getMonth() + 1)}-${two(picked.getDate())}`
        : null;
  },
});

function leave(): void {
  left();
  emit('left');
}
</script>

<template>
  <FieldRow v-slot="{ id, described, invalid }" :label="label" :fault="shownFault" :hint="hint" :required="required">
    <DatePicker
      v-model="day"
      :input-id="id"
      date-format="yy-mm-dd"
      show-icon
      icon-display="input"
      placeholder="year-month-day"
      :invalid="invalid"
      :pt="{
        pcInputText: {
          root: { 'data-test-id': testId, 'aria-invalid': invalid, 'aria-describedby': described, autocomplete: 'off' },
        },
      }"
      @blur="leave"
    />
  </FieldRow>
</template>
