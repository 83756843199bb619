/** What the address asks for, if it is one of the keys that there are. */
export const keyIn = <T extends object>(of: T, text: string | undefined): keyof T | undefined =>
  text !== undefined && Object.hasOwn(of, text) ? (text as keyof T) : undefined;
