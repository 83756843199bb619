/** A cell of a sheet, by its place from 0. */
export type Spot = { readonly row: number; readonly col: number };

export type Shape = {
  readonly rows: number;
  readonly cols: number;
  /** Whether the cell is filled in, or only looked at. */
  readonly fills: (spot: Spot) => boolean;
};

const within = (n: number, most: number) => Math.max(0, Math.min(n, most - 1));

/** Where an arrow leads from a cell, Home and End with it; with Ctrl to the first and the last row. */
export function step({ rows, cols }: Shape, { row, col }: Spot, key: string, far: boolean): Spot | undefined {
  const to: Readonly<Record<string, Spot>> = {
    ArrowUp: { row: row - 1, col },
    ArrowDown: { row: row + 1, col },
    ArrowLeft: { row, col: col - 1 },
    ArrowRight: { row, col: col + 1 },
    Home: { row: far ? 0 : row, col: 0 },
    End: { row: far ? rows - 1 : row, col: cols - 1 },
  };
  const spot = to[key];
  return spot && { row: within(spot.row, rows), col: within(spot.col, cols) };
}

/** The next cell that is filled in, on to the row after at the end of one; undefined behind the last. */
export function nextFilled({ rows, cols, fills }: Shape, from: Spot, by: 1 | -1): Spot | undefined {
  for (let at = from.row * cols + from.col + by; at >= 0 && at < rows * cols; at += by) {
    const spot = { row: Math.floor(at / cols), col: at % cols };
    if (fills(spot)) return spot;
  }
  return undefined;
}

/** The next row below whose cell in this column is filled in. */
export function below({ rows, fills }: Shape, { row, col }: Spot): Spot | undefined {
  for (let at = row + 1; at < rows; at += 1) if (fills({ row: at, col })) return { row: at, col };
  return undefined;
}
