import { usualFor } from '@/core/locale/locale';
import { renderToStaticMarkup } from 'react-dom/server';
import type { Day } from '@/core/calendar/workdays';
import { minor, type Minor } from '@/core/money/money';
import { NOTHING, type Amounts } from '@/core/tab/stages';
import { EffectList } from './EffectList';
import { YardProvider } from '../frame/YardContext';

const yard = {
  today: '2026-05-12' as Day,
  currency: 'GBP',
  rights: [],
  week: [1, 2, 3, 4, 5],
  off: [],
  unitsUnused: [],
  lists: { columns: {}, views: [] },
  locale: usualFor('en-GB'),
};

const level = (amounts: Partial<Record<keyof Amounts, number>>) => ({
  budget: minor(100_000),
  amounts: { ...NOTHING, ...(amounts as Partial<Record<keyof Amounts, Minor>>) },
});

const shown = (before: ReturnType<typeof level>, after: ReturnType<typeof level>) =>
  renderToStaticMarkup(
    <YardProvider yard={yard}>
      <EffectList effects={[{ job: '412', code: '03', codeName: 'Electrical', before, after }]} />
    </YardProvider>,
  );
const words = (html: string) =>
  html
    .replaceAll(/<[^<>]*>/g, ' ')
    .replaceAll(/\s+/g, ' ')
    .trim();

describe('what is done to a budget', () => {
  it('is drawn before and after, with what becomes of the headroom', () => {
    const html = shown(level({ planned: 90_000 }), level({ drafted: 96_000 }));
    expect(words(html)).toBe('412 03 Electrical £ 40.00 left before after headroom 100.00 → 40.00');
    expect(html.match(/role="img"/g)).toHaveLength(2);
    expect(html).toContain('412 03 Electrical, before: budget £ 1,000; planned £ 900; £ 100 headroom.');
    expect(html).toContain('412 03 Electrical, after: budget £ 1,000; drafted £ 960; £ 40 headroom.');
  });

  it('leaves the headroom out where only the stage changes', () => {
    const html = shown(level({ received: 50_000 }), level({ actual: 50_000 }));
    expect(words(html)).toBe('412 03 Electrical £ 500.00 left before after');
  });

  it('says by how much a budget ends over, in the colour of a warning', () => {
    const html = shown(level({ actual: 99_000 }), level({ actual: 101_550 }));
    expect(words(html)).toContain('£ 15.50 over');
    expect(words(html)).toContain('headroom 10.00 → −15.50');
    expect(html).toContain('text-brick');
  });

  it('is drawn once where nothing moves: how the budget stands', () => {
    const html = shown(level({ actual: 20_000 }), level({ actual: 20_000 }));
    expect(words(html)).toBe('412 03 Electrical £ 800.00 left now');
    expect(html.match(/role="img"/g)).toHaveLength(1);
  });

  it('leads to the postings of its figure', () =>
    expect(shown(level({}), level({}))).toContain('href="/jobs/412?figure=03"'));

  it('tells the tightest dozen of many, and how many more there are', () => {
    const many = Array.from({ length: 15 }, (_, k) => ({
      ...{ job: String(400 + k), code: '03', codeName: 'Electrical' },
      ...{ before: level({}), after: level({ drafted: k * 10_000 }) },
    }));
    const told = words(
      renderToStaticMarkup(
        <YardProvider yard={yard}>
          <EffectList effects={many} />
        </YardProvider>,
      ),
    );
    expect([...told.matchAll(/4\d\d(?= 03)/g)].map(([job]) => job).slice(0, 2)).toEqual(['414', '413']);
    expect(told.match(/4\d\d 03/g)).toHaveLength(12);
    expect(told).toContain('3 more budgets');
  });
});
