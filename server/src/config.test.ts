import { describe, expect, it } from 'vitest';
import { readConfig } from './config.ts';

const base = { DATABASE_URL: 'postgres://u:p@127.0.0.1:5432/x' };

describe('settings', () => {
  it('have their usual values, and empty ones are none', () => {
    const usual = readConfig({ ...base, PORT: '', HOST: '', LOG_LEVEL: '' });
    expect(usual).toMatchObject({
      port: 4600,
      host: '127.0.0.1',
      isOpen: false,
      hosts: [],
      logLevel: 'info',
    });
    expect(readConfig({ ...base, YELLOW_PIN_HOSTS: 'shop, shop.local ,' }).hosts).toEqual([
      'shop',
      'shop.local',
    ]);
  });

  it.each(['localhost', '127.0.0.1', '127.1.2.3', '::1'])('%s is loopback', (HOST) => {
    expect(readConfig({ ...base, HOST }).isOpen).toBe(false);
  });

  it.each(['0.0.0.0', '::', '192.168.1.5', 'shop', '127.0.0.1.evil.example', '1127.0.0.1'])(
    '%s is the network: refused until somebody says so',
    (HOST) => {
      expect(() => readConfig({ ...base, HOST })).toThrow(/HOST is refused/);
      expect(readConfig({ ...base, HOST, YELLOW_PIN_OPEN_NETWORK: 'yes' }).isOpen).toBe(true);
    },
  );

  it.each([
    [{ DATABASE_URL: 'mysql://x' }, /DATABASE_URL/],
    [{ YELLOW_PIN_OPEN_NETWORK: 'sure' }, /neither yes nor no/],
    [{ YELLOW_PIN_STEP_LIMIT_MB: '-1' }, /YELLOW_PIN_STEP_LIMIT_MB/],
    [{ YELLOW_PIN_READ_SECONDS: 'soon' }, /YELLOW_PIN_READ_SECONDS/],
  ])('%o is said in one line, by its name', (env, line) => {
    expect(() => readConfig({ ...base, ...env })).toThrow(line);
    expect(() => readConfig({ ...base, ...env })).not.toThrow(/\n/);
  });
});
