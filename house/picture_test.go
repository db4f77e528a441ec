package house

import (
	"flag"
	"fmt"
	"go/build"
	"html"
	"os"
	"slices"
	"strings"
	"testing"
)

var draw = flag.Bool("draw", false, "write docs/rooms.svg anew")

// picture is where the rooms are drawn.
const picture = "../docs/rooms.svg"

// TestPictureIsTrue: the picture of the rooms shows their imports as they are. Where it does not:
// go test ./house -run TestPictureIsTrue -draw
func TestPictureIsTrue(t *testing.T) {
	want, err := drawn()
	if err != nil {
		t.Fatal(err)
	}
	if *draw {
		if err := os.WriteFile(picture, []byte(want), 0o644); err != nil {
			t.Fatal(err)
		}
	}
	if got, err := os.ReadFile(picture); err != nil || string(got) != want {
		t.Errorf("docs/rooms.svg does not show the rooms as they are (%v): go test ./house -run TestPictureIsTrue -draw", err)
	}
}

// Measures of the picture, px.
const (
	rowH, boxW, boxH, left, top = 46, 620, 36, 16, 16
)

// drawn is the picture: the rooms from the last to the first, each with what it is for; arcs lead to rooms that one leans
// on. All lean on the estate, which is not drawn.
func drawn() (string, error) {
	rooms := slices.Clone(order)
	slices.Reverse(rooms)
	at := map[string]int{}
	for i, room := range rooms {
		at[room] = top + i*rowH
	}
	var boxes, arcs strings.Builder
	for _, room := range rooms {
		p, err := build.ImportDir(room, 0)
		if err != nil {
			return "", err
		}
		doc := strings.TrimPrefix(p.Doc, "Package "+room+" is ")
		y := at[room]
		fmt.Fprintf(&boxes, `<rect x="%d" y="%d" width="%d" height="%d" fill="#fbfaf5" stroke="#1e2b26"/>`+"\n", left, y, boxW, boxH)
		fmt.Fprintf(&boxes, `<text x="%d" y="%d" font-weight="bold">%s</text><text x="%d" y="%d">%s</text>`+"\n", left+10, y+23, room, left+100, y+23, html.EscapeString(short(doc)))
		n := 0
		for _, other := range order[1:] {
			if other == room || !slices.Contains(p.Imports, "mezzadro/house/"+other) {
				continue
			}
			from, to, x := y+boxH/2-8+4*n, at[other]+boxH/2, left+boxW
			reach := 24 + 9*(to-from)/rowH
			fmt.Fprintf(&arcs, `<path d="M%d %d C%d %d %d %d %d %d" fill="none" stroke="#35633f" marker-end="url(#a)"><title>%s leans on %s</title></path>`+"\n",
				x, from, x+reach, from, x+reach, to, x+2, to, room, other)
			n++
		}
	}
	w, h := left+boxW+150, 2*top+len(rooms)*rowH
	return fmt.Sprintf(`<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 %d %d" font-family="sans-serif" font-size="13" fill="#1e2b26" role="img" aria-label="The rooms of the house and what they lean on">
<defs><marker id="a" viewBox="0 0 8 8" refX="7" refY="4" markerWidth="7" markerHeight="7" orient="auto"><path d="M0 0 L8 4 L0 8 z" fill="#35633f"/></marker></defs>
<rect width="%d" height="%d" fill="#fff"/>
%s%s</svg>
`, w, h, w, h, boxes.String(), arcs.String()), nil
}

// short is a text cut at a word, to fit its box.
func short(text string) string {
	const most = 72
	if len(text) <= most {
		return text
	}
	return text[:strings.LastIndex(text[:most], " ")] + " …"
}
