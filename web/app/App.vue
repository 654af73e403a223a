<script setup lang="ts">
import { computed, nextTick, onMounted, ref, watch, watchEffect } from 'vue';
import { RouterLink, RouterView, useRoute, useRouter } from 'vue-router';
import ConflictDialog from '../tickets/ConflictDialog.vue';
import EvidenceSheet from '../evidence/EvidenceSheet.vue';
import MakeItemDialogs from '../inventory/MakeItemDialogs.vue';
import AwayStrip from './AwayStrip.vue';
import FindBox from '../find/FindBox.vue';
import KeysHelp from './KeysHelp.vue';
import NoticeBar from './NoticeBar.vue';
import OperatorPicker from './OperatorPicker.vue';
import OutboxStrip from './OutboxStrip.vue';
import { Unreachable } from '../api/client';
import { useShop } from '../stores/shop';
import { useTimers } from '../timers/timers';
import { useNow } from '../stores/now';
import { useReach } from '../stores/reach';
import { useOutbox } from '../stores/outbox';
import { shopReading } from '../ui/useUnits';
import { shopUnits } from '@unto/domain';

const ENTRIES = ['today', 'tickets', 'coupons', 'windows', 'ledger', 'stores', 'practice', 'shop'] as const;
const shop = useShop();
const outbox = useOutbox();
const timers = useTimers();
const route = useRoute();
const router = useRouter();
const away = ref('');
const finding = ref(false);
const keys = ref(false);
/** What a shop without a head begins with stands first, and goes once there is one. */
const index = computed(() => (shop.ready && shop.mustBegin ? ['begin', ...ENTRIES] : ENTRIES));
const here = computed(() => route.meta['index'] as string);

// What is read below stands in the units of the shop.
watchEffect(() => {
  if (shop.workshop) shopReading.value = { units: shopUnits(shop.workshop), scale: {} };
});
// On a phone the index is a line: the open entry stays in sight.
watch(here, async () => {
  await nextTick();
  document.querySelector('.tab.here')?.scrollIntoView({ block: 'nearest', inline: 'center' });
});
watchEffect(() => document.documentElement.classList.toggle('lamp', shop.theme === 'lamp'));
watchEffect(() => {
  document.title = [timers.title, String(route.meta['title'] ?? ''), 'Unto'].filter(Boolean).join(' · ');
});

async function load(): Promise<void> {
  try {
    await shop.load();
    away.value = '';
  } catch (error) {
    away.value = error instanceof Unreachable ? error.message : String((error as Error).message);
    setTimeout(() => void load(), 2000);
  }
}

onMounted(async () => {
  useNow().start();
  useReach().start();
  await outbox.load();
  await load();
  await router.isReady();
  if (shop.ready && shop.mustBegin && route.path === '/today') await router.replace('/begin');
  timers.start();
});
</script>

<template>
  <a class="skip" href="#main">To the page</a>
  <div class="bench-book">
    <nav class="index no-print" aria-label="Index">
      <RouterLink to="/today" class="mark">Unto</RouterLink>
      <button type="button" class="aside" data-test-id="open-find" @click="finding = true">Find <kbd>/</kbd></button>
      <RouterLink
        v-for="entry in index"
        :key="entry"
        :to="`/${entry}`"
        class="tab"
        :class="{ here: here === entry }"
        :aria-current="here === entry ? 'page' : undefined"
      >
        {{ entry.charAt(0).toUpperCase() + entry.slice(1) }}
      </RouterLink>
      <button type="button" class="aside low" data-test-id="open-keys" @click="keys = true">Keys <kbd>?</kbd></button>
      <button
        type="button"
        class="aside"
        :aria-label="shop.theme === 'paper' ? 'Dark: lamp' : 'Light: paper'"
        @click="shop.theme = shop.theme === 'paper' ? 'lamp' : 'paper'"
      >
        {{ shop.theme === 'paper' ? 'Lamp' : 'Paper' }}
      </button>
    </nav>
    <div class="page">
      <AwayStrip />
      <OutboxStrip />
      <main id="main" tabindex="-1" :class="{ bench: route.meta['bench'] }">
        <RouterView v-if="shop.ready" :key="String(route.meta['index'])" />
        <p v-else-if="away" class="away" role="alert">{{ away }} Trying again every two seconds.</p>
        <p v-else class="away quiet">Opening the bench book …</p>
      </main>
      <NoticeBar />
    </div>
  </div>
  <OperatorPicker />
  <EvidenceSheet />
  <ConflictDialog />
  <MakeItemDialogs />
  <KeysHelp v-model="keys" />
  <FindBox v-model="finding" />
</template>

<style scoped>
.skip {
  position: absolute;
  left: -100vw;
}

.skip:focus {
  left: 0.5rem;
  top: 0.5rem;
  z-index: 10;
  background: var(--unto-surface);
  padding: 0.5rem;
}

.bench-book {
  display: grid;
  grid-template-columns: 104px minmax(0, 1fr);
  min-height: 100vh;
}

.index {
  display: flex;
  flex-direction: column;
  background: var(--unto-edge);
  border-right: 1px solid var(--unto-rule);
  position: sticky;
  top: 0;
  height: 100vh;
}

.mark {
  padding: 0.9rem 1rem 1.2rem;
  font-size: 1.35rem;
  font-weight: 700;
  color: var(--unto-ink);
  text-decoration: none;
}

.tab {
  display: flex;
  align-items: center;
  min-height: 45px;
  padding: 0 1rem;
  color: var(--unto-quiet);
  text-decoration: none;
  border-bottom: 1px solid var(--unto-rule);
}

.tab:first-of-type {
  border-top: 1px solid var(--unto-rule);
}

.tab.here {
  background: var(--unto-ground);
  color: var(--unto-ink);
  font-weight: 700;
  margin-right: -1px;
  border-top: 1px solid var(--unto-rule);
}

.aside {
  display: flex;
  gap: 0.5rem;
  align-items: center;
  min-height: 45px;
  padding: 0 1rem;
  text-align: left;
  border: 0;
  border-top: 1px solid var(--unto-rule);
  background: none;
  color: var(--unto-quiet);
  cursor: pointer;
}

.low {
  margin-top: auto;
}

kbd {
  padding: 0 0.35rem;
  border: 1px solid var(--unto-rule);
  border-radius: 3px;
  font-size: 0.8rem;
}

.page {
  min-width: 0;
  display: flex;
  flex-direction: column;
}

main {
  flex: 1;
  display: flex;
  flex-direction: column;
  outline: none;
}

.away {
  padding: 2rem;
}

@media (min-width: 901px) {
  .bench-book {
    height: 100vh;
  }

  .page {
    min-height: 0;
  }

  main {
    min-height: 0;
    overflow-y: auto;
  }
}

@media print {
  .bench-book {
    display: block;
    height: auto;
  }

  main {
    overflow: visible;
  }
}

@media (max-width: 700px) {
  .bench-book {
    grid-template-columns: minmax(0, 1fr);
    grid-template-rows: auto 1fr;
  }

  .index {
    scrollbar-width: none;
    flex-direction: row;
    overflow-x: auto;
    height: auto;
    border-right: 0;
    border-bottom: 1px solid var(--unto-rule);
    z-index: 5;
  }

  .mark {
    padding: 0.6rem 0.8rem;
  }

  kbd {
    display: none;
  }

  .tab,
  .aside {
    padding: 0 0.8rem;
    border: 0;
    margin: 0;
  }
}
</style>
