import type { PersonLabel } from '@salt-circle/contracts';
import { byFamilyName } from '@salt-circle/core';
import { Select } from '../../kit/index.js';
import { nameOrderChanged, selectNameOrder } from '../layoutSlice.js';
import { useAppDispatch, useAppSelector } from '../store.js';
import { say } from '../../words/app.js';

/** What lists of people are put in order by, as whoever looks has chosen. */
export function useNameKey(): (label: Pick<PersonLabel, 'name'>) => string {
  const order = useAppSelector(selectNameOrder);
  return ({ name = '' }) => (order === 'family' ? byFamilyName(name) : name);
}

/** The choice, kept in this browser. */
export function NameOrder() {
  const order = useAppSelector(selectNameOrder);
  const dispatch = useAppDispatch();
  return (
    <Select
      label={say('orderOfNames')}
      labelHidden
      value={order}
      options={[
        ['family', say('namesByFamilyName')],
        ['written', say('namesAsWritten')],
      ]}
      onChange={(next) => dispatch(nameOrderChanged(next === 'written' ? 'written' : 'family'))}
    />
  );
}
