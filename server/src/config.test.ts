import { describe, expect, it } from 'vitest';
import { readConfig } from './config.ts';

const base = { DATABASE_URL: 'postgres://u:p@127.0.0.1:5432/x' };

describe('settings', () => {
  it('have their usual values, and empty ones are none', () => {
    const usual = readConfig({ ...base, PORT: '', HOST: '', LOG_LEVEL: '' });
    expect(usual).toMatchObject({
      port: 4600,
      host: '127.0.0.1',
      isNetwork: false,
      hosts: [],
      logLevel: 'info',
    });
    expect(readConfig({ ...base, YELLOW_PIN_HOSTS: 'shop, shop.local ,' }).hosts).toEqual([
      'shop',
      'shop.local',
    ]);
  });

  it.each(['localhost', '127.0.0.1', '127.1.2.3', '::1'])('%s is loopback', (HOST) => {
    expect(readConfig({ ...base, HOST }).isNetwork).toBe(false);
  });

  it.each(['0.0.0.0', '::', '192.168.1.5', 'shop', '127.0.0.1.evil.example', '1127.0.0.1'])(
    '%s is the network: everybody signs in',
    (HOST) => expect(readConfig({ ...base, HOST }).isNetwork).toBe(true),
  );

  it('the first person has a name and a password, or is none', () => {
    const first = { YELLOW_PIN_FIRST_PERSON: ' Ada ', YELLOW_PIN_FIRST_PASSWORD: 'ten letters' };
    expect(readConfig({ ...base, ...first }).first).toEqual({ name: 'Ada', password: 'ten letters' });
    expect(readConfig({ ...base, YELLOW_PIN_FIRST_PERSON: 'Ada' }).first).toBeNull();
  });

  it.each([
    [{ DATABASE_URL: 'mysql://x' }, /DATABASE_URL/],
    [{ YELLOW_PIN_DEMO: 'sure' }, /neither yes nor no/],
    [{ YELLOW_PIN_STEP_LIMIT_MB: '-1' }, /YELLOW_PIN_STEP_LIMIT_MB/],
    [{ YELLOW_PIN_READ_SECONDS: 'soon' }, /YELLOW_PIN_READ_SECONDS/],
  ])('%o is said in one line, by its name', (env, line) => {
    expect(() => readConfig({ ...base, ...env })).toThrow(line);
    expect(() => readConfig({ ...base, ...env })).not.toThrow(/\n/);
  });
});
