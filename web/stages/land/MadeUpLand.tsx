import { Mountain } from 'lucide-react';
import type { ReactNode } from 'react';
import useSWRMutation from 'swr/mutation';
import { bringIn } from '../../app/import.ts';
import { Button, Muted } from '../../kit/index.ts';

/** How far made-up land reaches each way [m], and how many lands there are to begin with. */
const [ACROSS_M, LANDS] = [400, 200];

async function madeUp(url: string): Promise<File> {
  const land = 1 + Math.floor(LANDS * Math.random());
  const response = await fetch(`${url}?across=${ACROSS_M}&land=${land}`);
  if (!response.ok) throw new Error(String(response.status));
  const { source, asc } = (await response.json()) as { readonly source: string; readonly asc: string };
  return new File([asc], `${source}.asc`);
}

/** The stand-in for an elevation service: land to try things on, which says that nobody levelled it. */
export function MadeUpLand({ onDone }: { readonly onDone?: (() => void) | undefined }): ReactNode {
  const { trigger, isMutating, error } = useSWRMutation<File, Error>('/api/elevation', madeUp);
  const take = async (): Promise<void> => {
    const file = await trigger().catch(() => null);
    if (file && (await bringIn(file, { isMadeUp: true }))) onDone?.();
  };
  return (
    <>
      <Muted>No levels yet? Try it on land that is made up; all that is worked out on it says so.</Muted>
      <Button isDisabled={isMutating} onPress={() => void take()}>
        <Mountain size={16} aria-hidden />
        Ask the elevation service (simulated)
      </Button>
      {error && <Muted>The service does not answer, so it is off. Bring in a file or type levels.</Muted>}
    </>
  );
}
