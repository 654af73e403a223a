<script setup lang="ts">
import TickField from '../ui/TickField.vue';

/** A picture whose burnt code cannot be told: somebody says that it is this coupon, or brings another picture. */
const sure = defineModel<boolean>({ required: true });
defineProps<{ read: string; code: string }>();
</script>

<template>
  <section class="asked" role="alert" data-test-id="code-asked">
    <p>
      <strong>Code not readable: is this {{ code }}?</strong> The picture tells {{ read || 'nothing of it' }}.
    </p>
    <TickField v-model="sure" test-id="code-sure">It is {{ code }}, looked at on the coupon</TickField>
  </section>
</template>

<style scoped>
.asked {
  padding: 0.5rem 0.8rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

p {
  margin: 0 0 0.3rem;
}
</style>
