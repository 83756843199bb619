import fc from 'fast-check';

/**
 * Random tests play the same histories every time, so that a red run tells of the change and not of its luck.
 * KETTLE_SEED=random looks further: a seed that fails is printed, and can be given here as a number.
 */
const { KETTLE_SEED: given = '20260601' } = process.env;
if (given !== 'random') fc.configureGlobal({ seed: Number(given) });
