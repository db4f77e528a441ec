package exchange

import (
	"strings"
	"unicode/utf8"

	"golang.org/x/text/encoding/charmap"
	"golang.org/x/text/encoding/unicode"
	"golang.org/x/text/transform"
)

// readable is a text file as spreadsheets write it, as UTF-8: with or without a byte-order mark, in UTF-16, or in the
// one-byte code of western Europe where it is no UTF-8.
func readable(b []byte) (string, error) {
	plain := unicode.UTF8.NewDecoder()
	if !utf8.Valid(b) {
		plain = charmap.Windows1252.NewDecoder()
	}
	out, _, err := transform.Bytes(unicode.BOMOverride(plain), b)
	return string(out), err
}

// separator is what parts the cells of a text, by its first line; a line "sep=;" before it says so itself and is taken off.
func separator(text string) (rest string, sep rune) {
	first, after, _ := strings.Cut(text, "\n")
	if s, said := strings.CutPrefix(strings.ToLower(strings.TrimSpace(first)), "sep="); said && len(s) == 1 {
		return after, rune(s[0])
	}
	sep, most := ',', 0
	for _, c := range []rune{',', ';', '\t'} {
		n, quoted := 0, false
		for _, r := range first {
			switch {
			case r == '"':
				quoted = !quoted
			case r == c && !quoted:
				n++
			}
		}
		if n > most {
			sep, most = c, n
		}
	}
	return text, sep
}

// figure is a number as written in a cell with a point again: a decimal comma where cells are not parted by commas, and any
// of the minus signs.
func figure(cell string, sep rune) string {
	cell = strings.NewReplacer("−", "-", "\u00a0", "", "\u202f", "").Replace(cell)
	if sep != ',' && strings.Count(cell, ",") == 1 && !strings.Contains(cell, ".") {
		cell = strings.Replace(cell, ",", ".", 1)
	}
	return cell
}

// risky are the first letters by which a spreadsheet takes a cell for a formula.
const risky = "=+-@\t\r"

// inert is a text that no spreadsheet takes for a formula: with an apostrophe before it, where it begins like one, or
// with such an apostrophe.
func inert(text string) string {
	rest := strings.TrimLeft(text, "'")
	if rest != "" && strings.ContainsRune(risky, rune(rest[0])) {
		return "'" + text
	}
	return text
}

// live takes the apostrophe off again that inert has put there.
func live(text string) string {
	rest := strings.TrimLeft(text, "'")
	if len(rest) < len(text) && rest != "" && strings.ContainsRune(risky, rune(rest[0])) {
		return text[1:]
	}
	return text
}
