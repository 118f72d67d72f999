import { useEffect, useEffectEvent, useMemo, useState } from 'react';
import { useNotice } from '../app/notice';
import { useKeys } from './keys';
import { whileSeen } from './while-seen';

interface Reading {
  value: number;
  settled: boolean;
}

interface Props {
  name: string;
  unit: string;
  /** Told where the pointer rests on it. */
  title: string;
  /** Where its readings come from, line by line. */
  stream: string;
  /** Makes it measure. */
  press: () => Promise<unknown>;
  /** What it shows once it rests. */
  onValue: (value: number) => void;
}

/** A measuring device beside the fields that it fills: its button or F9 makes it measure, and what it shows when it rests is taken. */
export function Device({ name, unit, title, stream, press, onValue }: Props) {
  const [reading, setReading] = useState<Reading | null>(null);
  const { attempt } = useNotice();
  const take = useEffectEvent((value: number) => onValue(value));
  const measure = useMemo(() => () => void attempt(press), [attempt, press]);
  useEffect(
    () =>
      whileSeen(() => {
        const source = new EventSource(stream);
        source.onmessage = (event) => {
          const next = JSON.parse(event.data as string) as Reading;
          setReading(next);
          if (next.settled) take(next.value);
        };
        return () => source.close();
      }),
    [stream],
  );
  useKeys(
    name,
    useMemo(() => [{ keys: 'f9', what: 'measure', inFields: true, run: (event) => (event.preventDefault(), measure()) }], [measure]),
  );
  return (
    <button
      type="button"
      className="btn btn-outline btn-sm border-rule font-normal"
      title={title}
      onMouseDown={(event) => event.preventDefault()}
      onClick={measure}
    >
      {name} F9{' '}
      <span className={`w-18 text-right ${reading?.settled ? 'font-bold' : 'text-quiet'}`}>
        {reading ? `${reading.value.toFixed(1)} ${unit}` : `– ${unit}`}
      </span>
    </button>
  );
}
