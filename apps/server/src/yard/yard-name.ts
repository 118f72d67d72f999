/** What the yard is called, and the money it buys wire with: as it was started. */
export const yardName = (unnamed: string): string => process.env.USTLE_NAME ?? unnamed;
export const yardMoney = (): string => process.env.USTLE_MONEY ?? '€';
