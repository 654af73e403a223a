<script setup lang="ts">
import { judgeCompound, learnTransfer, type CompoundJudgement } from '@unto/core';
import type { CouponSummary, StoreItem } from '@unto/contract';
import Button from 'primevue/button';
import { computed, onMounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { request } from '../api/client';
import { useBench } from '../stores/bench';
import { useTicket } from '../stores/ticket';
import { useTicketChange } from '../stores/ticket-change';
import CautionStrip from '../ui/CautionStrip.vue';
import { formatDuration, withUnit } from '../ui/format';
import GradeMark from '../ui/GradeMark.vue';
import TextField from '../ui/TextField.vue';
import { coatPlanFor } from './coat-plan';

/** Every compound on the shelf, offered, warned or withheld for this part and beam, with its reasons. */
const ticket = useTicket();
const bench = useBench();
const change = useTicketChange();
const router = useRouter();
const coupons = ref<CouponSummary[]>([]);
const reason = ref(ticket.ticket?.choiceReason ?? '');
const picked = ref<string | null>(ticket.ticket?.compoundId ?? null);
const settled = ticket.ticket?.compoundId !== null || ticket.ticket?.choiceReason !== '';
onMounted(async () => {
  coupons.value = await request<CouponSummary[]>('GET', '/api/coupons');
});

interface Option {
  readonly item: StoreItem<'compound'>;
  readonly judgement: CompoundJudgement;
  readonly price: string;
  readonly plan: ReturnType<typeof coatPlanFor>;
}
const ORDER = { offered: 0, warned: 1, blocked: 2 } as const;
const WORDS = { offered: 'Offered', warned: 'Off its label or doubtful', blocked: 'Withheld' } as const;

const options = computed<Option[]>(() => {
  const { fitted, ticket: own } = ticket;
  if (!fitted || !own) return [];
  return bench
    .inUse('compound')
    .map((item) => {
      const provedCoupons = coupons.value.filter(
        (coupon) =>
          coupon.substrateId === own.substrateId &&
          coupon.compoundId === item.id &&
          coupon.headId === own.headId &&
          coupon.stage === 'scrubbed' &&
          coupon.holds > 0,
      ).length;
      const plan = coatPlanFor(item, own, own.pieces, learnTransfer([]));
      return {
        item,
        plan,
        judgement: judgeCompound(item.body, fitted.substrate, fitted.head.wavelengthClass, { provedCoupons }),
        price: withUnit(plan.pricePerPiece.value, bench.workshop!.currency, 3),
      };
    })
    .sort(
      (a, b) =>
        ORDER[a.judgement.verdict] - ORDER[b.judgement.verdict] ||
        a.plan.pricePerPiece.value - b.plan.pricePerPiece.value,
    );
});
// A ticket nobody has chosen for opens on the first that is offered.
if (!settled) picked.value = options.value.find(({ judgement }) => judgement.verdict === 'offered')?.item.id ?? null;
const chosen = computed(() => options.value.find(({ item }) => item.id === picked.value) ?? null);
const burnable = computed(() =>
  ['anodised', 'painted', 'powder-coated', 'lacquered'].includes(ticket.substrate?.body.layer ?? ''),
);

async function take(): Promise<void> {
  const name = chosen.value?.item.body.name ?? 'no compound';
  const why = reason.value.trim() || (chosen.value ? '' : 'Marked without a compound.');
  if (await change.change({ compoundId: picked.value, choiceReason: why }, `Taken: ${name}.`))
    await router.push(`/tickets/${ticket.ticket!.id}/prepare`);
}
</script>

<template>
  <div class="choose">
    <section class="list" aria-label="Compounds">
      <table class="plain">
        <thead>
          <tr>
            <th>Compound</th>
            <th>For this part and beam</th>
            <th class="number">Price a piece</th>
            <th>Dry coat</th>
            <th class="number">Dries in</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="option in options"
            :key="option.item.id"
            :class="[option.judgement.verdict, { picked: picked === option.item.id }]"
            :data-test-id="`option-${option.item.body.name}`"
          >
            <td>
              <label class="pick">
                <input
                  v-model="picked"
                  type="radio"
                  name="compound"
                  :value="option.item.id"
                  :disabled="option.judgement.verdict === 'blocked'"
                />
                <span
                  ><strong>{{ option.item.body.name }}</strong
                  ><br /><span class="quiet small"
                    >{{ option.item.body.form }}, {{ option.item.body.colour }}</span
                  ></span
                >
              </label>
            </td>
            <td class="verdict">
              <p class="word">
                <svg viewBox="0 0 16 16" width="15" height="15" aria-hidden="true">
                  <circle
                    v-if="option.judgement.verdict === 'offered'"
                    cx="8"
                    cy="8"
                    r="6.5"
                    fill="var(--unto-bonded)"
                  />
                  <path
                    v-else-if="option.judgement.verdict === 'warned'"
                    d="M8 1.5 14.5 14h-13Z"
                    fill="none"
                    stroke="var(--unto-coat-line)"
                    stroke-width="2"
                  />
                  <path
                    v-else
                    d="M2.5 2.5 13.5 13.5M13.5 2.5 2.5 13.5"
                    stroke="var(--unto-danger)"
                    stroke-width="2.4"
                  />
                </svg>
                {{ WORDS[option.judgement.verdict] }}
              </p>
              <ul>
                <li v-for="entry in option.judgement.reasons" :key="entry.code">
                  {{ entry.text }} <GradeMark :grade="entry.grade" />
                </li>
              </ul>
            </td>
            <template v-if="option.judgement.verdict !== 'blocked'">
              <td class="number">
                {{ option.price }}<br /><GradeMark
                  :figure="option.plan.pricePerPiece"
                  :title="`Price of ${option.item.body.name} a piece`"
                />
              </td>
              <td>
                {{ option.item.body.handling }}<br /><span class="quiet small">{{
                  option.item.body.shelfLifeDays ? `keeps ${option.item.body.shelfLifeDays} days` : 'keeps'
                }}</span>
              </td>
              <td class="number">{{ formatDuration(option.item.body.dryS) }}</td>
            </template>
            <td v-else colspan="3"></td>
          </tr>
          <tr :class="{ picked: picked === null }" data-test-id="option-none">
            <td>
              <label class="pick"
                ><input v-model="picked" type="radio" name="compound" :value="null" /><span
                  ><strong>No compound</strong><br /><span class="quiet small">the beam alone</span></span
                ></label
              >
            </td>
            <td class="verdict">
              <p class="word">{{ burnable ? 'Burns off the layer' : 'Only where the bare material takes it' }}</p>
              <ul>
                <li>
                  {{
                    burnable
                      ? 'Usual for this layer: the mark is the material below it.'
                      : 'Polished metal throws most of the beam back; glass frosts.'
                  }}
                  <GradeMark grade="usual" />
                </li>
              </ul>
            </td>
            <td class="number">0</td>
            <td>–</td>
            <td class="number">–</td>
          </tr>
        </tbody>
      </table>
    </section>
    <aside class="settle">
      <h2>{{ chosen ? chosen.item.body.name : 'No compound' }}</h2>
      <p v-if="chosen?.judgement.verdict === 'warned'" class="off">
        <strong>Allowed, proved first.</strong> Until a scrubbed coupon holds, this pairing stays marked as off its
        label.
      </p>
      <p v-else-if="chosen" class="quiet">
        {{ chosen.item.body.cleaning }} takes the rest off. {{ chosen.item.body.coats }} coat{{
          chosen.item.body.coats > 1 ? 's' : ''
        }}, {{ chosen.item.body.bandLowUm }}–{{ chosen.item.body.bandHighUm }} µm dry.
      </p>
      <TextField v-model="reason" label="Why this one (kept on the ticket)" :lines="2" test-id="reason" />
      <CautionStrip station="choose" />
      <Button
        :label="chosen ? `Take ${chosen.item.body.name}` : 'Mark without a compound'"
        data-test-id="take"
        @click="take"
      />
    </aside>
  </div>
</template>

<style scoped>
.choose {
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 1fr) 340px;
  grid-template-rows: minmax(0, 1fr);
  min-height: 0;
}

