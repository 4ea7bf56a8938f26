/**
 * Works through wishes, the newest first, one at a time: while one is under way only the newest of those that come is kept.
 * Nothing piles up under a fast hand, and what is told is always told with the wish that it is of.
 */
export class Latest<Wish, Answer> {
  private next: { wish: Wish } | null = null;
  private busy = false;
  private stopped = false;

  constructor(
    private readonly work: (wish: Wish) => Promise<Answer>,
    private readonly tell: (wish: Wish, answer: Answer) => void,
  ) {}

  want(wish: Wish): void {
    this.next = { wish };
    if (!this.busy) void this.go();
  }

  /** Whether nothing is under way or waiting. */
  get idle(): boolean {
    return !this.busy && !this.next;
  }

  stop(): void {
    this.stopped = true;
    this.next = null;
  }

  private async go(): Promise<void> {
    this.busy = true;
    while (this.next) {
      const { wish } = this.next;
      this.next = null;
      const answer = await this.work(wish);
      if (!this.stopped) this.tell(wish, answer);
    }
    this.busy = false;
  }
}
