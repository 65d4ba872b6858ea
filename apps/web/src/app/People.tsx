import type { PersonLabel } from '@salt-circle/contracts';

/** A person in a few words, as the one who looks may know them. */
export function labelWords({ name, alias, you, role }: PersonLabel): string {
  if (role !== undefined) return `${name ?? 'you'} (${role})`;
  if (you === true) return 'you';
  return name ?? alias ?? '';
}

/** Name first, the alias beside it where both are known. */
export function Person({ label }: { readonly label: PersonLabel }) {
  return (
    <>
      <span className="font-medium">{labelWords(label)}</span>
      {label.name !== undefined && label.alias !== undefined && (
        <span className="ml-1.5 font-normal text-ink-soft">{label.alias}</span>
      )}
    </>
  );
}
