package quantity

import (
	"bytes"
	"regexp"
	"slices"
	"strings"
)

// terms are words of the trade that are unknown in North America, each with what it is called there. Texts are written
// with the first of them.
var terms = map[string]string{
	"fleece":     "frost cloth",
	"secateurs":  "hand pruners",
	"half-ripe":  "semi-hardwood",
	"leaf mould": "leaf mold",
	"strimmer":   "string trimmer",
	"strimmers":  "string trimmers",
}

// called finds the terms in a text, as words of their own; worded finds them where they are marked.
var names = func() (out []string) {
	for name := range terms {
		out = append(out, name)
	}
	slices.SortFunc(out, func(a, b string) int { return len(b) - len(a) })
	return out
}()

var worded = func() *regexp.Regexp {
	var all []string
	for _, name := range names {
		all = append(all, regexp.QuoteMeta(name))
	}
	return regexp.MustCompile("(?i)" + open + string(term) + "(" + strings.Join(all, "|") + ")" + close)
}()

// Worded marks the words of a text that regions call differently, so that they are written as the reader's region has
// them. Only texts of the program's own are marked, never what somebody wrote.
func Worded(text string) string {
	if strings.Contains(text, open) {
		text = worded.ReplaceAllString(text, "$1")
	}
	var out strings.Builder
	at := 0
	for _, w := range called(text) {
		if w[0] < at {
			continue // within a longer one
		}
		out.WriteString(text[at:w[0]] + open + string(term) + text[w[0]:w[1]] + close)
		at = w[1]
	}
	if at == 0 {
		return text
	}
	out.WriteString(text[at:])
	return out.String()
}

// called are the places of a text's words that regions call differently, from where to where, the longer first where two begin.
// Looked for one by one: an expression with all of them takes ten times as long on a book.
func called(text string) (out [][2]int) {
	low := []byte(text)
	for i, c := range low {
		if c >= 'A' && c <= 'Z' {
			low[i] = c + 'a' - 'A'
		}
	}
	inWord := func(i int) bool {
		return i >= 0 && i < len(low) && (low[i] == '_' || low[i] >= '0' && low[i] <= '9' || low[i] >= 'a' && low[i] <= 'z')
	}
	for _, name := range names {
		for from := 0; ; {
			i := bytes.Index(low[from:], []byte(name))
			if i < 0 {
				break
			}
			i += from
			if from = i + 1; !inWord(i-1) && !inWord(i+len(name)) {
				out = append(out, [2]int{i, i + len(name)})
			}
		}
	}
	slices.SortStableFunc(out, func(a, b [2]int) int { return a[0] - b[0] })
	return out
}

// term is a marked word as the reader's region has it; a capital stays one.
func (s Style) term(word string) string {
	if !s.American {
		return word
	}
	other, known := terms[strings.ToLower(word)]
	if !known {
		return word
	}
	if word[0] >= 'A' && word[0] <= 'Z' {
		return strings.ToUpper(other[:1]) + other[1:]
	}
	return other
}
