import { useEffect, useState } from 'react';
import type { SuitLine, SuitsEnd, UnsuitLine } from '@rakuen/contract/matches';
import type { Weights } from '@rakuen/core/match/schools';
import type { ApiError } from '@rakuen/contract/settings';

/** Pictures on a sheet, as far as they have come. */
export interface Suits {
  readonly lines: ReadonlyMap<string, SuitLine | UnsuitLine>;
  /** All have come. */
  readonly done: boolean;
  readonly error?: Partial<ApiError>;
}

const NOTHING: Suits = { lines: new Map(), done: false };
const BROKEN: Partial<ApiError> = {
  message: 'The answer broke off before all pictures had come.',
  remedy: 'Check that Rakuen is running, then ask again.',
};

/** Asks which pictures suit a print condition, and takes the answer in line by line. @param again counts up to ask anew */
export function useSuits(conditionId: string, weights: Weights, again: number): Suits {
  const body = JSON.stringify({ conditionId, weights });
  const asked = `${body} ${again}`;
  const [state, setState] = useState<{ asked: string; suits: Suits }>();
  useEffect(() => {
    const stop = new AbortController();
    const lines = new Map<string, SuitLine | UnsuitLine>();
    const tell = (rest: Partial<Suits>) => {
      if (!stop.signal.aborted) setState({ asked, suits: { lines: new Map(lines), done: false, ...rest } });
    };
    fetch('/api/matches/pictures', {
      method: 'POST',
      body,
      headers: { 'Content-Type': 'application/json' },
      signal: stop.signal,
    })
      .then(async (answer) => {
        if (!answer.ok || !answer.body) return tell({ error: (await answer.json()) as Partial<ApiError> });
        let ended = false;
        for await (const part of linesOf(answer.body)) {
          for (const line of part)
            if ('pictures' in line) ended = true;
            else lines.set(line.pictureId, line);
          tell({ done: ended });
        }
        if (!ended) tell({ error: BROKEN });
      })
      .catch(() => tell({ error: BROKEN }));
    return () => stop.abort();
  }, [body, asked]);
  return state?.asked === asked ? state.suits : NOTHING;
}

/** Whole lines of what has come, as it comes. */
async function* linesOf(stream: ReadableStream<Uint8Array>) {
  const reader = stream.getReader();
  const text = new TextDecoder();
  let rest = '';
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return;
    const whole = (rest + text.decode(value, { stream: true })).split('\n');
    rest = whole.pop()!;
    yield whole.filter(Boolean).map((line) => JSON.parse(line) as SuitLine | UnsuitLine | SuitsEnd);
  }
}
