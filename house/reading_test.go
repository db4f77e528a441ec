package house_test

import (
	"io/fs"
	"os"
	"path/filepath"
	"regexp"
	"strings"
	"testing"
)

// What is read: sentences of the page, of what the rules and the rooms say, and of their books.
const (
	longest  = 30 // words of a sentence
	meanMost = 16.0
	fewWords = 3 // below that it is a label
)

var (
	scripts    = regexp.MustCompile(`(?s)<script.*?</script>|<style.*?</style>|<!--.*?-->`)
	blocks     = regexp.MustCompile(`</?(?:p|div|li|ul|ol|h1|h2|h3|button|td|th|tr|label|summary|legend|dt|dd|option|Button|Modal|section)\b[^>]*>`)
	tags       = regexp.MustCompile(`<[^>]*>`)
	goComments = regexp.MustCompile(`(?m)//.*$`)
	goRaw      = regexp.MustCompile("(?s)`[^`]*`")
	goJoined   = regexp.MustCompile(`"\s*\+\s*"`)
	quotedText = regexp.MustCompile(`"((?:[^"\\\n]|\\.)*)"`)
	verbs      = regexp.MustCompile(`%[-+#.0-9]*[a-zA-Z%]`)
	ends       = regexp.MustCompile(`[.!?:;]\s+|\n`)
)

// withoutExpressions is a page's text with what it works out left out.
func withoutExpressions(s string) string {
	var out strings.Builder
	depth := 0
	for _, c := range s {
		switch {
		case c == '{':
			depth++
		case c == '}':
			depth = max(0, depth-1)
		case depth == 0:
			out.WriteRune(c)
		}
	}
	return out.String()
}

// textsOf are the texts of a file that people read.
func textsOf(path, text string) []string {
	switch filepath.Ext(path) {
	case ".svelte":
		s := withoutExpressions(scripts.ReplaceAllString(text, " "))
		s = strings.Join(strings.Fields(blocks.ReplaceAllString(s, " ¶ ")), " ")
		return strings.Split(tags.ReplaceAllString(s, " "), "¶")
	case ".go":
		text = goJoined.ReplaceAllString(goComments.ReplaceAllString(goRaw.ReplaceAllString(text, " "), ""), "")
	}
	var out []string
	for _, m := range quotedText.FindAllStringSubmatch(text, -1) {
		if t := verbs.ReplaceAllString(m[1], "x"); strings.Contains(t, " ") && len(t) > 20 {
			out = append(out, t)
		}
	}
	return out
}

// notUsed are the words that docs/words.md rules out.
func notUsed(t *testing.T) *regexp.Regexp {
	page, err := os.ReadFile("../docs/words.md")
	if err != nil {
		t.Fatal(err)
	}
	_, after, found := strings.Cut(string(page), "## Not used\n\n")
	list, _, ended := strings.Cut(after, ";")
	if words := strings.Split(list, ", "); found && ended && len(words) > 5 {
		return regexp.MustCompile(`(?i)\b(?:` + strings.Join(words, "|") + `)\b`)
	}
	t.Fatalf("no words that are not used in docs/words.md: %q", list)
	return nil
}

// TestReading: what people read is short: no sentence over thirty words, under sixteen in the mean, and none of the words
// that nobody says any more.
func TestReading(t *testing.T) {
	ruledOut := notUsed(t)
	words, sentences := 0, 0
	for _, root := range []string{"../web/src", "../core", "../house"} {
		err := filepath.WalkDir(root, func(path string, e fs.DirEntry, err error) error {
			ext := filepath.Ext(path)
			book := ext == ".yaml" && strings.Contains(path, "/data/") && strings.HasPrefix(path, "../core") || filepath.Base(path) == "help.json"
			if err != nil || e.IsDir() || strings.HasSuffix(path, "_test.go") || ext != ".svelte" && ext != ".go" && !book {
				return err
			}
			text, err := os.ReadFile(path)
			for _, said := range textsOf(path, string(text)) {
				for _, s := range ends.Split(said, -1) {
					n := len(strings.Fields(s))
					if n < fewWords {
						continue
					}
					words, sentences = words+n, sentences+1
					if n > longest {
						t.Errorf("%s: %d words: %s", path, n, s)
					}
					if w := ruledOut.FindString(s); w != "" {
						t.Errorf("%s: %q is not used: %s", path, w, s)
					}
				}
			}
			return err
		})
		if err != nil {
			t.Fatal(err)
		}
	}
	mean := float64(words) / float64(max(1, sentences))
	t.Logf("%d sentences, %.1f words in the mean", sentences, mean)
	if sentences < 3000 || mean > meanMost {
		t.Errorf("%d sentences of %.1f words", sentences, mean)
	}
}
