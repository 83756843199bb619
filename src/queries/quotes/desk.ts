import { OPEN_QUOTE_STATES } from '@/core/quotes/winning';
import type { Db } from '@/store/db';
import { rowsOf } from '@/store/rows';
import { SHOWN, type Group, type Waiting } from '../frame/waiting';
import { countOf } from '../sql';

export async function quotes(db: Db): Promise<Group> {
  const open = () =>
    db('quote as q').join('job as j', 'j.id', 'q.jobId').whereIn('q.state', OPEN_QUOTE_STATES).whereNull('q.revisedAs');
  const found = await rowsOf<{
    number: string;
    state: string;
    name: string;
    job: string;
  }>(open().orderBy('q.id', 'desc').limit(SHOWN).select('q.number', 'q.state', 'j.name', { job: 'j.number' }));
  const rows = found.map((q): Waiting => ({
    word: 'Quote',
    weight: 'good',
    text: `${q.number}, ${q.name}: ${q.state === 'writing' ? 'in preparation' : 'with customer'}`,
    step: 'Open quote',
    href: `/jobs/${q.job}/quote`,
  }));
  return { title: 'Quotes', href: '/jobs?state=all', count: await countOf(open()), rows };
}
