import { Transform, type TransformCallback } from "node:stream";

/**
 * Joins what is written in one turn of the event loop into one piece. React writes a page in pieces of 2 kB, and each
 * would be compressed and flushed by itself.
 */
export class JoinedChunks extends Transform {
  private readonly waiting: Buffer[] = [];
  private turn: ReturnType<typeof setImmediate> | null = null;

  override _transform(chunk: Buffer, _encoding: BufferEncoding, done: TransformCallback): void {
    this.waiting.push(chunk);
    this.turn ??= setImmediate(() => this.pass());
    done();
  }

  override _flush(done: TransformCallback): void {
    this.pass();
    done();
  }

  private pass(): void {
    if (this.turn) clearImmediate(this.turn);
    this.turn = null;
    if (this.waiting.length > 0) this.push(Buffer.concat(this.waiting.splice(0)));
  }
}
