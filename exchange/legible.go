package exchange

import (
	"strings"
	"sync"

	"golang.org/x/image/font/gofont/goregular"
	"golang.org/x/image/font/sfnt"
)

// printed is the font that PDFs are written in.
var printed = sync.OnceValue(func() *sfnt.Font {
	f, err := sfnt.Parse(goregular.TTF)
	if err != nil {
		panic(err) // it ships with the program
	}
	return f
})

// legible is a text without the letters that the font of PDFs does not have: they would come out as boxes. The rest is
// as it was.
func legible(text string) string {
	var buf sfnt.Buffer
	out := strings.Map(func(r rune) rune {
		if r == '\n' || r == '\t' || r == ' ' {
			return r
		}
		if n, err := printed().GlyphIndex(&buf, r); err != nil || n == 0 || r > 0xffff {
			return -1
		}
		return r
	}, text)
	if out == text {
		return text
	}
	return strings.TrimSpace(strings.Join(strings.Fields(out), " "))
}
