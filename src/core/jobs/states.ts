/** From asked for to ended: a quote won makes a job live, and what is complete is closed. */
export const JOB_STATES = ['quoted', 'live', 'complete', 'lost'] as const;
export type JobState = (typeof JOB_STATES)[number];

export const JOB_STATE_NAMES: Readonly<Record<JobState, string>> = {
  quoted: 'Quoted',
  live: 'Live',
  complete: 'Closed',
  lost: 'Lost',
};

type HasState = { readonly state: JobState };

/** The state in which things are bought for a job. */
export const LIVE: JobState & 'live' = 'live';
export const isLive = ({ state }: HasState): boolean => state === LIVE;

/** Nothing of it changes any more until it is reopened. */
export const isClosed = ({ state }: HasState): boolean => state === 'complete';

/** Jobs that are still worked on, or may be. */
export const OPEN_JOB_STATES: readonly JobState[] = ['quoted', LIVE];
export const isOpenJob = ({ state }: HasState): boolean => OPEN_JOB_STATES.includes(state);

export const JOB_KINDS = ['contract', 'repair', 'make'] as const;
export type JobKind = (typeof JOB_KINDS)[number];

export const JOB_KIND_NAMES: Readonly<Record<JobKind, string>> = {
  contract: 'Contract',
  repair: 'Repair',
  make: 'Make',
};
