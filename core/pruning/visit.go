package pruning

// InOneVisit is why what follows a cut hangs on it.
const InOneVisit = "best in one visit"
