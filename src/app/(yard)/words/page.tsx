import { loadWording } from '@/queries/company/wording';
import { FilterPick } from '@/ui/kit/Filters';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import { yardPage } from '../../server/yardPage';
import { SettingsTitle } from '../_shared/company/SettingsTitle';
import { Blocks } from './Blocks';
import { Mail } from './Mail';

export const metadata = { title: 'Order wording' };

export default yardPage(async ({ db, person, today, query }) => {
  const supplierId = query.supplier === undefined ? null : Number(query.supplier);
  const view = await loadWording(db, person, supplierId, today);
  const id = view.supplier?.id ?? null;
  return (
    <Sheet aside={<Blocks key={view.blocks.map((b) => b.id).join()} blocks={view.blocks} />}>
      <SettingsTitle title="Email wording" list="mails" />
      <div className="mb-3">
        <FilterPick name="supplier" label="To" all="All suppliers" kind="supplier" by="id" value={view.supplier} />
      </div>
      <p className="mb-2 text-ink-2">
        {
          'Filled in when the email is written: {number}, {revision}, {contact}, {supplier}, {buyer}, {company}, {changes} of a revision, outstanding {lines}.'
        }
      </p>
      <Mail key={`order ${id}`} kind="order" title="Sending an order" supplierId={id} {...view.mails.order} />
      <Mail
        key={`revision ${id}`}
        kind="revision"
        title="Sending a revision"
        supplierId={id}
        {...view.mails.revision}
      />
      <Mail key={`chase ${id}`} kind="chase" title="Chasing an order" supplierId={id} {...view.mails.chase} />
      <Shelf
        facts={
          <Fact>
            {view.supplier === null
              ? 'for every supplier without wording of its own'
              : `for ${view.supplier.name} only`}
          </Fact>
        }
      />
    </Sheet>
  );
});
