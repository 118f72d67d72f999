import { useCallback, useEffect, useLayoutEffect, useRef, type KeyboardEvent, type RefObject } from 'react';
import { clamp, wrapDeg } from '@ustle/core';
import type { Stand } from './stand';

/** Turntables that turn together: each is told by how much another one is being turned, degrees. */
export type Company = Set<(by: number) => void>;

const STEP = 3;
const BIG_STEP = 15;
const LEAST_ZOOM = 0.7;
const MOST_ZOOM = 5;

interface Given {
  bearing: number;
  onBearing: (bearing: number) => void;
  company: Company | undefined;
  /** Asks for a frame. */
  again: RefObject<(() => void) | null>;
  /** Told of every bearing on the way, in whole degrees. */
  onStand: (whole: number) => void;
}

/** Where the viewer stands. While it is turned the table runs ahead of the page's address, which follows when it rests. */
export function useStand({ bearing, onBearing, company, again, onStand }: Given) {
  const live = useRef<Stand>({ bearing, zoom: 1 });
  const told = useRef(onStand);
  useEffect(() => {
    told.current = onStand;
  });
  const stand = useCallback(
    (to: number) => {
      live.current.bearing = wrapDeg(to);
      told.current(Math.round(live.current.bearing) % 360);
      again.current?.();
    },
    [again],
  );
  // Bearings that the address was given and has not answered with yet: what comes late is not turned back to.
  const sent = useRef<number[]>([]);
  useLayoutEffect(() => {
    const own = sent.current.indexOf(bearing);
    sent.current = own < 0 ? [] : sent.current.slice(own + 1);
    if (own < 0 && live.current.bearing !== bearing) stand(bearing);
  }, [stand, bearing]);
  useEffect(() => {
    if (!company) return;
    const follow = (by: number): void => stand(bearing + by);
    company.add(follow);
    return () => void company.delete(follow);
  }, [company, bearing, stand]);

  const turnTo = (to: number): void => {
    stand(to);
    company?.forEach((follow) => follow(to - bearing));
  };
  const rest = (to: number): void => {
    const whole = Math.round(wrapDeg(to)) % 360;
    turnTo(whole);
    sent.current.push(whole);
    onBearing(whole);
  };
  const nearer = (by: number): void => {
    live.current.zoom = clamp(live.current.zoom * by, LEAST_ZOOM, MOST_ZOOM);
    again.current?.();
  };
  const onKeyDown = (event: KeyboardEvent): void => {
    const steps = event.shiftKey ? BIG_STEP : STEP;
    if (event.key === 'ArrowLeft') rest(live.current.bearing - steps);
    else if (event.key === 'ArrowRight') rest(live.current.bearing + steps);
    else if (event.key === '+' || event.key === '=') nearer(1.15);
    else if (event.key === '-') nearer(1 / 1.15);
    else return;
    event.preventDefault();
  };
  return { live, turnTo, rest, nearer, onKeyDown };
}
