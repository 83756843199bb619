import { renderToStaticMarkup } from 'react-dom/server';
import { minor, type Minor } from '@/core/money/money';
import { NOTHING, type Amounts } from '@/core/tab/stages';
import { levelInWords, LyingGlass, ProgressGlass, UprightGlass } from './SightGlass';

const level = (budget: number, amounts: Partial<Record<keyof Amounts, number>>) => ({
  budget: minor(budget),
  amounts: { ...NOTHING, ...(amounts as Partial<Record<keyof Amounts, Minor>>) },
});

const half = level(100_000, { actual: 20_000, received: 10_000, planned: 20_000 });
const over = level(100_000, { actual: 60_000, onOrder: 50_000, drafted: 15_000 });

/** Class and style of every stage drawn, in order. */
const drawn = (html: string) =>
  [...html.matchAll(/class="(?:[^"]* )?(st-\w+)(?: [^"]*)?" style="([^"]*)"/g)].map((m) => `${m[1]} ${m[2]}`);

describe('the sight glass, in words', () => {
  it('tells the same as the picture', () => {
    expect(levelInWords(half, 'GBP', '03 Electrical')).toBe(
      '03 Electrical: budget £ 1,000; actual £ 200, received £ 100, planned £ 200; £ 500 headroom.',
    );
  });

  it('says how much it is over', () => {
    expect(levelInWords(over, 'GBP', 'Job 412')).toBe(
      'Job 412: budget £ 1,000; actual £ 600, on order £ 500, drafted £ 150; £ 250 over.',
    );
  });

  it('says that nothing is there', () => {
    expect(levelInWords(level(5000, {}), 'EUR', 'x')).toBe('x: budget € 50; nothing bought or planned; € 50 headroom.');
  });
});

describe('the lying glass', () => {
  it('draws the stages from the most certain, to scale', () => {
    expect(drawn(renderToStaticMarkup(<LyingGlass level={half} currency="GBP" name="x" />))).toEqual([
      'st-actual left:0.000%;width:20.000%',
      'st-received left:20.000%;width:10.000%',
      'st-planned left:30.000%;width:20.000%',
    ]);
  });

  it('draws what passes the budget beyond the mark, and stops the stages at it', () => {
    expect(drawn(renderToStaticMarkup(<LyingGlass level={over} currency="GBP" name="x" />))).toEqual([
      'st-actual left:0.000%;width:48.000%',
      'st-onOrder left:48.000%;width:32.000%',
      'st-drafted left:88.000%;width:0.000%',
      'st-over left:80.000%;width:20.000%',
    ]);
  });

  it('is a picture with words for who cannot see it', () => {
    const html = renderToStaticMarkup(<LyingGlass level={half} currency="GBP" name="03 Electrical" tiny />);
    expect(html).toContain('role="img"');
    expect(html).toContain('aria-label="03 Electrical: budget £ 1,000;');
  });
});

describe('the upright glass', () => {
  it('names every stage with its amount, the MAX mark and the headroom', () => {
    const html = renderToStaticMarkup(<UprightGlass level={half} currency="GBP" name="Job 412" />);
    for (const words of ['MAX 1,000', 'Headroom 500', 'Planned', 'Received', 'Actual']) expect(html).toContain(words);
    expect(html).not.toContain('Drafted');
  });

  it('says over instead of headroom', () => {
    const html = renderToStaticMarkup(<UprightGlass level={over} currency="GBP" name="Job 412" />);
    expect(html).toContain('Over 250');
    expect(html).not.toContain('Headroom');
  });

  it('keeps the labels of thin stages apart', () => {
    const thin = level(100_000, { actual: 100, received: 100, onOrder: 100, drafted: 100, planned: 100 });
    const html = renderToStaticMarkup(<UprightGlass level={thin} currency="GBP" name="x" onPick={() => {}} />);
    const heights = [...html.matchAll(/<button[^>]*bottom:([\d.]+)%/g)].map((m) => Number(m[1]));
    expect(heights).toHaveLength(5);
    heights.slice(1).forEach((h, k) => expect(h - (heights[k] ?? 0)).toBeGreaterThanOrEqual(5));
  });
});

describe('progress by quantity', () => {
  it('draws parts of the whole, never beyond it', () => {
    const html = renderToStaticMarkup(
      <ProgressGlass
        whole={200}
        words="w"
        parts={[
          { stage: 'received', share: 50 },
          { stage: 'onOrder', share: 400 },
          { stage: 'drafted', share: -5 },
        ]}
      />,
    );
    expect(drawn(html)).toEqual(['st-received width:25.000%', 'st-onOrder width:100.000%', 'st-drafted width:0.000%']);
  });
});
