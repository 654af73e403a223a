/** How a controller is told to fire. */
export interface FiringWords {
  /** S at full power. */
  readonly fullScaleS: number;
  /** M3 keeps power constant through corners (small detail); M4 scales it with speed. */
  readonly laserOn: 'M3' | 'M4';
}

/** Positions are written to a tenth of a µm. */
const GRID_PER_MM = 10_000;
/** Controllers take lines of so many characters at most. */
const LONGEST_COMMENT = 240;

/**
 * Relative moves, each the step between positions that were rounded first: rounding never adds up, and equal steps give equal words
 * without formatting again.
 */
export class RelativeMoves {
  private atX = 0;
  private atY = 0;
  private readonly words = new Map<number, string>();

  /** A move to a position, mm from where the moves began. */
  to(move: 'G0' | 'G1', x: number, y: number): string {
    const [toX, toY] = [Math.round(x * GRID_PER_MM), Math.round(y * GRID_PER_MM)];
    const text = move + this.word('X', toX - this.atX) + this.word('Y', toY - this.atY);
    [this.atX, this.atY] = [toX, toY];
    return text;
  }

  private word(letter: 'X' | 'Y', delta: number): string {
    if (delta === 0) return '';
    const key = letter === 'X' ? delta : delta + 0.5;
    let text = this.words.get(key);
    if (text === undefined) {
      text = ` ${letter}${delta / GRID_PER_MM}`;
      this.words.set(key, text);
    }
    return text;
  }
}

/** A long text as comment lines; each but the first begins with “+” and goes on where the last one stopped. */
export function gcodeComments(text: string): string {
  const parts = text.match(new RegExp(`.{1,${LONGEST_COMMENT}}`, 'g')) ?? [''];
  return parts.map((part, i) => `(${i ? '+' : ''}${part})`).join('\n');
}

/** Text that may stand in a comment of one line: no brackets, nothing that ends a line, nothing but printable ASCII. */
export function commentText(text: string): string {
  return text.replace(/[()]/g, '').replace(/[^\x20-\x7e]/g, '?');
}

/** A speed in mm/s as the mm/min a program says. */
export function feedWord(speedMmPerS: number): string {
  return String(Number((speedMmPerS * 60).toFixed(2)));
}

/** A share of full power as an S word. */
export function powerWord(percent: number, { fullScaleS }: Pick<FiringWords, 'fullScaleS'>): string {
  return String(Number(((fullScaleS * percent) / 100).toFixed(2)));
}
