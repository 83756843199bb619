const PREFIX = 'kettle draft ';

/** A browser that has no room left, or may keep nothing, still lets one type: it stands on the page until it is saved. */
export function keepInBrowser(name: string, value: unknown): void {
  try {
    localStorage.setItem(PREFIX + name, JSON.stringify(value));
  } catch (error) {
    if (!(error instanceof DOMException)) throw error;
  }
}

/** What was typed on an earlier visit and not saved. */
export function keptInBrowser(name: string): unknown {
  const text = localStorage.getItem(PREFIX + name);
  if (text === null) return undefined;
  try {
    return JSON.parse(text);
  } catch {
    forgetInBrowser(name);
    return undefined;
  }
}

export const forgetInBrowser = (name: string): void => localStorage.removeItem(PREFIX + name);
