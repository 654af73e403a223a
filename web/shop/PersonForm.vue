<script setup lang="ts">
import Button from 'primevue/button';
import { createOperator } from '@unto/contract';
import FormNote from '../ui/FormNote.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';

interface Person {
  readonly name: string;
  readonly role: string;
}
const props = defineProps<{ initial: Person; keep: (person: Person) => Promise<unknown> }>();
const emit = defineEmits<{ closed: [] }>();
const form = useForm<Person>(createOperator.pick(['name', 'role']), () => ({
  name: props.initial.name,
  role: props.initial.role,
}));
const { busy } = form;

const submit = () => form.submit((person) => props.keep(person));
</script>

<template>
  <form class="person" novalidate @submit.prevent="submit">
    <FormNote />
    <TextField name="name" label="Name" test-id="person-name" />
    <TextField name="role" label="What they do" test-id="person-role" />
    <Button type="submit" label="Keep" :loading="busy" data-test-id="keep-person" />
    <Button type="button" text label="Leave as it is" @click="emit('closed')" />
  </form>
</template>

<style scoped>
.person {
  display: flex;
  flex: 1;
  flex-wrap: wrap;
  gap: 0.6rem;
  align-items: flex-end;
  padding: 0.6rem 0;
}
</style>
