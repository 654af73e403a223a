<script setup lang="ts">
import { protocolOf } from '@unto/core';
import {
  createDurabilityLook,
  DURABILITY_RESULTS,
  type CreateDurabilityLook,
  type DurabilityTest,
} from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed } from 'vue';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import DateField from '../ui/DateField.vue';
import FormNote from '../ui/FormNote.vue';
import NumberField from '../ui/NumberField.vue';
import { choicesOf } from '../ui/choices';
import { useForm } from '../ui/useForm';

/** How a mark stands after so much of its test, and when it is looked at again. */
const props = defineProps<{ test: DurabilityTest }>();
const emit = defineEmits<{ done: [] }>();
const outbox = useOutbox();
const form = useForm<CreateDurabilityLook>(
  createDurabilityLook,
  () => ({ id: uuid(), doseDone: Number.NaN, result: '' as never, afterContrast: null, nextOn: null }),
  { draft: `look-${props.test.id}` },
);
const { values, busy } = form;
const goesOn = computed(() => values.value.doseDone < props.test.dose && values.value.result !== 'lost');

async function keep(): Promise<void> {
  await form.submit(async (body) => {
    const call = { params: { id: props.test.id }, body };
    const answer = await outbox.send('createDurabilityLook', call, 'a look at a test');
    form.reset();
    emit('done');
    return answer;
  });
}
</script>

<template>
  <form class="form-grid look" novalidate @submit.prevent="keep">
    <FormNote />
    <NumberField name="doseDone" :label="`${protocolOf(test.protocol).unit} done so far`" test-id="look-dose" />
    <ChoiceField name="result" label="The mark shows" :options="choicesOf(DURABILITY_RESULTS)" test-id="look-result" />
    <NumberField
      v-if="test.beforeContrast !== null"
      name="afterContrast"
      optional
      label="ΔL* now, read as before"
      test-id="look-after"
    />
    <DateField v-if="goesOn" name="nextOn" label="Looked at again on" test-id="look-next" />
    <Button type="submit" label="Keep this look" :loading="busy" data-test-id="look-keep" />
  </form>
</template>

<style scoped>
.look {
  padding: 0.5rem 0;
}
</style>
