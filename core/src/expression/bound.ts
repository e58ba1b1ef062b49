/**
 * The names that loops bind around the place at hand, while a text is read or a tree is written.
 */
export class BoundNames {
  private names: readonly string[] = [];

  has(name: string): boolean {
    return this.names.includes(name);
  }

  bind(name: string): void {
    this.names = [...this.names, name];
  }

  /** Does some work inside a loop: what is bound meanwhile is forgotten after it. */
  within<T>(work: () => T): T {
    const outside = this.names;
    const done = work();
    this.names = outside;
    return done;
  }

  /** Does some work inside a filter, where the item at hand is called `item`. */
  withItem<T>(work: () => T): T {
    return this.within(() => {
      this.bind('item');
      return work();
    });
  }
}
