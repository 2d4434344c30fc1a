/** A result that rests on itself: a fault of the program, told at once instead of waited for without end. */
export class WaitsInCircle extends Error {
  override readonly name = 'WaitsInCircle';
}

/** Who waits for whom, so that no circle of waiting can begin. */
export class WaitsFor {
  private readonly waiting = new Map<string, Map<string, number>>();

  /** @throws WaitsInCircle where `who` would wait for something that waits for it */
  add(who: string, whom: string): void {
    if (this.reaches(whom, who)) throw new WaitsInCircle(`${who} would wait for ${whom}, which waits for it.`);
    const own = this.waiting.get(who) ?? new Map<string, number>();
    own.set(whom, (own.get(whom) ?? 0) + 1);
    this.waiting.set(who, own);
  }

  delete(who: string, whom: string): void {
    const own = this.waiting.get(who);
    if (!own) return;
    const left = (own.get(whom) ?? 0) - 1;
    if (left > 0) own.set(whom, left);
    else own.delete(whom);
    if (own.size === 0) this.waiting.delete(who);
  }

  private reaches(from: string, to: string, seen = new Set<string>()): boolean {
    if (from === to) return true;
    if (seen.has(from)) return false;
    seen.add(from);
    return [...(this.waiting.get(from)?.keys() ?? [])].some((next) => this.reaches(next, to, seen));
  }
}
