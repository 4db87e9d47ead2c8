// Pipe outlet: what it is, without what works it out.
import type { Descriptor } from '../../contract/index.ts';
import { ON_HOST, hostRef, wayOutTraits } from '../beginning.ts';
import { PIPE_FIELDS, newPipe, PIPE_CHOICES, validatePipe, type PipeOutlet } from './model.ts';

export const pipeOutletDescriptor: Descriptor<PipeOutlet> = {
  kind: 'pipe-outlet',
  title: 'Pipe outlet',
  family: 'way-out',
  sample: newPipe({ id: 'pipe', name: 'Pipe outlet', host: 'store', status: 'planned', atM: 10, sillM: 101 }),
  fields: PIPE_FIELDS,
  choices: PIPE_CHOICES,
  validate: validatePipe,
  traits: () => wayOutTraits('through', { isConduit: true }),
  refs: hostRef,
  draws: [{ id: 'pipe-outlet', name: 'Pipe outlet', ...ON_HOST }],
  footprint: () => [],
  intakes: () => [],
  groundKey: (work) => [work.atM, work.dimensions.lengthM, work.host],
};
