import { CHOICES, type ChoiceKind } from '@unto/core';

/** What a setting is called by that is the best for several aims: the first of them in the usual order. */
export const mainKind = ({
  kind,
  also,
}: {
  readonly kind: ChoiceKind;
  readonly also: readonly ChoiceKind[];
}): ChoiceKind => CHOICES.find((one) => one === kind || also.includes(one))!;