.list {
  padding: 0.6rem 1.2rem 1rem 1.5rem;
  overflow: auto;
}

.settle {
  display: flex;
  flex-direction: column;
  gap: 0.8rem;
  padding: 0.9rem 1.3rem;
  background: var(--unto-surface);
  border-left: 1px solid var(--unto-rule);
  overflow-y: auto;
}

.pick {
  display: flex;
  gap: 0.7rem;
  align-items: flex-start;
  min-height: 44px;
  cursor: pointer;
}

.pick input {
  width: 1.15rem;
  height: 1.15rem;
  margin-top: 0.15rem;
  accent-color: var(--unto-action);
}

.word {
  display: flex;
  align-items: center;
  gap: 0.4rem;
  font-weight: 700;
}

ul {
  margin: 0.15rem 0 0;
  padding: 0;
  list-style: none;
  font-size: 0.88rem;
}

tr.blocked strong {
  color: var(--unto-quiet);
}

tr.picked td {
  background: var(--unto-surface);
}

tr.picked td:first-child {
  box-shadow: inset 4px 0 0 var(--unto-action);
}

td:first-child {
  padding-left: 0.7rem;
  min-width: 13rem;
}

td,
th {
  white-space: nowrap;
}

td.verdict {
  white-space: normal;
  min-width: 17rem;
}

.off {
  padding: 0.5rem 0.7rem;
  border-left: 4px solid var(--unto-coat-line);
  background: var(--unto-coat-tint);
}

@media (max-width: 900px) {
  .choose {
    grid-template-columns: minmax(0, 1fr);
  }

  .settle {
    border-left: 0;
  }
}
</style>
