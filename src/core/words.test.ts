import { counted, someOf } from './words';

describe('a number with its word', () => {
  it.each([
    [0, 'line', '0 lines'],
    [1, 'line', '1 line'],
    [2, 'working day', '2 working days'],
    [20_000, 'row', '20,000 rows'],
  ])('%d', (n, word, said) => expect(counted(n, word)).toBe(said));
});

it.each([
  [[], ''],
  [['tube'], 'tube'],
  [['tube', 'bar', 'bolts', 'nuts'], 'tube, bar, bolts and nuts'],
  [['tube', 'bar', 'bolts', 'nuts', 'pins'], 'tube, bar, bolts and 2 more'],
])('some of %j', (all, said) => expect(someOf(all)).toBe(said));
