// Package season answers where in its year a place stands: what the temperature normally is on a day, how this
// year differs, when frost is past, how many degree-days have gathered and when a given number will be reached.
//
// The model. A climate is a place with twelve monthly normals and its mean yearly extreme minimum. Daily normals
// are the smoothest periodic curve that keeps every month's mean. Around them the daily temperature swings by an
// autoregressive anomaly of first order (lag-one correlation 0.7) whose winter spread is solved so that the
// expected coldest night of a year is the extreme minimum, and whose summer spread follows the daily range. From the
// normals and those spreads follow frost likelihood, the last frost and the dates on which degree-day sums are
// reached, each with a 10/50/90 % band. These quick bands are analytic estimates: days already observed are taken as
// they were, days ahead as normal days shifted together by the uncertainty of their mean. Simulate makes the full
// outlook of a year from hundreds of simulated ones, the Generator single years with rain, wind and sun. A Site moves a
// climate to a frost pocket, a warm wall, a town or a windy place. Anchors tie a plant's events to all of this.
//
// Sources: single-sine degree-days after Baskerville and Emin (1969, Ecology 50:514); hourly curve after Parton
// and Logan (1981, Agricultural Meteorology 23:205); daylength after the NOAA solar equations.
package season
