/** Keys that work everywhere, and those of single views; the list under “?” is made from this. */
export const KEYS = [
  { keys: '1 – 8', where: 'Ticket', does: 'go to a station' },
  { keys: 'arrows', where: 'Coupon', does: 'go from cell to cell' },
  { keys: 'T', where: 'Coupon', does: 'too little' },
  { keys: 'H', where: 'Coupon', does: 'holds' },
  { keys: 'M', where: 'Coupon', does: 'too much' },
  { keys: 'Delete', where: 'Coupon', does: 'take the mark of a cell off before it is kept' },
  { keys: 'Enter', where: 'Forms', does: 'keep the entries' },
  { keys: 'Esc', where: 'Sheets', does: 'close' },
  { keys: '/', where: 'Everywhere', does: 'find anything' },
  { keys: 'D', where: 'Mark', does: 'count the piece under the beam' },
  { keys: '+ − 0, arrows', where: 'On a chart', does: 'zoom, show all, move' },
  { keys: '?', where: 'Everywhere', does: 'this list' },
] as const;

/** True while somebody types, so that letters are letters. */
export function isTyping(event: KeyboardEvent): boolean {
  const target = event.target as HTMLElement | null;
  return (
    Boolean(target?.closest('input, textarea, select, [contenteditable], [role="combobox"], .p-select')) ||
    event.ctrlKey ||
    event.metaKey ||
    event.altKey
  );
}
