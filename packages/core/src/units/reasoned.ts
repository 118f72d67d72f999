/** A value with the sentences a person may ask for. */
export interface Reasoned<T> {
  value: T;
  because: string[];
}
