declare module 'fontverter' {
  /** Converts a font from the format it is in; `sfnt` is TrueType or OpenType as it stands in no wrapping. */
  export function convert(font: Buffer, to: 'sfnt' | 'woff' | 'woff2'): Promise<Buffer>;
}
