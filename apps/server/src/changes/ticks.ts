/** Counts writes by company, as far as this server knows. A cached result is valid while the count is unchanged. */
const ticks = new Map<string, number>();

export const tickOf = (companyId: string): number => ticks.get(companyId) ?? 0;

export const touch = (companyId: string): void => {
  ticks.set(companyId, tickOf(companyId) + 1);
};

/** Notifications may have been lost. */
export const touchAll = (): void => {
  for (const companyId of ticks.keys()) touch(companyId);
};
