package garden

import (
	"maps"
	"slices"
	"strings"

	"mezzadro/core/catalogue"
	"mezzadro/core/invalid"
	"mezzadro/exchange"
	"mezzadro/house/estate"
)

// NoKind is a name of a file that stands for no kind.
type NoKind struct {
	Name  string `json:"name" doc:"As the file has it, without a cultivar behind it"`
	Lines []int  `json:"lines" doc:"Lines of the file that name it"`
	Near  []Near `json:"near" doc:"Kinds that it may mean, the likeliest first"`
}

// Near is a kind that a name may mean.
type Near struct {
	ID        string `json:"id"`
	Common    string `json:"common"`
	Botanical string `json:"botanical"`
}

// Taking is how a file's plants are taken: what is done with those that stand here already, and which kind the file's own
// names mean; a name that means none leaves its lines out.
type Taking struct {
	Standing string
	Called   map[string]string
}

// settle puts the kinds in place that the file's own names were told to mean, and takes out the lines of those that mean
// none. It returns how many it took out.
func (how Taking) settle(sheet *exchange.PlantSheet, book *catalogue.Catalogue) (leftOut int, err error) {
	var bad invalid.Fields
	for _, name := range slices.Sorted(maps.Keys(how.Called)) {
		if id := how.Called[name]; id != "" {
			if _, known := book.Entry(id); !known {
				bad.Add("called", name+"="+id, "%q is no kind of the book", id)
			}
		}
	}
	kept := sheet.Lines[:0]
	for _, l := range sheet.Lines {
		kind, more := catalogue.Parted(l.Species)
		id, told := how.Called[kind]
		switch {
		case told && id == "":
			leftOut++
			continue
		case told:
			l.Species, l.Note = id, withCultivar(l.Note, more)
		}
		kept = append(kept, l)
	}
	sheet.Lines = kept
	return leftOut, bad.Err()
}

// unknown are the names of a file that are no kind's, in the order they stand there.
func unknown(sheet exchange.PlantSheet, book *catalogue.Catalogue) []NoKind {
	out, at := []NoKind{}, map[string]int{}
	for _, l := range sheet.Lines {
		if id, _ := book.Named(l.Species); id != "" {
			continue
		}
		kind, _ := catalogue.Parted(l.Species)
		i, asked := at[kind]
		if !asked {
			i = len(out)
			at[kind] = i
			n := NoKind{Name: kind, Near: []Near{}}
			for _, id := range book.Near(kind) {
				e := estate.EntryOf(book, id)
				n.Near = append(n.Near, Near{id, e.Common, e.Botanical})
			}
			out = append(out, n)
		}
		out[i].Lines = append(out[i].Lines, l.Line)
	}
	return out
}

// withCultivar is a note with what the file's name of the kind says beside: its cultivar, most often.
func withCultivar(note, more string) string {
	if more == "" || strings.Contains(note, more) {
		return note
	}
	return strings.TrimSpace(more + " " + note)
}
