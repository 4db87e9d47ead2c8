// Answers that take long, in parts: between two of them whoever waits may look up, or give up.

/** An answer worked out in parts. */
export type Slowly<T> = Generator<undefined, T, undefined>;

/** What comes of a question in the end. */
export type Finished<T> = T extends Generator<unknown, infer R, never> ? R : T;

const isSlow = (answer: unknown): answer is Slowly<unknown> => typeof answer === 'object' && answer !== null && 'next' in answer;

/** Works an answer out to its end without a pause. */
export function finish<T>(answer: T): Finished<T> {
  if (!isSlow(answer)) return answer as Finished<T>;
  for (;;) {
    const { done, value } = answer.next();
    if (done === true) return value as Finished<T>;
  }
}

/** Works an answer out, `between` its parts waiting for a word that it may go on; that gives it up by throwing. */
export async function finishSlowly<T>(answer: T, between: () => Promise<void>): Promise<Finished<T>> {
  if (!isSlow(answer)) return answer as Finished<T>;
  try {
    for (;;) {
      const { done, value } = answer.next();
      if (done === true) return value as Finished<T>;
      await between();
    }
  } finally {
    // Given up half way, it lets go of what it held.
    answer.return(undefined);
  }
}
