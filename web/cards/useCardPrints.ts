import type { CardPrints } from '@unto/core';
import type { Card } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import { computed } from 'vue';
import { api } from '../api/client';
import { KEYS } from '../api/keys';

/** What is known of the shop's reference cards. */
export function useCardPrints() {
  const { data, refresh } = useQuery({ key: KEYS.cards(), query: () => api.call('listCards', {}) });
  const cards = computed<readonly Card[]>(() => data.value ?? []);
  const prints = computed<CardPrints>(() => Object.fromEntries(cards.value.map(({ size, print }) => [size, print])));
  /** The prints once they are there. @throws Unreachable */
  async function known(): Promise<CardPrints> {
    const { status, error } = await refresh(true);
    if (status === 'error') throw error;
    return JSON.parse(JSON.stringify(prints.value)) as CardPrints;
  }
  return { cards, prints, known };
}
