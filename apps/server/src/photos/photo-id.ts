/** A photo's name: what can stand in a file name, and never leaves the folder. */
export const PHOTO_ID = /^[A-Za-z0-9][A-Za-z0-9_-]{0,63}$/;
