import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { getMetadataStorage } from 'class-validator';
import * as contracts from './index.js';
import { LIMITS } from './limits.js';

const FOLDER = join(import.meta.dirname, 'requests');

describe('all requests', () => {
  const classes = Object.values(contracts).filter(
    (one): one is Extract<typeof one, new () => unknown> => typeof one === 'function' && /^class/.test(String(one)),
  );

  it('have fewer fields than the front gate lets through, none of them a surprise to validation', () => {
    expect(classes.length).toBeGreaterThan(40);
    for (const one of classes) {
      const found = getMetadataStorage().getTargetValidationMetadatas(one, '', false, false);
      const fields = new Set(found.map(({ propertyName }) => propertyName));
      expect([one.name, fields.size > 0, fields.size <= LIMITS.keys]).toEqual([one.name, true, true]);
    }
  });

  it('take an object only where one is wanted, not a list, which would pass without a look at it', () => {
    let nested = 0;
    for (const one of classes) {
      const all = getMetadataStorage().getTargetValidationMetadatas(one, '', false, false);
      for (const { propertyName, each } of all.filter(({ type }) => type === 'nestedValidation')) {
        nested += 1;
        const checked = all.some(
          (rule) =>
            rule.propertyName === propertyName && rule.name === 'isObject' && Boolean(rule.each) === Boolean(each),
        );
        expect([one.name, propertyName, checked]).toEqual([one.name, propertyName, true]);
      }
    }
    expect(nested).toBeGreaterThan(20);
  });

  it('take null only where their type says so: what is optional may be missing, not null', () => {
    const files = readdirSync(FOLDER).filter((name) => name.endsWith('.ts') && !name.endsWith('.test.ts'));
    const optional = files.flatMap((name) => {
      const text = readFileSync(join(FOLDER, name), 'utf8');
      return [...text.matchAll(/@IsOptional\(\)[\s\S]*?\n {2}(\w+[?!]: [^;]+);/g)].map((match) => match[1] ?? '');
    });
    expect(optional.length).toBeGreaterThan(10);
    expect(optional.filter((field) => !field.includes('| null'))).toEqual([]);
  });
});
