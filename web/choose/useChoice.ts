import { useLocalStorage } from '@vueuse/core';
import {
  CRITERIA,
  CRITERION_INFO,
  drawValueScores,
  rankOptions,
  SOFT_CRITERIA,
  switchingPoints,
  type SwitchingPoint,
  type Criterion,
  type RankedOption,
  type Weights,
} from '@unto/core';
import type { ChoiceOptionView } from '@unto/contract';
import { useQuery } from '@pinia/colada';
import { computed, ref } from 'vue';
import { api, PATIENT_MS } from '../api/client';
import { KEYS } from '../api/keys';
import { useShop } from '../stores/shop';

/** Weights where no profile was made yet: every measured criterion alike. */
const PLAIN = Object.fromEntries(
  CRITERIA.map((criterion) => [criterion, SOFT_CRITERIA.includes(criterion) ? 0 : 5]),
) as unknown as Record<Criterion, number>;

/** A weight that counts nothing now can be moved to 10; one that counts can be made so many times heavier by lowering the others. */
const REACH = { weight: 10, factor: 20 };
function withinReach({ factor, weight }: SwitchingPoint): boolean {
  return factor === Infinity ? weight <= REACH.weight : factor <= REACH.factor;
}

/** The options of a ticket, the shop's weights, and the ranking that follows them at once. */
export function useChoice(ticketId: () => string) {
  const shop = useShop();
  const { data } = useQuery({
    key: () => KEYS.choice(ticketId()),
    query: () => api.call('choice', { params: { id: ticketId() } }, { withinMs: PATIENT_MS }),
  });
  const page = computed(() => data.value ?? null);
  const profileId = useLocalStorage<string | null>('unto-profile', null);
  const weights = ref<Record<Criterion, number>>({ ...PLAIN });
  const profiles = computed(() => shop.inUse('profile'));
  const profile = computed(() => profiles.value.find(({ id }) => id === profileId.value) ?? null);

  /** Takes a profile's weights. */
  function follow(id: string | null): void {
    const found = profiles.value.find((item) => item.id === id) ?? profiles.value[0] ?? null;
    profileId.value = found?.id ?? null;
    weights.value = Object.fromEntries(
      CRITERIA.map((criterion) => [criterion, found?.body[criterion] ?? PLAIN[criterion]]),
    ) as Record<Criterion, number>;
  }
  follow(profileId.value);

  /** Whether the weights were moved off the profile they came from. */
  const own = computed(
    () =>
      profile.value !== null &&
      CRITERIA.some((criterion) => weights.value[criterion] !== profile.value!.body[criterion]),
  );
  const soft = ref(false);
  const criteria = computed(() =>
    CRITERIA.filter((criterion) => soft.value || !SOFT_CRITERIA.includes(criterion) || weights.value[criterion] > 0),
  );

  const open = computed(() => page.value?.options.filter(({ judgement }) => judgement.verdict !== 'blocked') ?? []);
  const withheld = computed(() => page.value?.options.filter(({ judgement }) => judgement.verdict === 'blocked') ?? []);
  const drawn = computed(() => (open.value.length && page.value ? drawValueScores(open.value, page.value.seed) : null));
  const counts = computed(() => CRITERIA.some((criterion) => weights.value[criterion] > 0));
  const ranked = computed<readonly RankedOption[]>(() =>
    drawn.value && counts.value ? rankOptions(drawn.value, weights.value as Weights) : [],
  );
  const switching = computed(() => switchingPoints(ranked.value, weights.value as Weights).filter(withinReach));
  const view = (id: string): ChoiceOptionView => page.value!.options.find((option) => option.id === id)!;

  /** The best of each criterion among what is offered, where somebody knows it. */
  const best = computed(() => {
    const found = {} as Partial<Record<Criterion, string>>;
    for (const criterion of CRITERIA) {
      const known = ranked.value.filter(({ option }) => option.estimates[criterion].figure);
      const valueScore = (row: RankedOption) => row.terms.find((term) => term.criterion === criterion)!.valueScore;
      const top = [...known].sort((a, b) => valueScore(b) - valueScore(a));
      if (top.length > 1 && valueScore(top[0]!) > valueScore(top[1]!) + 1e-9) found[criterion] = top[0]!.option.id;
    }
    return found;
  });

  return {
    page,
    weights,
    profiles,
    profile,
    profileId,
    own,
    soft,
    criteria,
    ranked,
    withheld,
    switching,
    best,
    counts,
    view,
    follow,
    labelOf: (criterion: Criterion) => CRITERION_INFO[criterion].label,
  };
}
