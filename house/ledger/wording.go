package ledger

import (
	"slices"

	"mezzadro/core/estimate"
	"mezzadro/core/quantity"
	"mezzadro/core/report"
)

// Written is a line with its figures as its reader has them.
func Written(l estimate.Line, s quantity.Style) estimate.Line {
	l.Title, l.Plant, l.Waits = s.Text(l.Title), s.Text(l.Plant), s.Text(l.Waits)
	l.Parts = slices.Clone(l.Parts)
	for i := range l.Parts {
		l.Parts[i].Text, l.Parts[i].Of = s.Text(l.Parts[i].Text), s.Text(l.Parts[i].Of)
	}
	return l
}

// unwritten are lines as they were sent back, with the words of those kept where they read as those do: figures stay ones
// that each reader has in their own units.
func unwritten(kept, next []estimate.Line, s quantity.Style) {
	for i := range next {
		k := slices.IndexFunc(kept, func(o estimate.Line) bool { return o.ID == next[i].ID })
		if k < 0 {
			continue
		}
		as := asKept(s, &next[i].Title, &next[i].Plant, &next[i].Waits)
		as(kept[k].Title, kept[k].Plant, kept[k].Waits)
		for n := range next[i].Parts {
			for _, p := range kept[k].Parts {
				as := asKept(s, &next[i].Parts[n].Text, &next[i].Parts[n].Of)
				as(p.Text, p.Of)
			}
		}
	}
}

// asKept gives texts the words that were kept, each where it reads as they do.
func asKept(s quantity.Style, texts ...*string) func(kept ...string) {
	return func(kept ...string) {
		for i, k := range kept {
			if *texts[i] == s.Text(k) {
				*texts[i] = k
			}
		}
	}
}

// InStyle is a report with its figures as its reader has them.
func InStyle(r report.Report, s quantity.Style) report.Report {
	r.Title, r.Summary, r.Sections = s.Text(r.Title), slices.Clone(r.Summary), slices.Clone(r.Sections)
	for i := range r.Summary {
		r.Summary[i] = s.Text(r.Summary[i])
	}
	for i := range r.Sections {
		for _, t := range texts(&r.Sections[i]) {
			*t = s.Text(*t)
		}
	}
	return r
}

// texts are those of a section.
func texts(x *report.Section) []*string {
	return []*string{&x.Head, &x.Found, &x.Becomes, &x.We, &x.You, &x.Dont}
}

// asWritten is a report that was sent back, with the words of the one kept where they read as those do.
func asWritten(kept, next report.Report, s quantity.Style) report.Report {
	asKept(s, &next.Title)(kept.Title)
	for i := range next.Summary {
		for _, k := range kept.Summary {
			asKept(s, &next.Summary[i])(k)
		}
	}
	for i := range next.Sections {
		for k := range kept.Sections {
			if x, old := &next.Sections[i], &kept.Sections[k]; x.PlantID == old.PlantID {
				for n, t := range texts(old) {
					asKept(s, texts(x)[n])(*t)
				}
			}
		}
	}
	return next
}
