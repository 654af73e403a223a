<script setup lang="ts">
import type { OpenStation } from '@unto/core';
import { RouterLink } from 'vue-router';
import { useTicket } from '../stores/ticket';

/** What stands open before a run, each with the way to its station. */
defineProps<{ open: readonly OpenStation[] }>();
const ticket = useTicket();
</script>

<template>
  <div v-if="open.length" class="stop" role="alert" data-test-id="open-stations">
    <p v-for="one in open" :key="one.station + one.word">
      <span
        ><RouterLink :to="`/tickets/${ticket.ticket!.id}/${one.station}`"
          ><strong class="cap">{{ one.station }}</strong></RouterLink
        >: {{ one.word }}<template v-if="one.never">: cannot be run</template></span
      >
    </p>
  </div>
</template>

<style scoped>
.stop {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
  font-size: 0.92rem;
}

.stop p {
  display: flex;
  align-items: center;
  min-height: 44px;
  margin: 0;
}

.cap {
  text-transform: capitalize;
}
</style>
