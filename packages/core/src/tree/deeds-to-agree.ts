/** What cannot be undone beside cuts: on a client's tree it waits until they agreed to it. */
export const DEEDS_TO_AGREE = ['trunk', 'repotting', 'leaves', 'pruning', 'unlisting'] as const;
export type DeedToAgree = (typeof DEEDS_TO_AGREE)[number];
