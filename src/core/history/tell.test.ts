import { difference } from '../difference';
import { namedIn, tellChanges, type Look } from './tell';

const look: Look = {
  own: 'GBP',
  document: 'EUR',
  name: (kind, id) => (kind === 'supplier' && id === 3 ? 'Eelmoor Metals' : undefined),
  line: (id) => (id === 45 ? 'line 2, Tube 316L' : undefined),
};
const told = (before: unknown, after: unknown) => tellChanges(difference(before, after), look);

describe('what changed, in words', () => {
  it.each<[string, object, object, object[]]>([
    ['a quantity', { keep: 360000 }, { keep: 485000 }, [{ what: 'minimum stock', from: '36', to: '48.5' }]],
    [
      'money of the company',
      { ownLimit: 0 },
      { ownLimit: 250000 },
      [{ what: 'own limit', from: '£\u202f0.00', to: '£\u202f2,500.00' }],
    ],
    [
      'money of the document',
      { net: 100 },
      { net: -2050 },
      [{ what: 'net', from: '€\u202f1.00', to: '−€\u202f20.50' }],
    ],
    ['a price', { price: 80000 }, { price: 81250 }, [{ what: 'price', from: '8.00', to: '8.125' }]],
    ['a share', { discount: 0 }, { discount: 725 }, [{ what: 'discount', from: '0 %', to: '7.25 %' }]],
    [
      'a day',
      { neededOn: null },
      { neededOn: '2026-06-10' },
      [{ what: 'needed by', from: '(empty)', to: '10/06/2026' }],
    ],
    ['a flag', { active: 1 }, { active: 0 }, [{ what: 'active', from: 'yes', to: 'no' }]],
    ['a unit', { unit: 'MTR' }, { unit: 'C62' }, [{ what: 'unit', from: 'metre', to: 'piece' }]],
    [
      'a thing by its name',
      { supplierId: null },
      { supplierId: 3 },
      [{ what: 'supplier', from: '(empty)', to: 'Eelmoor Metals' }],
    ],
    ['a thing whose name is gone', { jobId: 1 }, { jobId: 2 }, [{ what: 'job', from: 'number 1', to: 'number 2' }]],
    ['words as they stand', { note: 'a' }, { note: 'b' }, [{ what: 'note', from: 'a', to: 'b' }]],
    ['roles', { roles: ['buyer'] }, { roles: ['buyer', 'lead'] }, [{ what: 'role 2', to: 'lead' }]],
    [
      'a line by what it is called',
      { lines: [{ id: 45, quantity: 10000 }] },
      { lines: [{ id: 45, quantity: 20000 }] },
      [{ what: 'line 2, Tube 316L, quantity', from: '1', to: '2' }],
    ],
    [
      'a line that is gone, by its id',
      { lines: [{ id: 7, quantity: 10000 }] },
      { lines: [] },
      [{ what: 'line 7, quantity', from: '1' }],
    ],
    ['what only the file needs not at all', { version: 1, id: 3 }, { version: 2, id: 3 }, []],
    ['what was empty and is', { note: '' }, { note: null }, []],
  ])('tells %s', (_, before, after, changes) => expect(told(before, after)).toEqual(changes));

  it('tells what is new field by field, and nothing of what is empty', () => {
    const after = {
      number: '405',
      leadId: null,
      site: '',
      free: false,
      received: 0,
      dueOn: '2026-04-13',
      tags: [],
      lines: [{ price: 10000 }],
    };
    expect(tellChanges({ '': { to: after } }, look)).toEqual([
      { what: 'number', to: '405' },
      { what: 'due', to: '13/04/2026' },
      { what: 'line 1, price', to: '1.00' },
    ]);
  });

  it('knows which things it speaks of', () => {
    const named = namedIn(difference({ supplierId: 3, lines: [{ id: 1, jobId: 2 }] }, { supplierId: 4, lines: [] }));
    expect([...named].map(([kind, ids]) => [kind, [...ids].sort()])).toEqual([
      ['supplier', [3, 4]],
      ['job', [2]],
    ]);
  });
});
