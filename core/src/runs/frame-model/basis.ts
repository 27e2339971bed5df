/**
 * How near to a measurement a forecast is: runs of this very cell; somebody's figure of it; runs or figures of this host and card over this
 * link in another size or look; host, card or link reached by their index or rate alone;
 * nothing, but start values or what titles usually need.
 */
export const FORECAST_BASES = ['measured', 'stated', 'near', 'far', 'start'] as const;
export type ForecastBasis = (typeof FORECAST_BASES)[number];
