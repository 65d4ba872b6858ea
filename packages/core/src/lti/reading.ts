/** What another system says is looked at before it is believed: each returns null where it is not of that kind. */

export type Fields = Readonly<Record<string, unknown>>;

export function fieldsOf(value: unknown): Fields | null {
  return typeof value === 'object' && value !== null && !Array.isArray(value) ? (value as Fields) : null;
}

/** @param most UTF-16 code units; what is longer is no text that is expected here */
export function textOf(value: unknown, most = 1_000): string | null {
  return typeof value === 'string' && value.trim() !== '' && value.length <= most ? value.trim() : null;
}

export function textsOf(value: unknown): string[] {
  return Array.isArray(value) ? value.flatMap((one) => textOf(one) ?? []) : [];
}

/** By its parts, where the whole is not given; cut to what a name may have. */
export function nameIn(fields: Fields, most: number): string | null {
  const whole = textOf(fields['name']);
  const parts = [textOf(fields['given_name']), textOf(fields['family_name'])].filter((one) => one !== null).join(' ');
  return (whole ?? (parts === '' ? null : parts))?.slice(0, most) ?? null;
}

/** Lower case; null for what is no address. Looser than what is sent to: it is only compared and shown. */
export function addressIn(fields: Fields): string | null {
  const email = textOf(fields['email'], 254)?.toLowerCase() ?? null;
  return email !== null && /^[^\s@]+@[^\s@.]+(?:\.[^\s@.]+)+$/.test(email) ? email : null;
}
