// Stand-in for a public rainfall-frequency service: an invented climate, the same answer for the same question.
import { IsNumber, IsOptional, Max, Min } from 'class-validator';
import type { Request, Response } from 'express';
import { isRefused } from './question.ts';

class Question {
  /** How wet the invented place is: 1 is temperate. */
  @IsOptional() @IsNumber({ allowNaN: false, allowInfinity: false }) @Min(0.2) @Max(4) wetness?: number;
}

const DURATIONS_MIN = [5, 10, 15, 30, 60, 120, 360, 720, 1440];
const RETURN_YEARS = [2, 5, 10, 20, 50, 100];

/** How far the invented climate may be off either way, as a share of its depth. */
const LOW = 0.85;
const HIGH = 1.2;

/** Depth of the invented climate [mm]: intensity i = K·T^0.2 / (t + 8)^0.76, in mm/h and minutes. */
const depthMm = (years: number, minutes: number, wetness: number): number =>
  Math.round((10 * wetness * (620 * years ** 0.2 * minutes)) / (60 * (minutes + 8) ** 0.76)) / 10;

export function rainfallFrequency(request: Request, response: Response): void {
  const wetness = request.query.wetness === undefined ? {} : { wetness: Number(request.query.wetness) };
  const question = Object.assign(new Question(), wetness);
  if (isRefused(question, response, 'Give a wetness from 0.2 to 4.')) return;
  const depths = (factor: number): number[][] =>
    RETURN_YEARS.map((y) => DURATIONS_MIN.map((t) => Math.round(10 * factor * depthMm(y, t, question.wetness ?? 1)) / 10));
  response.json({
    source: 'simulated rainfall-frequency service',
    simulated: true,
    table: { durationsMin: DURATIONS_MIN, returnYears: RETURN_YEARS, depthMm: depths(1) },
    limits: { lowMm: depths(LOW), highMm: depths(HIGH) },
  });
}
