// Package site answers what a spot on a property gets: how many hours of direct sun by month, from where the wind
// comes, which walls warm it, whose roots it shares, and what of that a cut, a fall or a planting changes.
//
// A plan is drawn in metres, x to the east and y to the north. Things on it stand upright: walls, fences, hedges and
// buildings as lines and outlines with a height, plants and trees as crowns of revolution. The sun's place is that of
// solar geometry (NOAA); it is followed from sunrise to sunset in steps of ten minutes at most, on three days of each
// month. What a crown lets through depends on how far the ray goes through it and on whether it is in leaf. Clouds,
// the sun's breadth and hills beyond the plan are left out: these are the hours of a clear day.
package site
