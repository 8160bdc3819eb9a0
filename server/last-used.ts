/** Keeps the things used last, up to a number; the others can be had again. */
export class LastUsed<V> {
  private readonly kept = new Map<string, V>()
  constructor(private readonly most: number) {}

  get(key: string): V | undefined {
    const found = this.kept.get(key)
    if (found !== undefined) this.set(key, found)
    return found
  }

  set(key: string, value: V): void {
    this.kept.delete(key)
    this.kept.set(key, value)
    if (this.kept.size > this.most) this.kept.delete(this.kept.keys().next().value!)
  }

  forget(key: string): void {
    this.kept.delete(key)
  }
}
