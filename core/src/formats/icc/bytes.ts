/** Writes big-endian numbers one after another, as ICC.1 has them. */
export class ByteWriter {
  #bytes = new Uint8Array(1024);
  #view = new DataView(this.#bytes.buffer);
  #length = 0;

  get length(): number {
    return this.#length;
  }

  #room(more: number): void {
    if (this.#length + more <= this.#bytes.length) return;
    const wider = new Uint8Array(Math.max(this.#bytes.length * 2, this.#length + more));
    wider.set(this.#bytes);
    this.#bytes = wider;
    this.#view = new DataView(wider.buffer);
  }

  u8(...values: readonly number[]): this {
    this.#room(values.length);
    for (const v of values) this.#bytes[this.#length++] = v;
    return this;
  }

  u16(...values: readonly number[]): this {
    this.#room(values.length * 2);
    for (const v of values) {
      this.#view.setUint16(this.#length, v);
      this.#length += 2;
    }
    return this;
  }

  u32(...values: readonly number[]): this {
    this.#room(values.length * 4);
    for (const v of values) {
      this.#view.setUint32(this.#length, v);
      this.#length += 4;
    }
    return this;
  }

  /** s15Fixed16Number: signed, 16 bits before the point and 16 after. */
  fixed(...values: readonly number[]): this {
    this.#room(values.length * 4);
    for (const v of values) {
      this.#view.setInt32(this.#length, Math.round(v * 65536));
      this.#length += 4;
    }
    return this;
  }

  words(values: Uint16Array): this {
    this.#room(values.length * 2);
    for (let i = 0; i < values.length; i++) {
      this.#view.setUint16(this.#length, values[i]!);
      this.#length += 2;
    }
    return this;
  }

  /** Letters of ASCII; another one becomes a question mark. */
  ascii(text: string): this {
    this.#room(text.length);
    for (let i = 0; i < text.length; i++) {
      const code = text.charCodeAt(i);
      this.#bytes[this.#length++] = code < 128 ? code : 63;
    }
    return this;
  }

  bytes(values: Uint8Array): this {
    this.#room(values.length);
    this.#bytes.set(values, this.#length);
    this.#length += values.length;
    return this;
  }

  zeros(count: number): this {
    this.#room(count);
    this.#length += count;
    return this;
  }

  /** Up to the next multiple of four. */
  align(): this {
    return this.zeros((4 - (this.#length % 4)) % 4);
  }

  done(): Uint8Array {
    return this.#bytes.slice(0, this.#length);
  }
}
