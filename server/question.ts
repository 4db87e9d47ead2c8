// Questions to the stand-ins: what is wrong with one is told in words.
import { validateSync } from 'class-validator';
import type { Response } from 'express';

/** Whether a question was refused, its answer sent; `advice` says what may be asked. */
export function isRefused(question: object, response: Response, advice: string): boolean {
  const [error] = validateSync(question, { whitelist: true, forbidNonWhitelisted: true });
  if (!error) return false;
  const what = Object.values(error.constraints ?? {}).join('; ');
  response.status(400).json({ errors: [{ code: 'api.question', what, where: { field: error.property }, do: advice }] });
  return true;
}
