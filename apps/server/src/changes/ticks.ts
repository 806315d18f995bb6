/** How often something of each company was written, as far as this server knows: what was worked out of it holds while the number is the same. */
const ticks = new Map<string, number>();

export const tickOf = (companyId: string): number => ticks.get(companyId) ?? 0;

export const touch = (companyId: string): void => {
  ticks.set(companyId, tickOf(companyId) + 1);
};

/** Something may have been missed. */
export const touchAll = (): void => {
  for (const companyId of ticks.keys()) touch(companyId);
};
