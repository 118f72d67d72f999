/** Text as it may stand in a drawing or a page's source. */
export const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => `&#${c.charCodeAt(0)};`);
