<script setup lang="ts">
import Button from 'primevue/button';
import { computed } from 'vue';
import { useTicket } from '../stores/ticket';
import ChoiceField from '../ui/ChoiceField.vue';
import FileLabel from '../ui/FileLabel.vue';
import NumberField from '../ui/NumberField.vue';
import PickOne from '../ui/PickOne.vue';
import TickField from '../ui/TickField.vue';
import ArtworkTexts from './ArtworkTexts.vue';
import type { ArtworkState } from './useArtwork';

/** The artwork of a ticket: brought, measured, laid on the piece with the texts that change; what will not come out as drawn. */
const props = defineProps<{ state: ArtworkState }>();
const { typed, artworks, artwork, centre, bringing, fault, stops, empty, keep, busy } = props.state;
const { said, file, fault: fileFault, busy: reading, bring, again } = bringing;
const ticket = useTicket();
const WORKS = [
  { value: 'both', label: 'Fills and lines' },
  { value: 'fill', label: 'Fills only' },
  { value: 'lines', label: 'Lines only' },
] as const;
const UNITS = [
  { value: null, label: 'as the file says' },
  { value: 'mm', label: 'millimetres' },
  { value: 'in', label: 'inches' },
] as const;
const CLOSED = [
  { value: 'filled', label: 'filled' },
  { value: 'followed', label: 'followed as lines' },
] as const;
const isPicture = computed(() => /\.(png|jpe?g)$/i.test(file.value?.name ?? ''));
const brought = computed(() => artworks.value.map(({ id, name, kind }) => ({ value: id, label: `${name} (${kind})` })));
const current = computed(() => ticket.page?.layout ?? null);
</script>

<template>
  <h2>What is marked</h2>
  <p v-if="!artwork" class="quiet small">
    Bring the artwork as SVG, DXF, G-code, PNG or JPEG: its real size and area are measured, and times and prices follow
    it. Nothing in a file is run or fetched.
  </p>
  <div class="line">
    <FileLabel
      :label="reading ? 'Reading …' : artwork ? 'Bring another file' : 'Bring artwork'"
      accept=".svg,.dxf,.gcode,.nc,.gc,.tap,.txt,.png,.jpg,.jpeg,image/svg+xml,image/png,image/jpeg"
      :look="artwork ? 'outlined' : 'filled'"
      test-id="artwork-file"
      @brought="bring"
    />
    <ChoiceField
      v-if="brought.length > 1"
      v-model="typed.artworkId"
      class="which"
      label="Which of them"
      :options="brought"
      test-id="artwork-which"
    />
  </div>
  <p v-if="fileFault" class="fault" role="alert" data-test-id="artwork-fault">{{ fileFault }}</p>
  <details v-if="file" class="said" :open="fileFault !== ''">
    <summary>What {{ file.name }} does not say itself</summary>
    <div class="form-grid">
      <ChoiceField v-if="!isPicture" v-model="said.unit" label="Drawn in" :options="UNITS" test-id="artwork-unit" />
      <NumberField
        v-model="said.widthMm"
        optional
        label="Bring it to a width of"
        quantity="length"
        test-id="artwork-width"
      />
      <ChoiceField
        v-if="!isPicture"
        v-model="said.closed"
        label="Closed outlines of a DXF are"
        :options="CLOSED"
        test-id="artwork-closed"
      />
      <NumberField v-else v-model="said.darker" label="Marked where darker than (1 to 254)" test-id="artwork-darker" />
    </div>
    <Button outlined label="Read it so" :loading="reading" data-test-id="artwork-again" @click="again" />
  </details>
  <template v-if="artwork">
    <div class="form-grid three">
      <NumberField v-model="typed.xMm" label="From the left" quantity="length" test-id="layout-x" />
      <NumberField v-model="typed.yMm" label="From below" quantity="length" test-id="layout-y" />
      <NumberField v-model="typed.turnDeg" label="Turned by, °" test-id="layout-turn" />
    </div>
    <Button
      outlined
      size="small"
      class="middle"
      label="To the middle"
      data-test-id="layout-centre"
      @click="centre(artwork)"
    />
  </template>
  <ArtworkTexts :state="state" />
  <div class="panel-foot">
    <div class="line">
      <PickOne v-model="typed.work" bare label="Marked as" :options="WORKS" test-id="layout-work" />
      <TickField v-model="typed.outlineFirst" test-id="outline-first">outlines first</TickField>
    </div>
    <p v-if="fault" class="fault" data-test-id="layout-fault">{{ fault }}</p>
    <p v-else-if="stops" class="fault" role="status">Some pieces cannot be marked so: see their texts.</p>
    <Button
      :label="current ? 'Keep it so from now on' : 'Mark the pieces so'"
      :disabled="empty || stops || fault !== ''"
      :loading="busy"
      data-test-id="keep-layout"
      @click="keep"
    />
  </div>
</template>

<style scoped>
.line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0.7rem;
}

.which {
  flex: 1 1 12rem;
}

.said {
  padding: 0.4rem 0;
}

.middle {
  align-self: start;
}

.three {
  grid-template-columns: repeat(3, 1fr);
}
</style>
