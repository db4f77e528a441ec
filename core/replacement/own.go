package replacement

// Own is what the firm's own record says of a kind.
type Own struct {
	Stood int `json:"stood" minimum:"0" doc:"Plants of it that are in the record, and alive"`
	Lost  int `json:"lost" minimum:"0" doc:"Plants of it that died or were given up"`
}

// How much the firm's own record counts.
const (
	ownFew   = 3    // plants from which it says anything
	ownUsual = 0.08 // share lost that is nobody's fault
)

// known minds what became of the kind where this firm has planted it.
func (f *fitting) known() {
	o, some := f.Own[f.e.ID]
	all := o.Stood + o.Lost
	if !some || all < ownFew {
		return
	}
	// One more of each, so that little is made of few (Laplace's rule of succession).
	share := float64(o.Lost+1) / float64(all+2)
	switch {
	case o.Lost > 0 && share > 2*ownUsual:
		f.counts("own record", "lost", share-ownUsual, "of %d in your record %d were lost", all, o.Lost)
	case share <= 2*ownUsual:
		f.counts("own record", "none_lost", 1, "of %d in your record %d were lost", all, o.Lost)
	}
}
