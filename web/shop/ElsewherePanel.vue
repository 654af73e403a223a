<script setup lang="ts">
import { RouterLink } from 'vue-router';
import { useShop } from '../stores/shop';

/** What belongs to the shop and has a page, or a command, of its own. */
const shop = useShop();
</script>

<template>
  <section class="shop-panel" aria-labelledby="elsewhere-heading">
    <h2 id="elsewhere-heading">Also of the shop</h2>
    <dl>
      <div>
        <dt>What counts</dt>
        <dd>
          <template v-for="({ id, body }, i) in shop.inUse('profile')" :key="id"
            ><template v-if="i">, </template><RouterLink :to="`/stores/${id}`">{{ body.name }}</RouterLink></template
          >
          <RouterLink to="/stores?add=profile" class="add">New profile</RouterLink>
        </dd>
      </div>
      <div>
        <dt>Reference card and step scale</dt>
        <dd><RouterLink to="/card">Print or photograph one</RouterLink></dd>
      </div>
      <div>
        <dt>Old records</dt>
        <dd><RouterLink to="/practice/bring">Bring a table of old settings</RouterLink></dd>
      </div>
      <div>
        <dt>Another machine, compound or material</dt>
        <dd><RouterLink to="/stores?add=head">Add it by its kind</RouterLink></dd>
      </div>
      <div>
        <dt>Backup</dt>
        <dd>
          On the computer that runs Unto: <code class="mono">npm run backup</code> makes one file of all records and
          pictures, while the shop works on; <code class="mono">npm run restore FILE</code> brings it into an empty
          folder.
        </dd>
      </div>
    </dl>
  </section>
</template>

<style scoped>
dl {
  margin: 0;
}

dl > div {
  display: grid;
  grid-template-columns: 14rem minmax(0, 1fr);
  gap: 0.2rem 1rem;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--unto-rule);
}

dl > div:last-child {
  border-bottom: 0;
}

dt {
  color: var(--unto-quiet);
}

dd {
  margin: 0;
}

.add {
  margin-left: 1rem;
}

@media (max-width: 700px) {
  dl > div {
    grid-template-columns: minmax(0, 1fr);
  }
}
</style>
