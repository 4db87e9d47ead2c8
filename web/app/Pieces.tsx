import type { ReactNode } from 'react';
import type { Piece } from '#core/derive';

/** A sentence in its pieces, numbers strong and what is wrong in red. */
export const Pieces = ({ pieces }: { readonly pieces: readonly Piece[] }): ReactNode =>
  pieces.map((p, i) =>
    p.tone === 'strong' ? <b key={i}>{p.text}</b> : p.tone === 'alarm' ? <em key={i}>{p.text}</em> : <span key={i}>{p.text}</span>,
  );
