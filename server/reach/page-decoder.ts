const sniffed = 1024;

/** Turns a page's bytes into text, piece by piece. */
export interface PageDecoder {
  decode: (bytes: Buffer) => string;
  end: () => string;
}

/**
 * A decoder for a page: by a byte order mark, by the label that the server gave, or by the one that the page
 * names within its first 1,024 bytes, in this order (WHATWG HTML, determining the character encoding);
 * else, and where nobody knows the label, as UTF-8.
 */
export function decoderOf(contentType: string | string[] | undefined): PageDecoder {
  const told = /charset=["']?([\w-]+)/i.exec(String(contentType ?? ""))?.[1];
  let decoder: TextDecoder | null = null;
  let start = Buffer.alloc(0);
  const begin = (): string => {
    const label =
      markOf(start) ??
      told ??
      /<meta[^>]+charset=["']?([\w-]+)/i.exec(start.toString("latin1"))?.[1] ??
      "utf-8";
    decoder = decoderFor(label);
    return decoder.decode(start, { stream: true });
  };
  return {
    decode(bytes) {
      if (decoder) return decoder.decode(bytes, { stream: true });
      start = Buffer.concat([start, bytes]);
      return start.length >= sniffed ? begin() : "";
    },
    end: () => (decoder ? decoder.decode() : begin() + decoder!.decode()),
  };
}

function markOf(bytes: Buffer): string | null {
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return "utf-16le";
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return "utf-16be";
  return bytes.subarray(0, 3).equals(Buffer.from([0xef, 0xbb, 0xbf])) ? "utf-8" : null;
}

function decoderFor(label: string): TextDecoder {
  try {
    return new TextDecoder(label);
  } catch {
    return new TextDecoder("utf-8");
  }
}
