import type { ShelfField, InventoryItem } from '@unto/contract';
import { formatMoney, withUnit } from '../ui/format';
import type { Units } from '../ui/useUnits';
import { isMoney } from './kinds';

/** A field of an item as a person reads it; “–” for what was left out. */
export function shownValue(
  field: ShelfField,
  item: InventoryItem,
  shop: { nameOf: (id: string) => string; currency: string; units: Units },
): string {
  const value = (item.body as unknown as Record<string, unknown>)[field.key];
  if (value === null || value === undefined || value === '' || (Array.isArray(value) && !value.length)) return '–';
  switch (field.kind) {
    case 'link':
      return shop.nameOf(value as string);
    case 'yes':
      return value ? 'yes' : 'no';
    case 'many':
      return (value as string[]).join(', ');
    case 'file':
      return (value as { name: string }).name;
    case 'rows':
      return (value as Record<string, unknown>[])
        .map((row) =>
          field.columns
            .map(({ key }) => (isMoney(key) ? formatMoney(Number(row[key]), shop.currency) : String(row[key])))
            .join(' · '),
        )
        .join('\n');
    default: {
      if (typeof value !== 'number') return String(value);
      if (field.share) return withUnit(100 * value, '%');
      const shown = shop.units.plain(value, field.unit);
      return isMoney(field.key)
        ? `${formatMoney(value, shop.currency)}${field.unit ? ` ${field.unit}` : ''}`
        : withUnit(shown.value, shown.unit, 5);
    }
  }
}
