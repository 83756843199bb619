/** Everybody's of the sample company. */
export const DEMO_PASSWORD = 'kettle on the boil';
