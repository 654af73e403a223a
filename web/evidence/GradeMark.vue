<script setup lang="ts">
import type { Figure, Grade } from '@unto/core';
import { computed } from 'vue';
import { useEvidence } from './evidence';
import { GRADE_WORDS } from '../ui/format';

/** The grade of a number: glyph and word. With a figure behind it, pressing it opens the evidence sheet. */
const props = defineProps<{ grade?: Grade; figure?: Figure | null; title?: string; short?: boolean }>();
const evidence = useEvidence();
const grade = computed<Grade>(() => props.figure?.grade ?? props.grade ?? 'guess');
const word = computed(() => GRADE_WORDS[grade.value]);
const meaning = computed(() => `${word.value.word}: what ${props.title ?? 'this'} rests on`);

const GLYPHS: Record<Grade, string> = {
  measured: 'M1 2v8M11 2v8M1 6h10',
  proved: 'M6 0.5 11.5 6 6 11.5 0.5 6Z',
  // A lozenge with an eye in it.
  'proved by eye': 'M6 0.5 11.5 6 6 11.5 0.5 6ZM4.4 6a1.6 1.6 0 1 0 3.2 0a1.6 1.6 0 1 0 -3.2 0',
  seen: 'M6 1 11 6 6 11 1 6Z',
  carried: 'M1 6h9M6.5 2.5 10 6 6.5 9.5',
  stated: 'M1.5 3h9M1.5 6h9M1.5 9h5',
  usual: 'M2 6a4 4 0 1 0 8 0a4 4 0 1 0-8 0',
  guess: 'M3 4a3 3 0 1 1 4 3q-1 .5-1 1.4M6 10.6v.6',
};
const COLOURS: Partial<Record<Grade, string>> = {
  proved: 'var(--unto-bonded)',
  'proved by eye': 'var(--unto-bonded)',
  seen: 'var(--unto-bonded)',
  carried: 'var(--unto-action)',
};
</script>

<template>
  <component
    :is="figure ? 'button' : 'span'"
    class="grade"
    :class="{ short }"
    :type="figure ? 'button' : undefined"
    :title="word.text"
    :aria-label="figure && !short ? meaning : undefined"
    @click="figure && evidence.show(title ?? 'Evidence', figure)"
  >
    <svg viewBox="0 0 12 12" width="11" height="11" aria-hidden="true">
      <path
        :d="GLYPHS[grade]"
        :fill="grade === 'proved' ? COLOURS.proved : 'none'"
        :stroke="COLOURS[grade] ?? 'currentColor'"
        stroke-width="1.6"
      />
    </svg>
    <template v-if="!short">{{ word.word }}</template>
    <slot />
    <span v-if="short" class="visually-hidden">{{ figure ? meaning : word.word }}</span>
  </component>
</template>

<style scoped>
.grade {
  display: inline-flex;
  align-items: center;
  gap: 0.3rem;
  padding: 0.1rem 0;
  border: 0;
  border-bottom: 1px dotted var(--unto-quiet);
  background: none;
  color: var(--unto-quiet);
  font-size: 0.8rem;
  line-height: 1.3;
  white-space: nowrap;
}

button.grade {
  cursor: pointer;
}

.grade svg {
  flex: none;
}

.grade.short {
  position: relative;
  border-bottom: 0;
}

button.grade.short:hover {
  text-decoration: underline;
}

button.grade:hover {
  color: var(--unto-ink);
  border-bottom-style: solid;
}
</style>
