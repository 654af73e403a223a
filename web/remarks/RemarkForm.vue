<script setup lang="ts">
import { createRemark, REMARK_SHOWS, type CreateRemark } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { ref } from 'vue';
import BringPicture from '../pictures/BringPicture.vue';
import { keepPictureFile } from '../pictures/kept-picture';
import { useReading } from '../pictures/useReading';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';

/** Puts a note, a picture or both beside a ticket or one of its runs. */
const props = defineProps<{ ticketId: string; runId?: string | null }>();
const outbox = useOutbox();
const { doing, fault: said, run, stop } = useReading(() => undefined);
const picture = ref('');
const form = useForm<CreateRemark>(
  createRemark,
  () => ({ id: uuid(), ticketId: props.ticketId, runId: props.runId ?? null, words: '', fileHash: null, shows: null }),
  { draft: () => `remark-${props.runId ?? props.ticketId}` },
);
const { values, busy } = form;
const SHOWS = [
  { value: null, label: 'not said' },
  ...REMARK_SHOWS.map((value) => ({ value, label: value === 'else' ? 'something else' : `the ${value}` })),
];

async function bring(file: File): Promise<void> {
  await run(async (step) => {
    const { hash } = await keepPictureFile(file);
    step('read');
    values.value.fileHash = hash;
    picture.value = file.name;
  });
}

async function keep(): Promise<void> {
  await form.submit(async (entry) => {
    const answer = await outbox.send('createRemark', { body: entry }, 'a note');
    form.reset();
    picture.value = '';
    return answer;
  });
}
</script>

<template>
  <form class="remark-form" novalidate @submit.prevent="keep">
    <FormNote />
    <TextField name="words" label="Note" :lines="3" test-id="remark-words" />
    <BringPicture :doing="doing" :again="values.fileHash !== null" no-camera @brought="bring" @stop="stop" />
    <p v-if="values.fileHash" class="small" data-test-id="remark-picture">
      {{ picture || 'A picture' }} comes with it.
      <button type="button" class="link" @click="values.fileHash = null">Without it</button>
    </p>
    <p v-if="said" class="fault" role="alert">{{ said }}</p>
    <ChoiceField v-if="values.fileHash" name="shows" label="It shows" :options="SHOWS" test-id="remark-shows" />
    <Button type="submit" label="Put it down" :loading="busy" :disabled="doing !== null" data-test-id="keep-remark" />
  </form>
</template>

<style scoped>
.remark-form {
  display: flex;
  flex-direction: column;
  gap: 0.6rem;
}
</style>
