// The hill full of works in a worker of a page: compiled for it, and run by in-page.ts.
import { fieldWorks } from './field-works.ts';

declare const postMessage: (figures: unknown) => void;

postMessage(fieldWorks());
