package replacement

import (
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/quantity"
)

// wished judges a kind by what it should be.
func (f *fitting) wished() {
	w, e := f.Wish, f.e
	if w.Evergr && e.LeafSeason != catalogue.Evergreen {
		f.out("It is not evergreen.")
	}
	if w.Edible && e.Edible == "" {
		f.out("Nothing of it is eaten.")
	}
	if len(w.Forms) > 0 && !slices.Contains(w.Forms, e.Form) {
		f.out("It is a %s.", e.Form)
	}
	if w.MaxM > 0 && e.Mature.HeightM > 1.15*w.MaxM {
		f.out("It grows %s tall.", quantity.Length(e.Mature.HeightM))
	}
	f.screens()
	f.blooms()
	f.flowers()
	f.likeBefore()
	if w.SameKind && f.Died.Species != "" {
		if strings.EqualFold(genusOf(f.Among, f.Died.Species), e.Genus()) {
			f.counts("wish", "same_kind", 1, "of the same kind as before")
		}
	}
}

// likeBefore gives points to what would fill the same gap, the form and the size of what stood there, and takes some
// from what would not.
func (f *fitting) likeBefore() {
	for i := range f.Among {
		b := &f.Among[i]
		if b.ID != f.Died.Species {
			continue
		}
		if b.Form == f.e.Form {
			f.counts("wish", "same_form", 1, "of the same form as what stood there")
		} else if low(b.Form) && low(f.e.Form) {
			f.counts("wish", "same_place", 1, "fills the same place as what stood there")
		}
		if b.LeafSeason == catalogue.Evergreen && f.e.LeafSeason == catalogue.Evergreen {
			f.counts("wish", "green_as_before", 1, "green in winter, as what stood there")
		}
		switch r := f.e.Mature.HeightM / b.Mature.HeightM; {
		case r > 0.6 && r < 1.6:
			f.counts("wish", "as_tall", 1, "about as tall")
		case len(f.Wish.Forms) > 0 || f.Wish.MaxM > 0:
		case r > 3:
			f.counts("wish", "far_taller", 1, "it grows far taller than what stood there")
		case r < 0.15:
			f.counts("wish", "far_lower", 1, "it stays far lower than what stood there")
		}
	}
}

// low reports forms that take each other's place in a bed.
func low(f catalogue.Form) bool {
	return f == catalogue.Shrub || f == catalogue.Subshrub || f == catalogue.Perennial
}

func genusOf(among []catalogue.Entry, id string) string {
	for i := range among {
		if among[i].ID == id {
			return among[i].Genus()
		}
	}
	return ""
}

func (f *fitting) screens() {
	w, e := f.Wish, f.e
	if w.ScreenM == 0 {
		return
	}
	switch {
	case e.Mature.HeightM < 0.9*w.ScreenM || e.Form == catalogue.Perennial || e.Form == catalogue.Palm:
		f.out("It does not hide what is %s tall.", quantity.Length(w.ScreenM))
		return
	case w.Within > 0 && f.after(w.Within).HeightM < 0.9*w.ScreenM:
		f.counts("wish", "hides_late", 1, "after %d years it stands at %s: it hides too late", w.Within, quantity.Length(f.after(w.Within).HeightM))
	}
	if e.LeafSeason == catalogue.Evergreen {
		f.counts("wish", "hides_in_winter", 1, "it hides in winter too")
	} else {
		f.counts("wish", "bare_in_winter", 1, "in winter one sees through it")
	}
	if e.Mature.HeightM > 3*w.ScreenM {
		f.counts("wish", "cut_for_ever", 1, "it would be cut for ever to stay at that height")
	}
}

func (f *fitting) blooms() {
	if len(f.Wish.Bloom) == 0 {
		return
	}
	months := f.BloomMonths(f.e)
	hit := 0
	for _, m := range f.Wish.Bloom {
		if slices.Contains(months, m) {
			hit++
		}
	}
	if hit == 0 || f.e.Form == catalogue.Conifer || f.e.Bloom.Habit == "evergreen for leaf" {
		f.counts("wish", "blooms_never", 1, "it does not bloom then")
		return
	}
	f.counts("wish", "blooms_then", float64(hit)/float64(len(f.Wish.Bloom)), "it blooms then")
}

// flowers judges colour, scent and what insects find, where somebody asks for them.
func (f *fitting) flowers() {
	w, has := f.Wish, f.e.Flower
	if has == nil {
		has = &catalogue.Flower{}
	}
	if len(w.Colours) > 0 {
		switch {
		case len(has.Colours) == 0:
			f.counts("wish", "no_flower", 1, "its flowers are nothing to look at")
		case slices.ContainsFunc(w.Colours, func(c string) bool { return slices.Contains(has.Colours, c) }):
			f.counts("wish", "colour_right", 1, "there are kinds of it in that colour: %s", strings.Join(has.Colours, ", "))
		default:
			f.counts("wish", "colour_wrong", 1, "it blooms in %s", strings.Join(has.Colours, ", "))
		}
	}
	if w.Scent && has.Scent {
		f.counts("wish", "scent", 1, "one smells its bloom from a step away")
	} else if w.Scent {
		f.counts("wish", "no_scent", 1, "it has no scent to speak of")
	}
	switch {
	case !w.Pollin:
	case has.Bees == "rich":
		f.counts("wish", "bees_rich", 1, "bees and their like live on it")
	case has.Bees == "some":
		f.counts("wish", "bees_some", 1, "insects find something in it")
	default:
		f.counts("wish", "bees_none", 1, "insects find nothing in it")
	}
}

// BloomMonths are the months in which a kind blooms at the place, in a year as usual.
func (a *Ask) BloomMonths(e *catalogue.Entry) (out []int) {
	from, _ := a.Year.Normals.Climate.GardenYear(planted)
	dates := e.Dates(a.Year, from+200)
	if !dates.Blooms {
		return nil
	}
	for d := dates.BloomStart.Mid; d <= max(dates.BloomEnd.Mid, dates.BloomStart.Mid+7) && d < dates.BloomStart.Mid+360; d += 5 {
		if m := int(d.Time().Month()); !slices.Contains(out, m) {
			out = append(out, m)
		}
	}
	return out
}
