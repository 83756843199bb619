import { counted } from './words';

describe('a number with its word', () => {
  it.each([
    [0, 'line', '0 lines'],
    [1, 'line', '1 line'],
    [2, 'working day', '2 working days'],
    [20_000, 'row', '20,000 rows'],
  ])('%d', (n, word, said) => expect(counted(n, word)).toBe(said));
});
