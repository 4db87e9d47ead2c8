// In which order stores can be routed: those that hang on each other, by joints or by a loop, as one group.
/** A store and where its ways out lead. */
export interface Linked {
  readonly id: string;
  readonly outlets: readonly { readonly to: string; readonly isJoint?: boolean }[];
}

/** Whether an outlet is solved with the store it leads to. */
export const joins = (outlet: Linked['outlets'][number], ids: ReadonlyMap<string, number>): boolean =>
  outlet.isJoint === true && ids.has(outlet.to);

/**
 * Groups of stores, each after those that spill into it; within a group stores stand as given. Strong components of the
 * links, a joint counting both ways (Tarjan 1972).
 */
export function groupsOf<S extends Linked>(stores: readonly S[]): S[][] {
  const place = new Map(stores.map((s, k) => [s.id, k]));
  const targets: number[][] = stores.map(() => []);
  stores.forEach((store, from) => {
    for (const outlet of store.outlets) {
      const to = place.get(outlet.to);
      if (to === undefined || to === from) continue;
      targets[from].push(to);
      if (joins(outlet, place)) targets[to].push(from);
    }
  });
  const seen = new Int32Array(stores.length).fill(-1);
  const low = new Int32Array(stores.length);
  const onStack = new Uint8Array(stores.length);
  const stack: number[] = [];
  const groups: number[][] = [];
  let count = 0;
  const visit = (root: number): void => {
    const path: [at: number, next: number][] = [[root, 0]];
    while (path.length > 0) {
      const top = path[path.length - 1];
      const [v] = top;
      if (top[1] === 0) {
        seen[v] = low[v] = count++;
        stack.push(v);
        onStack[v] = 1;
      }
      if (top[1] < targets[v].length) {
        const w = targets[v][top[1]++];
        if (seen[w] < 0) path.push([w, 0]);
        else if (onStack[w] === 1) low[v] = Math.min(low[v], seen[w]);
        continue;
      }
      if (low[v] === seen[v]) {
        const group: number[] = [];
        let w = -1;
        while (w !== v) {
          w = stack.pop() ?? v;
          onStack[w] = 0;
          group.push(w);
        }
        groups.push(group.sort((a, b) => a - b));
      }
      path.pop();
      const above = path[path.length - 1] as [number, number] | undefined;
      if (above) low[above[0]] = Math.min(low[above[0]], low[v]);
    }
  };
  // From the last given, so that stores that hang on nothing keep their given order.
  for (let k = stores.length - 1; k >= 0; k--) if (seen[k] < 0) visit(k);
  return groups.reverse().map((group) => group.map((k) => stores[k]));
}

/** Stores sorted so that each stands after those that spill into it; a loop keeps its given order. */
export const cascadeOrder = <S extends Linked>(stores: readonly S[]): S[] => groupsOf(stores).flat();
