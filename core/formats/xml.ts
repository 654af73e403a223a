/** A text as it may stand in XML, between marks or in an attribute. */
export function escapeXml(text: string): string {
  return text.replace(/[<>&"]/g, (c) => `&#${c.charCodeAt(0)};`);
}

/** A place in mm as drawings and programs write it, to a tenth of a µm. */
export function mmText(value: number): string {
  return String(Number(value.toFixed(4)));
}
