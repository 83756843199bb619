declare module 'saxen' {
  /** What is used of saxen, which has no types: it reads XML and tells of each tag as it comes. */
  export class Parser {
    on(event: 'openTag', told: (name: string, attributes: () => Record<string, string | undefined>) => void): this;
    parse(xml: string): Error | undefined;
    stop(): void;
  }
}
