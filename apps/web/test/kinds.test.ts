import { allSpecies } from '@ustle/core';
import { kindFault, kindMeant, kindsLike } from '../src/shared/kinds';

const KINDS = allSpecies().map(({ key, name }) => ({ key, name }));

test('what is typed offers every kind whose name it begins a word of; a whole name is that kind, also where others begin with it', () => {
  for (const kind of KINDS) {
    expect(kindMeant(kind.name, KINDS)).toBe(kind);
    expect(kindMeant(`  ${kind.name.toUpperCase()} `, KINDS)).toBe(kind);
    for (const word of kind.name.split(/[ ,-]+/)) expect(kindsLike(word, KINDS)).toContain(kind);
  }
  const pines = kindsLike('pine', KINDS);
  expect(pines.length).toBeGreaterThan(1);
  expect(pines.every((k) => /\bpine\b/i.test(k.name))).toBe(true);
  expect(KINDS.filter((k) => /\bpine/i.test(k.name))).toEqual(pines);
});

test('where no one kind is meant nothing is taken for it: it is asked which, by names', () => {
  expect([kindMeant('', KINDS), kindMeant('pine', KINDS), kindMeant('cactus', KINDS)]).toEqual([null, null, null]);
  expect(kindFault('', KINDS)).toBe('Which kind of tree is it?');
  expect(kindFault('pine', KINDS)).toContain(kindsLike('pine', KINDS)[0]!.name);
  expect(kindFault(' cactus', KINDS)).toMatch(/^No kind here is called "cactus"/);
  expect(kindFault(KINDS[0]!.name, KINDS)).toBeNull();
});
