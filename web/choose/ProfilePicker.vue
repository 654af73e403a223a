<script setup lang="ts">
import { CRITERIA, type Criterion } from '@unto/core';
import type { InventoryItem } from '@unto/contract';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, ref } from 'vue';
import { ApiProblem } from '../api/client';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import ChoiceField from '../ui/ChoiceField.vue';

/** What counts here: one of the shop's profiles, or weights of one's own that can be kept under a name. */
const props = defineProps<{
  profiles: readonly InventoryItem<'profile'>[];
  profileId: string | null;
  own: boolean;
  weights: Record<Criterion, number>;
}>();
const emit = defineEmits<{ follow: [id: string] }>();
const outbox = useOutbox();
const notices = useNotices();
const choices = computed(() => [
  ...props.profiles.map(({ id, body }) => ({ value: id, label: body.name })),
  ...(props.own || !props.profiles.length ? [{ value: 'own', label: 'your own' }] : []),
]);
const naming = ref(false);
const name = ref('');

async function keep(): Promise<void> {
  const id = uuid();
  const weights = Object.fromEntries(CRITERIA.map((criterion) => [criterion, props.weights[criterion]])) as Record<
    Criterion,
    number
  >;
  try {
    const body = { name: name.value.trim(), about: '', ...weights };
    await outbox.send('createInventoryItem', { body: { id, kind: 'profile', body } }, `Profile ${name.value}`);
    naming.value = false;
    name.value = '';
    emit('follow', id);
  } catch (error) {
    if (!(error instanceof ApiProblem)) throw error;
    notices.say(error.first, 'danger');
  }
}
</script>

<template>
  <div class="profile">
    <ChoiceField
      label="What counts"
      :model-value="own ? 'own' : (profileId ?? 'own')"
      :options="choices"
      test-id="profile"
      @update:model-value="$event && $event !== 'own' && emit('follow', $event)"
    />
    <form v-if="naming" class="naming" @submit.prevent="keep">
      <input v-model="name" maxlength="60" aria-label="Name of the profile" data-test-id="profile-name" />
      <Button type="submit" size="small" label="Keep" :disabled="!name.trim()" data-test-id="keep-profile" />
    </form>
    <button v-else-if="own" type="button" class="link" data-test-id="name-profile" @click="naming = true">
      keep these weights
    </button>
  </div>
</template>

<style scoped>
.profile {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  gap: 0.1rem;
  font-size: 0.82rem;
}

select,
input {
  min-height: 32px;
  max-width: 100%;
  font-weight: 700;
  color: var(--unto-ink);
  background: var(--unto-surface);
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
}

.naming {
  display: flex;
  gap: 0.3rem;
}

.naming input {
  width: 8rem;
  padding: 0 0.4rem;
}
</style>
