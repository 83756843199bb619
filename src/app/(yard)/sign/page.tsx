import { loadToSign } from '@/queries/signoff/toSign';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Empty, PlaceTitle, Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { ToSignTable } from './ToSignTable';

export const metadata = { title: 'To sign' };

export default yardPage(async ({ db, person, today }) => {
  const { rows, more } = await loadToSign(db, person, today);
  const many = rows.length + more;
  return (
    <Sheet>
      <PlaceTitle title="To sign" count={many === 0 ? undefined : `${many} to sign`} />
      {rows.length === 0 ? (
        <>
          <Empty title="Nothing to sign">
            Orders that reach your step of the ladder appear here until you sign them.
          </Empty>
          <Shelf facts={<Fact>nothing to sign</Fact>} />
        </>
      ) : (
        <ToSignTable rows={rows} more={more} />
      )}
    </Sheet>
  );
});
