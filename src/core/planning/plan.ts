import type { GotBy } from '../boms/bom';

/**
 * How a part that is made is gone about: its parts belong to the work above it, it is a piece of work of its own with a
 * readiness of its own, or it is seen to apart and nothing is bought for it here.
 */
export const PLANNED_WORK = ['within', 'own', 'apart'] as const;
export type PlannedWork = (typeof PLANNED_WORK)[number];

export const PLANNED_WORK_NAMES: Readonly<Record<PlannedWork, string>> = {
  within: 'made within its parent',
  own: 'separate work order',
  apart: 'handled separately',
};

/** Why a branch is left out that a later version of its BOM does not have. */
export const GONE = 'no longer in the BOM';

/** A branch of a job's plan; the one without a parent is what is made. Each stands after the one above it. */
export type Branch = {
  readonly id: number;
  readonly parentId: number | null;
  readonly gotBy: GotBy;
  readonly work: PlannedWork;
  readonly leftOut: string | null;
};

/** Where a branch stands in its plan. */
export type InPlan = {
  /** Whether it is part of the job: neither left out nor below something that is, or that is seen to apart. */
  readonly isIn: boolean;
  /** 0 for what is made. */
  readonly level: number;
  /** The piece of work that it belongs to, by the branch that is made in it. */
  readonly piece: number;
};

/** Where each branch of a plan stands, by its id. */
export function branchesInPlan(branches: readonly Branch[]): Map<number, InPlan> {
  const found = new Map<number, InPlan>();
  const byId = new Map(branches.map((b) => [b.id, b]));
  for (const { id, parentId, gotBy, work, leftOut } of branches) {
    const above = found.get(parentId ?? 0);
    const parent = byId.get(parentId ?? 0);
    const open = above === undefined || (above.isIn && parent?.work !== 'apart');
    const own = above === undefined || (gotBy === 'made' && work === 'own');
    found.set(id, {
      isIn: open && leftOut === null,
      level: (above?.level ?? -1) + 1,
      piece: own ? id : above.piece,
    });
  }
  return found;
}
