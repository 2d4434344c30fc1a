import { wrap, type Remote } from 'comlink';
import { linearOfPcs, SRGB } from '@rakuen/core/colour/rgb-space';
import type { LocalBase } from '@rakuen/core/proof/local-contrast';
import type { Part } from '@rakuen/core/proof/part';
import { LAB_UNITS, type LabImage } from '../pictures/lab-image.ts';
import type { Board } from './plain-worker.ts';
import type { ProofDrawer, ProofView, SeenSheet } from './proof-canvas.ts';

interface Asked {
  readonly view: ProofView;
  readonly widthPx: number;
  readonly heightPx: number;
}

const pixelsOf = ({ widthPx, heightPx, lab }: LabImage) => ({ widthPx, heightPx, lab, units: LAB_UNITS });

/**
 * The proof drawn by a worker on a plain canvas: slower, and without the sheet's own surface. What is asked for while
 * it draws is drawn after it.
 */
export class PlainProof implements ProofDrawer {
  private readonly worker = new Worker(new URL('./plain-worker.ts', import.meta.url), { type: 'module' });
  private readonly board: Remote<Board> = wrap<Board>(this.worker);
  private readonly sheets: [SeenSheet?, SeenSheet?] = [];
  private next?: Asked;
  private drawing = false;

  constructor(private readonly canvas: HTMLCanvasElement) {}

  picture(image: LabImage): void {
    void this.board.detail(undefined, undefined);
    void this.board.picture(pixelsOf(image));
  }

  detail(part: Part | undefined, image?: LabImage): void {
    void this.board.detail(part, image && pixelsOf(image));
  }

  base(base: LocalBase | undefined): void {
    void this.board.base(base);
  }

  /** Not drawn here. */
  surface(): void {}

  sheet(hand: 0 | 1, sheet: SeenSheet): void {
    if (this.sheets[hand] === sheet) return;
    this.sheets[hand] = sheet;
    void this.board.sheet(hand, sheet);
  }

  draw(view: ProofView, widthPx: number, heightPx: number): void {
    this.next = { view, widthPx: Math.round(widthPx), heightPx: Math.round(heightPx) };
    if (!this.drawing) void this.drawn();
  }

  private async drawn(): Promise<void> {
    this.drawing = true;
    for (let asked = this.next; asked; asked = this.next) {
      this.next = undefined;
      const { view, widthPx, heightPx } = asked;
      const pixels = await this.board.draw(view, view.toScreen ?? linearOfPcs(SRGB), widthPx, heightPx);
      if (!pixels) continue;
      [this.canvas.width, this.canvas.height] = [widthPx, heightPx];
      this.canvas.getContext('2d')!.putImageData(new ImageData(pixels, widthPx, heightPx), 0, 0);
    }
    this.drawing = false;
  }

  clear(): void {
    this.worker.terminate();
  }
}
