import { notFound } from 'next/navigation';
import { ITEM_KIND_NAMES, TRACKING_NAMES } from '@/core/items/kinds';
import { may } from '@/core/people/rights';
import { formatQuantity } from '@/core/quantity/quantity';
import { measured, unitOf } from '@/core/quantity/units';
import { formatDay } from '@/core/calendar/workdays';
import { loadFiles } from '@/queries/company/files';
import { loadItem, loadItemPast } from '@/queries/items/items';
import { Facts } from '@/ui/kit/Facts';
import { Fact, Shelf } from '@/ui/kit/Shelf';
import { Sheet } from '@/ui/kit/Sheet';
import Link from '@/ui/kit/Link';
import { Opened } from '@/ui/frame/Opened';
import { yardPage } from '../../../server/yardPage';
import { FilesAbout } from '../../_shared/company/FilesAbout';
import { AddSeller } from './AddSeller';
import { BoughtLast, Sellers } from './PartTables';

export const metadata = { title: 'Item' };

export default yardPage(async ({ db, person, today, params }) => {
  const view = await loadItem(db, person, Number(params.id), today);
  if (view === undefined) notFound();
  const { item, parts, costCode, supplier } = view;
  const files = await loadFiles(db, person, 'item', item.id);
  const { bought, wanted } = await loadItemPast(db, person, item.id);
  const aside = (
    <>
      <h2 className="mb-1 text-[16px]">Needed now</h2>
      {wanted.length === 0 && <p className="text-ink-2">No job needs it.</p>}
      <ul>
        {wanted.map((n) => (
          <li key={n.id} className="flex justify-between gap-2 border-b border-line-2 py-1">
            <Link href={`/jobs/${n.job}/buy-list?need=${n.id}`} className="mono font-semibold hover:underline">
              {n.job}
            </Link>
            <span className="text-ink-2">{n.neededOn === null ? '' : formatDay(n.neededOn, today)}</span>
            <span>{measured(n.open, n.unit)}</span>
          </li>
        ))}
      </ul>
      <FilesAbout subject={{ about: 'item', id: item.id, name: item.number }} files={files} />
      <p className="mt-3">
        <Link href={`/history?about=item&id=${item.id}`} className="step">
          History
        </Link>
      </p>
    </>
  );
  return (
    <Sheet aside={aside}>
      <Opened kind="item" id={item.id} />
      <h1 className="text-[25px] leading-tight">{item.name}</h1>
      <p className="mono mb-4 text-ink-2">{item.number}</p>
      <Facts
        facts={[
          ['Unit', unitOf(item.unit).name],
          ['Cost code', costCode === null ? '' : `${costCode.number} ${costCode.name}`],
          ['Supplier', supplier?.name ?? 'None'],
          ['GTIN', item.gtin],
          ['Type', `${ITEM_KIND_NAMES[item.kind]}${item.stocked === 1 ? ', stock item' : ''}`],
          ['Tracked by', item.tracking === 'none' ? '' : TRACKING_NAMES[item.tracking]],
          ['Certificate', item.certificate === 1 ? 'required' : ''],
          ['Inspection', item.inspected === 1 ? 'before release' : ''],
          ['Weight', item.weight === null ? '' : `${formatQuantity(item.weight)} kg each ${unitOf(item.unit).name}`],
          ['Buying', item.bought === 1 ? '' : 'not for purchase'],
        ]}
      />
      <h2 className="mt-6 text-[16px]">Suppliers</h2>
      {parts.length === 0 ? (
        <p className="text-ink-2">No supplier prices yet.</p>
      ) : (
        <Sellers parts={parts} itemId={item.id} />
      )}
      <h2 className="mt-6 text-[16px]">Recent purchases</h2>
      {bought.length === 0 ? <p className="text-ink-2">Not ordered yet.</p> : <BoughtLast bought={bought} />}
      <Shelf facts={<Fact strong>{item.number}</Fact>}>
        <Link href={`/items/${item.id}/bom`} className="btn btn-shelf">
          Bill of materials
        </Link>
        {may(person, 'keep suppliers') && <AddSeller itemId={item.id} />}
        {may(person, 'keep suppliers') && (
          <Link href={`/items/${item.id}/change`} className="btn btn-main h-[38px]">
            Edit item
          </Link>
        )}
      </Shelf>
    </Sheet>
  );
});
