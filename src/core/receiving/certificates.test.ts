import { wantsCertificate } from './certificates';

const [NO, YES] = [{ certificate: 0 }, { certificate: 1 }];

it.each([
  ['goods whose item always comes with one', 'goods', [NO, YES], true],
  ['goods of a line that is marked, with no item', 'goods', [YES, undefined], true],
  ['goods that nobody marked', 'goods', [NO, NO], false],
  ['a service, whatever its item says', 'service', [NO, YES], false],
  ['a charge', 'charge', [YES, undefined], false],
] as const)('it is known of %s whether a certificate has to come along', (_, kind, marked, wanted) =>
  expect(wantsCertificate(kind, ...marked)).toBe(wanted),
);
