import { z } from 'zod';
import { minor } from '@/core/money/money';
import { may, ROLES } from '@/core/people/rights';
import { ACTIONS as all, ASKS } from '../../tests/support/actions';
import { must, refusedWith, TestCompany } from '../../tests/support/company';
import { defineAction, found, once, refuse, sameVersion } from './action';

let yard: TestCompany;
beforeEach(async () => {
  yard = await TestCompany.open();
});
afterEach(() => yard.close());

const rename = defineAction({
  name: 'rename',
  right: 'keep suppliers',
  input: z.object({ once, id: z.number().int(), version: z.number().int(), name: z.string().min(1, 'Enter a name.') }),
  run: async ({ trx, audit }, { id, version, name }) => {
    const supplier = sameVersion(
      found(await trx('supplier').where({ id }).first(), 'This supplier'),
      version,
      'This supplier',
    );
    await trx('supplier')
      .where({ id })
      .update({ name, version: version + 1 });
    if (name === 'forbidden') refuse('name.forbidden', 'That name is not to be had.', 'name');
    await audit({
      words: `Renamed to ${name}`,
      subjects: [
        ['supplier', id],
        ['supplier', id],
      ],
      before: supplier,
      after: { ...supplier, name },
    });
    return { name };
  },
});

const nameOf = async () => ((await yard.db('supplier').where({ id: 1 }).first('name')) as { name: string }).name;
const input = (change = {}) => ({ once: yard.once(), id: 1, version: 1, name: 'New name', ...change });

describe('an action', () => {
  it('changes, and leaves an audit record of who, when, before and after', async () => {
    expect(must(await rename(await yard.as('buyer'), input()))).toEqual({ name: 'New name' });
    expect(await yard.db('audit').first()).toMatchObject({
      action: 'rename',
      words: 'Renamed to New name',
      changes: JSON.stringify({ name: { from: 'Eelmoor Metals', to: 'New name' } }),
      day: '2026-05-12',
      personId: 1,
    });
    expect(await yard.db('auditSubject').select('kind', 'subjectId')).toEqual([{ kind: 'supplier', subjectId: 1 }]);
  });

  it('does not end a change that left no audit record', async () => {
    const silent = defineAction({
      name: 'silent',
      right: 'keep suppliers',
      input: z.object({}),
      run: async ({ trx }) => void (await trx('supplier').where({ id: 1 }).update({ name: 'Renamed in silence' })),
    });
    await expect(silent(await yard.as('buyer'), {})).rejects.toThrow(
      'silent changed something and left no audit record',
    );
    expect(await nameOf()).toBe('Eelmoor Metals');
  });

  it('is refused, not broken, by a figure that is too large and by what is not there', async () => {
    const large = defineAction({
      name: 'large',
      right: 'keep suppliers',
      input: z.object({}),
      run: async () => void minor(Number.MAX_SAFE_INTEGER + 1),
    });
    expect(refusedWith(await large(await yard.as('buyer'), {}))).toEqual(['amount.large']);
    const lost = defineAction({
      name: 'lost',
      right: 'keep suppliers',
      input: z.object({}),
      run: async ({ trx }) => void (await trx('supplier').where({ id: 1 }).update({ taxCodeId: 99 })),
    });
    expect(refusedWith(await lost(await yard.as('buyer'), {}))).toEqual(['missing']);
  });

  it('is refused without the right, before anything is read', async () => {
    expect(await rename(await yard.as('storekeeper'), input({ name: '' }))).toEqual({
      status: 'refused',
      refusals: [
        {
          code: 'right',
          message:
            'You don’t have permission to edit suppliers and items. Ask your administrator, who can change roles under People.',
        },
      ],
    });
  });

  it('tells which part of the input is wrong', async () => {
    expect(await rename(await yard.as('buyer'), input({ name: '' }))).toMatchObject({
      status: 'refused',
      refusals: [{ field: 'name', message: 'Enter a name.' }],
    });
    expect(refusedWith(await rename(await yard.as('buyer'), { ...input(), once: 'x' }))).toEqual(['input']);
  });

  it('takes everything back that it did before it was refused', async () => {
    expect(refusedWith(await rename(await yard.as('buyer'), input({ name: 'forbidden' })))).toEqual(['name.forbidden']);
    expect(await nameOf()).toBe('Eelmoor Metals');
    expect(await yard.db('audit').select('id')).toEqual([]);
  });

  it('takes everything back when it fails, and says so to the program', async () => {
    await expect(rename(await yard.as('buyer'), input({ name: 'Pellam Bearings' }))).rejects.toMatchObject({
      message: expect.stringContaining('UNIQUE') as string,
    });
    expect(await nameOf()).toBe('Eelmoor Metals');
  });

  it('shows the version that stands when somebody else was first', async () => {
    must(await rename(await yard.as('buyer'), input()));
    expect(await rename(await yard.as('manager'), input({ name: 'Other' }))).toMatchObject({
      status: 'clash',
      message: 'Someone else changed This supplier after you opened it.',
      theirs: { version: 2 },
    });
  });

  it('acts once for one key, and anew for another person or another action', async () => {
    const same = input();
    must(await rename(await yard.as('buyer'), same));
    expect(must(await rename(await yard.as('buyer'), same))).toEqual({ name: 'New name' });
    expect((await rename(await yard.as('manager'), same)).status).toBe('clash');
    expect(await yard.db('audit').select('id')).toHaveLength(1);
  });

  it('does not remember a refusal: the same form can be mended and sent again', async () => {
    const same = input({ name: 'forbidden' });
    await rename(await yard.as('buyer'), same);
    expect(must(await rename(await yard.as('buyer'), { ...same, name: 'Fine' }))).toEqual({ name: 'Fine' });
  });

  it('says that a thing is gone', async () => {
    expect(refusedWith(await rename(await yard.as('buyer'), input({ id: 999 })))).toEqual(['missing']);
  });
});

describe('every action', () => {
  it('is known here', () => expect(all.map((a) => a.name).sort()).toEqual(Object.keys(ASKS).sort()));

  it.each(Object.entries(ASKS))('%s is refused to every role without the right to %s', async (name, right) => {
    const action = all.find((a) => a.name === name);
    for (const role of ROLES.filter((r) => r !== 'field' && !may({ roles: [r] }, right))) {
      const outcome = await action?.(await yard.as(role), {} as never);
      expect({ role, outcome: outcome && refusedWith(outcome) }).toEqual({ role, outcome: ['right'] });
    }
  });

  it.each(Object.keys(ASKS))('%s refuses input that is nothing like a form', async (name) => {
    const action = all.find((a) => a.name === name);
    const role = ROLES.find((r) => r !== 'field' && may({ roles: [r] }, ASKS[name] ?? 'see jobs')) ?? 'manager';
    for (const rubbish of [null, 7, 'text', [], { once: { $gt: '' } }, { id: '1; drop table job' }]) {
      const outcome = await action?.(await yard.as(role), rubbish as never);
      expect(outcome?.status).toBe('refused');
    }
  });
});
