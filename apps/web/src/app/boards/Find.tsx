import type { PersonLabel } from '@salt-circle/contracts';
import { TextField } from '../../kit/index.js';
import { NameOrder } from './nameOrder.js';
import { say } from '../../words/app.js';

/** Above a board of people: finds by name or alias, and says in which order names go. */
export function Find({ value, onChange }: { readonly value: string; readonly onChange: (value: string) => void }) {
  return (
    <div className="mb-2 flex flex-wrap gap-3">
      <div className="w-64 max-w-full">
        <TextField
          label={say('findPerson')}
          labelHidden
          placeholder={say('findPerson')}
          value={value}
          onChange={({ target }) => onChange(target.value)}
        />
      </div>
      <NameOrder />
    </div>
  );
}

/** Whether somebody goes by what was typed. */
export function isFound({ name = '', alias = '' }: PersonLabel, wanted: string): boolean {
  return `${name} ${alias}`.toLowerCase().includes(wanted.trim().toLowerCase());
}
