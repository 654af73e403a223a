<script setup lang="ts">
import { useQuery } from '@pinia/colada';
import Button from 'primevue/button';
import { computed, ref } from 'vue';
import { RouterLink, useRoute, useRouter } from 'vue-router';
import type { Recipe } from '@unto/contract';
import { pairingOf } from '@unto/domain';
import { api } from '../api/client';
import { KEYS } from '../api/keys';
import SectionDrawing from '../section/SectionDrawing.vue';
import { useSection } from '../section/useSection';
import { useTicket } from '../stores/ticket';
import StepTestPanel from './StepTestPanel.vue';
import ProvedSetting from './ProvedSetting.vue';
import CouponDesigner from './CouponDesigner.vue';
import { formatDuration } from '../ui/format';
import GradeMark from '../evidence/GradeMark.vue';
import StationBody from '../station/StationBody.vue';
import { windowAddress, windowQueryOf } from '../window/address';
import { RECIPE_WORDS } from '../recipes/recipe-words';
import OfferedRecipe from '../recipes/OfferedRecipe.vue';
import SettingTiles from '../setting/SettingTiles.vue';

/** Coupons of the ticket, the setting that came of them, and the way to the next. */
const ticket = useTicket();
const router = useRouter();
const model = useSection('beam');
/** A window that proposes a coupon opens its design at once. */
const designing = ref(useRoute().query.next !== undefined);
/** What was scrubbed of this pairing: the next coupon is laid round what held. */
const { data: before } = useQuery({
  key: () => KEYS.window(ticket.ticket!),
  query: () => api.call('pairingWindow', { query: windowQueryOf(pairingOf(ticket.ticket!)) }),
});
/** What held under other heads, or on other parts of the family: carried over where nothing held here. */
const { data: elsewhere } = useQuery({
  key: () => KEYS.elsewhere(ticket.ticket!.id),
  query: () => api.call('couponsElsewhere', { params: { id: ticket.ticket!.id } }),
  enabled: () => designing.value,
});
/** What others say works: a first coupon starts from it. */
const { data: stated } = useQuery({ key: KEYS.statedSettings(), query: () => api.all('listStatedSettings', {}) });
/** A piece with no spare blank is proved on itself. */
const oneOff = computed(() => ticket.ticket?.pieces === 1);
const testing = ref(false);
const coupons = computed(() => ticket.page?.coupons ?? []);
const scrubbed = computed(() => coupons.value.filter(({ stage }) => stage === 'scrubbed'));
const waiting = computed(() => coupons.value.find(({ stage }) => stage !== 'scrubbed'));
const recipe = computed<Recipe | null>(() => ticket.page?.recipes[0] ?? null);
const offered = computed(() => ticket.page?.offeredRecipe ?? null);
const WORDS = {
  designed: 'to burn',
  burnt: 'to rinse',
  rinsed: 'to scrub; not proof before',
  scrubbed: 'scrubbed',
} as const;
</script>

<template>
  <CouponDesigner
    v-if="designing && stated && before && elsewhere"
    :ticket="ticket.ticket!"
    :stated="stated"
    :tried="before.cells"
    :elsewhere="elsewhere"
    @close="designing = false"
  />
  <StationBody v-else station="prove">
    <template #left><SectionDrawing v-if="model" :model="model" title="Section under the beam" /></template>
    <StepTestPanel v-if="testing" @close="testing = false" />
    <template v-else>
      <OfferedRecipe v-if="offered" :offered="offered" :instead-of="recipe" />
      <ProvedSetting v-else-if="!recipe" />
      <h2>Prove the setting on a coupon</h2>
      <p v-if="!coupons.length" class="quiet">
        No coupon yet. A labelled grid of settings on a spare blank, scrubbed with a pad, tells which setting holds
        before a piece is spent.
      </p>
      <ul class="coupons">
        <li v-for="coupon in coupons" :key="coupon.id">
          <RouterLink :to="`/coupons/${coupon.id}`"
            ><strong>{{ coupon.code }}</strong></RouterLink
          >
          <span class="quiet"
            >{{ coupon.cells }} cells · {{ WORDS[coupon.stage]
            }}{{ coupon.stage === 'scrubbed' ? `, ${coupon.holds} hold` : '' }}</span
          >
          <Button
            size="small"
            :outlined="coupon.id !== waiting?.id"
            label="Open"
            :data-test-id="`open-${coupon.code}`"
            @click="router.push(`/coupons/${coupon.id}`)"
          />
        </li>
      </ul>
      <section v-if="recipe" class="recipe" data-test-id="recipe">
        <h3>
          <RouterLink :to="`/recipes/${recipe.id}`">Recipe v{{ recipe.number }}</RouterLink
          >,
          {{ RECIPE_WORDS[recipe.kind] }}
        </h3>
        <p v-if="recipe.state.state === 'suspended'" class="suspended" role="status">
          <strong>Suspended.</strong> {{ recipe.state.why }}. A check coupon puts it back into use.
        </p>
        <SettingTiles :setting="recipe" />
        <p class="quiet small">
          {{ formatDuration(recipe.secondsPerPiece) }} a piece<template v-if="recipe.worst"
            >; at worst {{ Math.round(recipe.worst.value * 100) }} of 100 hold</template
          >
        </p>
        <GradeMark
          v-if="recipe.worst"
          :figure="{ ...recipe.worst, grade: recipe.grade }"
          title="Share that holds in the worst case"
        />
        <GradeMark v-else :grade="recipe.grade" />
        <p v-if="recipe.because.length" class="quiet small" data-test-id="recipe-because">
          {{ recipe.because.join('; ') }}
        </p>
      </section>
    </template>
    <template v-if="!testing" #foot>
      <Button v-if="waiting" :label="`Go on with ${waiting.code}`" @click="router.push(`/coupons/${waiting.id}`)" />
      <Button
        v-if="scrubbed.length"
        :label="recipe ? 'Look at the window' : 'Find the setting'"
        :outlined="Boolean(waiting)"
        data-test-id="to-window"
        @click="router.push(windowAddress(ticket.ticket!, ticket.ticket!.id))"
      />
      <Button
        :label="coupons.length ? 'Another coupon' : 'Design a coupon'"
        :outlined="coupons.length > 0"
        data-test-id="design-coupon"
        @click="designing = true"
      />
      <Button v-if="oneOff" outlined label="No spare blank" data-test-id="testSteps" @click="testing = true" />
    </template>
  </StationBody>
</template>

<style scoped>
.coupons {
  list-style: none;
  margin: 0;
  padding: 0;
}

li {
  display: flex;
  align-items: center;
  gap: 0.8rem;
  padding: 0.5rem 0;
  border-bottom: 1px solid var(--unto-rule);
}

li .quiet {
  flex: 1;
}

.recipe {
  padding: 0.7rem 0.9rem;
  border: 1px solid var(--unto-rule);
  border-left: 4px solid var(--unto-bonded);
}

.suspended {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-danger);
  background: var(--unto-danger-tint);
}
</style>
