/** Tells whoever listens the same thing ten times a second, and rests where nobody does. */
const EVERY_MS = 100;

export class Ticker<T> {
  private readonly listeners = new Set<(value: T) => void>();
  private timer: NodeJS.Timeout | null = null;

  constructor(private readonly make: () => T) {}

  listen(hear: (value: T) => void): () => void {
    this.listeners.add(hear);
    this.timer ??= setInterval(() => {
      const value = this.make();
      for (const listener of this.listeners) listener(value);
    }, EVERY_MS);
    return () => {
      this.listeners.delete(hear);
      if (this.listeners.size > 0 || !this.timer) return;
      clearInterval(this.timer);
      this.timer = null;
    };
  }
}
