declare module 'gs1-barcode-parser-mod' {
  /** Takes a GS1 element string apart; throws where it is none. */
  export function parseBarcode(text: string): {
    readonly parsedCodeItems: readonly { readonly ai: string; readonly raw: string }[];
  };
}
