/**
 * How a part that is made is gone about: its parts belong to the work above it, it is a piece of work of its own with a
 * readiness of its own, or it is seen to apart and nothing is bought for it here.
 */
export const PLANNED_WORK = ['within', 'own', 'apart'] as const;
export type PlannedWork = (typeof PLANNED_WORK)[number];
