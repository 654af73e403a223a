import { learnTransfer, USUAL_TRANSFERS, type Application, type TransferKnowledge } from '@unto/core';

/** A weighing whose parts were weighed too: what reached them, how it was laid on and by whom. */
export interface TransferSample {
  readonly value: number;
  readonly application: Application;
  readonly by: string;
}

/** Weighings of one's own from which on they stand alone. */
const OWN = 3;

/** What is known of the transfer of a compound laid on one way by somebody: from their own weighings, else from anybody's, else the usual. */
export function learntTransfer(
  samples: readonly TransferSample[],
  application: Application,
  by: string,
): TransferKnowledge {
  const alike = samples.filter((sample) => sample.application === application);
  const own = alike.filter((sample) => sample.by === by);
  return learnTransfer(
    (own.length >= OWN ? own : alike).map(({ value }) => value),
    USUAL_TRANSFERS[application],
  );
}
