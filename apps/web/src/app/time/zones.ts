import { zoneName } from '@salt-circle/core';

/**
 * Time zones to choose from, with the one that is chosen under the name that the list has for it: browsers and servers know
 * some of them by different names.
 */
export function zoneChoices(chosen: string): {
  readonly value: string;
  readonly options: ReadonlyArray<[string, string]>;
} {
  const names = [...new Set(['UTC', ...Intl.supportedValuesOf('timeZone')])];
  const value = names.includes(chosen) ? chosen : (names.find((name) => name === zoneName(chosen)) ?? chosen);
  const listed = names.includes(value) ? names : [value, ...names];
  return { value, options: listed.map((name) => [name, name.replaceAll('_', ' ')]) };
}
