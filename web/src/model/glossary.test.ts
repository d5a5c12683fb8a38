import { describe, expect, it } from 'vitest';
import { GLOSSARY, lookUp, meaningOf } from './glossary';

describe('the glossary', () => {
  it('has every term once for each meaning, in order', () => {
    const keys = GLOSSARY.map(({ term, meaning }) => `${term} ${meaning}`);
    expect(new Set(keys).size).toBe(keys.length);
    const names = GLOSSARY.map(({ term }) => term.toLowerCase());
    expect(names).toEqual([...names].sort((a, b) => a.localeCompare(b, 'en', { sensitivity: 'base' })));
  });

  it('finds by name first, then by what is said', () => {
    expect(lookUp('qt')[0]?.term).toBe('Qtc');
    expect(lookUp('cone without a motor')[0]?.term).toBe('Passive radiator');
    expect(lookUp('no such thing')).toEqual([]);
    expect(meaningOf('f3')).toContain('fallen by 3 dB');
    expect(meaningOf('F4')).toBeUndefined();
  });
});
