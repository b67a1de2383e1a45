import { STOPS, type StopName } from '$lib/stops';

export const match = (param: string): param is StopName => STOPS.some((stop) => stop.name === param);
