// Package yardstick reads the tables that the rules are held to, for tests.
package yardstick

import (
	"encoding/csv"
	"os"
	"testing"
)

// Rows are the rows of a table with a heading, by column; a file that cannot be read ends the test.
func Rows(t testing.TB, name string) []map[string]string {
	t.Helper()
	f, err := os.Open(name)
	if err != nil {
		t.Fatal(err)
	}
	defer f.Close()
	rows, err := csv.NewReader(f).ReadAll()
	if err != nil {
		t.Fatal(err)
	}
	out := make([]map[string]string, 0, len(rows))
	for _, r := range rows[1:] {
		m := map[string]string{}
		for i, c := range rows[0] {
			m[c] = r[i]
		}
		out = append(out, m)
	}
	return out
}
