type Tag = { readonly words: string; readonly weight: 'stop' | 'care' | 'note' | 'good' };

const LOOK = { stop: 'tag-stop', care: 'tag-care', note: '', good: 'tag-good' } as const;

/** What stands in the way of a row, as words in outlines. */
export const Tags = ({ tags }: { tags: readonly Tag[] }) => (
  <span className="inline-flex flex-wrap gap-1 align-middle">
    {tags.map((t) => (
      <span key={t.words} className={`tag ${LOOK[t.weight]}`}>
        {t.words}
      </span>
    ))}
  </span>
);
