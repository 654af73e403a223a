import { planCoat, type CoatPlan, type TransferKnowledge } from '@unto/core';
import type { CompoundBody, ContainerBody, InventoryItem, Ticket } from '@unto/contract';
import { usualFactor, usualFactors } from '../kinds/usual-factors.js';
import { bandOf } from './film-band.js';

/** Area to coat on one piece of a ticket, margin included, mm². */
export function coatedAreaMm2(ticket: Pick<Ticket, 'markWidthMm' | 'markHeightMm' | 'coatMarginMm'>): number {
  return (ticket.markWidthMm + 2 * ticket.coatMarginMm) * (ticket.markHeightMm + 2 * ticket.coatMarginMm);
}

/** The coat of some pieces of a ticket with a compound, priced by the container it is taken from, or else by the largest to be had. */
export function coatPlanFor(
  compound: InventoryItem<'compound'>,
  ticket: Pick<Ticket, 'markWidthMm' | 'markHeightMm' | 'coatMarginMm'>,
  pieces: number,
  transfer: TransferKnowledge,
  container?: Pick<ContainerBody, 'priceMinor' | 'netG' | 'usual'> | null,
): CoatPlan {
  const { body } = compound;
  return planCoat(
    {
      ...body,
      band: bandOf(body),
      container: container ?? largestSize(body),
      usual: {
        ...usualFactors('compound', body, ['volumeSolids', 'massSolids', 'dryDensity']),
        band: usualFactor('compound', body, 'dryFilmMinUm') ?? usualFactor('compound', body, 'dryFilmMaxUm'),
        price: container ? usualFactor('container', container, 'priceMinor') : usualFactor('compound', body, 'sizes'),
      },
      ref: { kind: 'compound', id: compound.id, revision: compound.revision },
    },
    { areaPerPieceMm2: coatedAreaMm2(ticket), pieces, transfer },
  );
}

function largestSize(compound: CompoundBody): { priceMinor: number; netG: number } {
  return [...compound.sizes].sort((a, b) => b.netG - a.netG)[0]!;
}
