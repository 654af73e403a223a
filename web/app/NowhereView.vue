<script setup lang="ts">
import { RouterLink } from 'vue-router';
import PageHead from '../ui/PageHead.vue';
</script>

<template>
  <PageHead title="Nothing here" />
  <p style="padding: 1.5rem">This address leads nowhere. <RouterLink to="/today">Go to Today</RouterLink></p>
</template>
