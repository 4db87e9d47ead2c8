// A machine bought, used and sold again, held against one that is hired.

export interface MachineSaid {
  readonly price: number;
  /** What it sells for afterwards. */
  readonly resale: number;
  /** Fuel, wear and repairs for an hour of it. */
  readonly upkeepAnHour: number;
  readonly hireAnHour: number;
  /** Bringing the hired one and taking it away, once. */
  readonly bringing: number;
  /** Hours of work it does. */
  readonly hours: number;
}

export interface MachineHeld {
  readonly owned: number;
  readonly hired: number;
  /** Hours from which on the own one is cheaper; null where it never is. */
  readonly evenAtHours: number | null;
}

/** What both come to, in whatever money they were told in. */
export function ownOrHire({ price, resale, upkeepAnHour, hireAnHour, bringing, hours }: MachineSaid): MachineHeld {
  const loses = price - resale;
  const saves = hireAnHour - upkeepAnHour;
  return {
    owned: loses + hours * upkeepAnHour,
    hired: bringing + hours * hireAnHour,
    evenAtHours: saves > 0 ? Math.max(0, (loses - bringing) / saves) : null,
  };
}
