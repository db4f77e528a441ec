package quantity

import (
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
var called, worded = func() (*regexp.Regexp, *regexp.Regexp) {
	var names []string
	for name := range terms {
		names = append(names, regexp.QuoteMeta(name))
	}
	slices.SortFunc(names, func(a, b string) int { return len(b) - len(a) })
	all := "(" + strings.Join(names, "|") + ")"
	return regexp.MustCompile(`(?i)\b` + all + `\b`), regexp.MustCompile("(?i)" + open + string(term) + all + close)
}()

// Worded marks the words of a text that regions call differently, so that they are written as the reader's region has
// them. Only texts of the program's own are marked, never what somebody wrote.
func Worded(text string) string {
	return called.ReplaceAllString(worded.ReplaceAllString(text, "$1"), open+string(term)+"$1"+close)
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
