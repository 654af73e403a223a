<script setup lang="ts">
import { COMPOUND_KINDS, CONTAINER_KINDS, HEAD_KINDS, SUBSTRATE_KINDS, usualBody } from '@unto/domain';
import Button from 'primevue/button';
import { v4 as uuid } from 'uuid';
import { computed, watch } from 'vue';
import { useRouter } from 'vue-router';
import { useNotices } from '../stores/notices';
import { useOutbox } from '../stores/outbox';
import { useShop } from '../stores/shop';
import GradeMark from '../evidence/GradeMark.vue';
import { choicesOf } from '../ui/choices';
import ChoiceField from '../ui/ChoiceField.vue';
import FormNote from '../ui/FormNote.vue';
import NumberField from '../ui/NumberField.vue';
import PageHead from '../ui/PageHead.vue';
import PickOne from '../ui/PickOne.vue';
import TextField from '../ui/TextField.vue';
import { useForm } from '../ui/useForm';
import { useUnits } from '../ui/useUnits';
import {
  beginItems,
  beginSchema,
  containerOf,
  emptyBegin,
  finishChoices,
  headKindOf,
  headNameOf,
  layerChoices,
  NO_COMPOUND,
  UNIT_SETS,
  type BeginDraft,
} from './begin-form';

/** The first page of an empty workshop: who works here, what stands on the bench, what is in the cupboard, what is marked. */
const shop = useShop();
const outbox = useOutbox();
const notices = useNotices();
const router = useRouter();
const units = useUnits();
const form = useForm<BeginDraft>(
  beginSchema,
  () => emptyBegin(shop.workshop!, shop.operator?.name ?? shop.atWork[0]?.name ?? ''),
  { draft: 'begin' },
);
const { values, busy } = form;

const kindsOf = (kinds: readonly { key: string; name: string; about: string }[]) =>
  kinds.map(({ key, name, about }) => ({ value: key, label: `${name} · ${about}` }));
const HEADS = kindsOf(HEAD_KINDS);
const COMPOUNDS = [...kindsOf(COMPOUND_KINDS), { value: NO_COMPOUND, label: 'No compound · marked bare' }];
const MATERIALS = kindsOf(SUBSTRATE_KINDS);
const CONTAINERS = kindsOf(CONTAINER_KINDS);

const head = computed(() => headKindOf(values.value.headKind));
const lenses = computed(() => kindsOf(head.value?.lenses ?? []));
const compound = computed(() => usualBody('compound', values.value.compoundKind));
const sprayed = computed(() => Boolean(compound.value));
watch(head, (kind) => (values.value.lens = kind?.lenses[0]?.key ?? ''));
watch(compound, (body) => (values.value.container = body ? containerOf(body.application, body.sizes[0]!.label) : ''));
const container = computed(() => usualBody('container', values.value.container));

/** Ids stay the same however often it is sent: the same beginning is made once. */
const ids: string[] = [];
const nextId = () => {
  let next = 0;
  return () => (ids[next++] ??= uuid());
};
const personId = uuid();

async function keep(): Promise<void> {
  await form.submit(async (draft) => {
    await sign(draft);
    await settle(draft);
    const answer = await outbox.send(
      'createInventoryItems',
      { body: { items: beginItems(draft, nextId()) } },
      'what the shop begins with',
    );
    notices.say('Kept. Now the first job: what is marked, and how large.');
    await router.push('/tickets/new');
    return answer;
  });
}

/** Who works here is at the bench from now on. */
async function sign({ person }: BeginDraft): Promise<void> {
  if (shop.operator) return;
  const known = shop.atWork.find(({ name }) => name === person.trim());
  if (!known) {
    const body = { id: personId, name: person.trim(), role: 'operator' };
    await outbox.send('createOperator', { body }, person.trim());
  }
  shop.operatorId = known?.id ?? personId;
}

async function settle({ units: set, currency, workshop }: BeginDraft): Promise<void> {
  const now = shop.workshop!;
  const zone = Intl.DateTimeFormat().resolvedOptions().timeZone;
  const body = { ...now, ...UNIT_SETS[set], currency: currency.trim(), name: workshop.trim(), timeZone: zone };
  if (JSON.stringify(body) === JSON.stringify(now)) return;
  await outbox.send('changeWorkshop', { body }, 'the settings of the shop');
}

const usual = (value: string | undefined) => (value ? `Usual: ${value}.` : '');
const UNIT_CHOICES = [
  { value: 'metric' as const, label: 'mm, g' },
  { value: 'inch' as const, label: 'in, oz' },
];
</script>

