'use client';

import { closestCenter, DndContext, PointerSensor, useSensor, useSensors, type DragEndEvent } from '@dnd-kit/core';
import { horizontalListSortingStrategy, SortableContext, useSortable } from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import Link from '@/ui/kit/Link';
import { usePathname, useRouter } from 'next/navigation';
import { X } from 'lucide-react';
import type { Level } from '@/core/tab/sums';
import { useKey } from './keys';
import { LyingGlass } from '../jobs/SightGlass';
import { useYard } from './YardContext';

export type RailTab = {
  readonly id: number;
  readonly number: string;
  readonly shortName: string;
  readonly level: Level | null;
};

const NINE = [1, 2, 3, 4, 5, 6, 7, 8, 9];

type Props = {
  readonly tabs: readonly RailTab[];
  readonly onClose: (jobId: number) => void;
  readonly onMove: (jobIds: number[]) => void;
};

/** The jobs this person keeps open, as index tabs; the open job's tab joins its sheet. */
export function Rail({ tabs, onClose, onMove }: Props) {
  const path = usePathname();
  const router = useRouter();
  // A tab is dragged once it has moved a little, so that a click still opens it.
  const sensors = useSensors(useSensor(PointerSensor, { activationConstraint: { distance: 8 } }));
  const move = (id: number, to: number) => {
    const ids = tabs.map((t) => t.id).filter((t) => t !== id);
    ids.splice(Math.max(0, Math.min(to, ids.length)), 0, id);
    onMove(ids);
  };
  const dropped = ({ active, over }: DragEndEvent) => {
    if (over !== null && over.id !== active.id)
      move(
        Number(active.id),
        tabs.findIndex((t) => t.id === over.id),
      );
  };
  const close = (tab: RailTab) => {
    onClose(tab.id);
    if (path.startsWith(`/jobs/${tab.number}`)) router.push('/jobs');
  };
  return (
    <nav
      aria-label="Open jobs"
      className="relative z-10 flex h-[44px] items-end gap-1 overflow-x-auto overflow-y-hidden px-4 [scrollbar-width:none] before:absolute before:inset-x-0 before:top-0 before:h-[14px] before:bg-rim max-phone:h-[48px]"
    >
      {NINE.map((n) => (
        <RailKey key={n} n={n} tab={tabs[n - 1]} go={(t) => router.push(`/jobs/${t.number}`)} />
      ))}
      <DndContext id="rail" sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
        <SortableContext items={tabs.map((t) => t.id)} strategy={horizontalListSortingStrategy}>
          {tabs.map((tab, k) => (
            <RailTabCard
              key={tab.id}
              tab={tab}
              here={path === `/jobs/${tab.number}` || path.startsWith(`/jobs/${tab.number}/`)}
              onClose={() => close(tab)}
              onStep={(by) => move(tab.id, k + by)}
            />
          ))}
        </SortableContext>
      </DndContext>
      <Link
        href="/jobs"
        className="relative mb-[7px] ml-2 shrink-0 text-ink-2 hover:text-ink max-phone:mb-0 max-phone:leading-[44px]"
      >
        + Open a job
      </Link>
    </nav>
  );
}

type CardProps = {
  readonly tab: RailTab;
  readonly here: boolean;
  readonly onClose: () => void;
  readonly onStep: (by: 1 | -1) => void;
};

function RailTabCard({ tab, here, onClose, onStep }: CardProps) {
  const { currency } = useYard();
  const { listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: tab.id });
  return (
    <div
      ref={setNodeRef}
      {...listeners}
      style={{ transform: CSS.Translate.toString(transform), transition }}
      className={`group relative h-[36px] w-[176px] max-phone:h-[44px] shrink-0 rounded-t-[9px] border border-b-0 border-line ${here ? 'z-10 -mb-px h-[41px] bg-glaze max-phone:h-[46px]' : 'bg-tab'} ${isDragging ? 'z-20 shadow-lg' : ''}`}
    >
      <Link
        href={`/jobs/${tab.number}`}
        aria-current={here ? 'page' : undefined}
        draggable={false}
        className="block h-full px-3 pt-[6px]"
        onKeyDown={(e) => {
          if (e.key === 'Delete') onClose();
          if (e.ctrlKey && e.key === 'ArrowRight') onStep(1);
          if (e.ctrlKey && e.key === 'ArrowLeft') onStep(-1);
        }}
      >
        <span className="flex items-baseline gap-2 text-[12.5px] leading-[15px]">
          <span className="mono font-bold">{tab.number}</span>
          <span className="truncate">{tab.shortName}</span>
        </span>
        {tab.level !== null && (
          <span className="mt-[5px] block">
            <LyingGlass level={tab.level} currency={currency} name={`Job ${tab.number}`} tiny />
          </span>
        )}
      </Link>
      <button
        type="button"
        aria-label={`Remove job ${tab.number} from the rail`}
        onClick={onClose}
        className={`absolute top-1 right-1 rounded p-0.5 text-ink-2 opacity-0 max-phone:hidden group-hover:opacity-100 hover:text-ink focus:opacity-100 ${here ? 'bg-glaze' : 'bg-tab'}`}
      >
        <X size={13} />
      </button>
    </div>
  );
}

function RailKey({ n, tab, go }: { n: number; tab: RailTab | undefined; go: (tab: RailTab) => void }) {
  useKey(`Alt+${n}`, `Open job ${tab?.number ?? ''}`, () => tab && go(tab), tab !== undefined);
  return null;
}
