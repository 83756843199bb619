'use client';

import { useState } from 'react';
import { nameOfFile } from '@/core/files/kinds';
import type { OrderView } from '@/queries/orders/order';
import { useKey } from '@/ui/frame/keys';
import { later } from '@/ui/acting/later';

const Attach = later(() => import('./Attach'));

/** What goes with an order: its files by name, what is made of it as data, and all of it in one archive. */
export function GoesWith({ view }: { view: OrderView }) {
  const { files, order, editable, supplier } = view;
  const [attaching, setAttaching] = useState(false);
  useKey('F', 'Attach a file', () => setAttaching(true), editable);
  const data = supplier.dataFiles.split(',');
  const made = (kind: 'ubl' | 'csv', words: string) => (
    <a href={`/orders/${order.number}/data/${kind}`} className="step font-normal">
      {words}
      {data.includes(kind) && ' sent with the order'}
    </a>
  );
  return (
    <div className="mt-3 flex flex-wrap items-center gap-x-3 gap-y-1.5 max-phone:gap-y-7 max-phone:py-3">
      <span className="text-ink-2">Attachments</span>
      {files.map((f) => (
        <a
          key={f.id}
          href={`/documents/${f.id}`}
          target="_blank"
          rel="noreferrer"
          className={`tag mono ${f.goneOn === null ? '' : 'tag-stop'}`}
        >
          {nameOfFile(f)}
          {f.goneOn !== null && ', removed'}
        </a>
      ))}
      {files.map(
        (f) =>
          f.newer !== null && (
            <span key={f.id} className="tag tag-care">
              {f.name}: {f.newer === '' ? 'newer file saved' : `newer revision: ${f.newer}`}
            </span>
          ),
      )}
      {files.length === 0 && !editable && <span className="text-ink-2">None</span>}
      {editable && (
        <button type="button" className="step" onClick={() => setAttaching(true)}>
          + Attach
        </button>
      )}
      <span className="ml-auto flex flex-wrap gap-x-3 max-phone:gap-y-7">
        {made('ubl', 'UBL order (XML)')}
        {made('csv', 'CSV')}
        <a href={`/orders/${order.number}/zip`} className="step font-normal">
          All as ZIP
        </a>
      </span>
      {attaching && <Attach view={view} onClose={() => setAttaching(false)} />}
    </div>
  );
}
