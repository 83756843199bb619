/** A part, or a few words, as it stands in a cell of a sheet; an empty one says what may be typed. */
export const PartTold = ({ part: { description, number } }: { part: { description: string; number: string } }) =>
  description === '' ? (
    <span className="text-ink-2">Item or description: type, or paste rows</span>
  ) : (
    <>
      <b className="font-semibold">{description}</b>{' '}
      {number !== '' && <span className="mono whitespace-nowrap text-ink-2">{number}</span>}
    </>
  );
