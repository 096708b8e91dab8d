/** A value that many drawings follow frame by frame without rendering the page around them. */
export interface Observable<T> {
  get: () => T;
  set: (value: T) => void;
  subscribe: (told: () => void) => () => void;
}

export function observable<T>(first: T): Observable<T> {
  let value = first;
  const followers = new Set<() => void>();
  return {
    get: () => value,
    set: (next) => {
      value = next;
      for (const f of followers) f();
    },
    subscribe: (told) => {
      followers.add(told);
      return () => followers.delete(told);
    },
  };
}

/** Runs once in the next frame however often it is asked. */
export function oncePerFrame(work: () => void): { ask: () => void; stop: () => void } {
  let waiting = 0;
  return {
    ask: () => {
      if (waiting === 0)
        waiting = requestAnimationFrame(() => {
          waiting = 0;
          work();
        });
    },
    stop: () => cancelAnimationFrame(waiting),
  };
}
