import { useEffect, useState } from 'react';
import { useSessionQuery } from '../api.js';

const TICK = 20_000;

/** The application's time in milliseconds, which runs on while the page is open and which the demo can move. */
export function useNow(): number {
  const { data, fulfilledTimeStamp } = useSessionQuery();
  const [tick, setTick] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setTick(Date.now()), TICK);
    return () => clearInterval(timer);
  }, []);
  if (data === undefined || fulfilledTimeStamp === undefined) return tick;
  return Date.parse(data.now) + Math.max(0, tick - fulfilledTimeStamp);
}
