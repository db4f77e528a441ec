// Package replacement answers what may stand on a spot: how well a kind fits it, what to plant where something died,
// what is left out and why, when it is planted, and how it will have grown.
//
// A kind starts from 85 points of a hundred; what suits adds some, what does not takes some off, and what cannot be
// leaves it out, each with its reason. What the spot is comes from the site plan, or from what the user says of it;
// what is not known counts for nothing. The weights are the order in which gardeners judge: what kills (cold, drowned
// roots, the trouble that is still in the soil, danger to children) before what spoils (light, wind, room), and that
// before taste.
package replacement