<template>
  <PageHead
    title="Begin"
    about="Ten minutes to a proved setting. Leave empty what you do not know: it is reckoned with what is usual."
  />
  <form class="begin" novalidate @submit.prevent="keep">
    <FormNote />
    <fieldset>
      <legend><span class="no">1</span> Who works here</legend>
      <TextField name="person" label="Your name" test-id="begin-person" />
      <TextField name="workshop" label="Workshop" test-id="begin-workshop" />
      <TextField name="currency" label="Currency" hint="As it stands behind a price." test-id="begin-currency" />
      <PickOne v-model="values.units" label="Measured in" :options="UNIT_CHOICES" test-id="begin-units" />
    </fieldset>
    <fieldset>
      <legend><span class="no">2</span> What stands on the bench</legend>
      <ChoiceField
        name="headKind"
        class="wide"
        label="Kind of machine and head"
        :options="HEADS"
        placeholder="Choose the nearest"
        test-id="begin-head"
      />
      <template v-if="head">
        <TextField
          name="headName"
          label="What you call it"
          :hint="`Empty: “${headNameOf(values)}”.`"
          test-id="begin-head-name"
        />
        <NumberField
          name="ratedW"
          label="Watts on its label"
          unit="W"
          optional
          :hint="usual(`${head.body.ratedW} W`)"
          test-id="begin-watts"
        />
        <NumberField
          name="topSpeedMmPerS"
          label="Top speed"
          quantity="speed"
          optional
          :hint="usual(units.text('speed', head.machine.topSpeedMmPerS))"
          test-id="begin-top-speed"
        />
        <ChoiceField
          name="lens"
          label="Lens"
          :options="lenses"
          hint="Focal length, engraved on its rim."
          test-id="begin-lens"
        />
      </template>
    </fieldset>
    <fieldset>
      <legend><span class="no">3</span> What is in the cupboard</legend>
      <ChoiceField
        name="compoundKind"
        class="wide"
        label="Kind of compound"
        :options="COMPOUNDS"
        placeholder="Choose the nearest"
        test-id="begin-compound"
      />
      <template v-if="sprayed">
        <TextField name="compoundName" label="Name on its label" test-id="begin-compound-name" />
        <ChoiceField name="container" label="It comes in" :options="CONTAINERS" test-id="begin-container" />
        <NumberField
          name="netG"
          label="Net contents"
          quantity="mass"
          optional
          :hint="usual(container ? units.text('mass', container.netG) : undefined)"
          test-id="begin-net"
        />
        <NumberField
          name="price"
          :label="`Price of it, ${values.currency}`"
          optional
          hint="For what a piece costs."
          test-id="begin-price"
        />
      </template>
    </fieldset>
    <fieldset>
      <legend><span class="no">4</span> What you mark</legend>
      <ChoiceField
        name="material"
        class="wide"
        label="Material"
        :options="MATERIALS"
        placeholder="Choose the nearest"
        test-id="begin-material"
      />
      <ChoiceField
        name="layer"
        label="What lies on it"
        :options="choicesOf(layerChoices(values.material))"
        :placeholder="values.material ? 'Choose' : 'Material first'"
        hint="Bare, plated, anodised and lacquered look alike and need opposite settings."
        test-id="begin-layer"
      />
      <NumberField
        name="thicknessMm"
        label="Thickness"
        quantity="length"
        hint="By calliper."
        test-id="begin-thickness"
      />
      <ChoiceField
        name="finish"
        label="Finish"
        :options="choicesOf(finishChoices(values.material))"
        placeholder="not noted"
        test-id="begin-finish"
      />
      <NumberField
        name="blankWidthMm"
        class="first"
        label="A spare blank, width"
        quantity="length"
        optional
        hint="The first coupon is drawn to fit it."
        test-id="begin-blank-width"
      />
      <NumberField name="blankHeightMm" label="and height" quantity="length" optional test-id="begin-blank-height" />
    </fieldset>
    <footer class="foot">
      <Button type="submit" label="Keep, and open the first ticket" :loading="busy" data-test-id="begin-keep" />
      <p class="quiet small about">
        <GradeMark grade="usual" /> Everything a kind fills in counts as usual and no more, until you say better in
        Stores. More machines, compounds and materials go there too.
      </p>
    </footer>
  </form>
</template>

<style scoped>
.begin {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.8rem;
  padding: 0.9rem 1.5rem 0;
}

fieldset {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 0.6rem 1rem;
  align-content: start;
  margin: 0;
  padding: 0.3rem 1rem 0.9rem;
  border: 1px solid var(--unto-rule);
  border-radius: 4px;
  background: var(--unto-surface);
}

legend {
  padding: 0 0.4rem;
  font-weight: 700;
}

.no {
  display: inline-block;
  min-width: 1.6rem;
  margin-right: 0.3rem;
  text-align: center;
  color: var(--unto-surface);
  background: var(--unto-action);
  border-radius: 3px;
}

.first {
  grid-column: 1;
}

.wide {
  grid-column: 1 / -1;
}

.foot {
  position: sticky;
  bottom: 0;
  grid-column: 1 / -1;
  display: flex;
  gap: 1.2rem;
  align-items: center;
  padding: 0.7rem 0 0.9rem;
  background: var(--unto-ground);
}

.foot :deep(.p-button) {
  flex: none;
  min-height: 48px;
}

.about {
  margin: 0;
}

@media (max-width: 900px) {
  .begin {
    grid-template-columns: minmax(0, 1fr);
  }
}

@media (max-width: 560px) {
  .begin {
    padding: 0.6rem 0.8rem 0;
  }

  .foot {
    position: static;
    flex-wrap: wrap;
  }
}
</style>
