import { may, RIGHTS, ROLES, type Right, type Role } from './rights';

const who = (...roles: Role[]) => ({ roles });
const all = Object.keys(RIGHTS) as Right[];

describe('rights', () => {
  it('keep prices from the storekeeper and the field', () => {
    expect(may(who('storekeeper'), 'see money')).toBe(false);
    expect(may(who('field'), 'see money')).toBe(false);
    expect(may(who('storekeeper'), 'receive')).toBe(true);
  });

  it('keep accounts from changing what was ordered', () => {
    expect(may(who('accounts'), 'draft orders')).toBe(false);
    expect(may(who('accounts'), 'pass differences')).toBe(true);
  });

  it('keep the buyer from passing a difference on an own order', () =>
    expect(may(who('buyer'), 'pass differences')).toBe(false));
  it('let only the administrator manage people', () =>
    expect(ROLES.filter((r) => may(who(r), 'manage people'))).toEqual(['administrator']));
  it('add up over roles, and are none without one', () => {
    expect(may(who('storekeeper', 'accounts'), 'see money')).toBe(true);
    expect(all.some((r) => may(who(), r))).toBe(false);
  });
  it('are each granted to somebody', () =>
    expect(all.filter((r) => !ROLES.some((role) => may(who(role), r)))).toEqual([]));
});
