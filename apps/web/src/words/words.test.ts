import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import { catalogues, checkCatalogue } from '@salt-circle/core';

const files = readdirSync(__dirname).filter((file) => file.endsWith('.ts') && !/\.(test|spec)\./.test(file));
for (const file of files) jest.requireActual(join(__dirname, file));

it('what pages say are whole sentences that can be read', () => {
  const ours = [...catalogues()].filter(([area]) => !area.includes('.'));
  expect(ours.length).toBeGreaterThan(25);
  const wrong = ours.flatMap(([area, english]) => checkCatalogue(english, 'en-GB').map((line) => `${area}: ${line}`));
  expect(wrong).toEqual([]);
});
