// Command describe writes what the comments of the program's types and their fields say, as JSON by package and name, for
// the description of the API. It is run by make generate, in the folder of the module.
package main

import (
	"encoding/json"
	"fmt"
	"go/ast"
	"go/parser"
	"go/token"
	"io/fs"
	"os"
	"path/filepath"
	"reflect"
	"strconv"
	"strings"
)

func main() {
	out := map[string]string{}
	for _, root := range []string{"core", "house", "store", "exchange", "api"} {
		if err := read(root, out); err != nil {
			fmt.Fprintln(os.Stderr, "describe:", err)
			os.Exit(1)
		}
	}
	e := json.NewEncoder(os.Stdout)
	e.SetIndent("", " ")
	e.SetEscapeHTML(false)
	if err := e.Encode(out); err != nil {
		fmt.Fprintln(os.Stderr, "describe:", err)
		os.Exit(1)
	}
}

// read takes the comments of all packages below a folder.
func read(root string, out map[string]string) error {
	return filepath.WalkDir(root, func(path string, d fs.DirEntry, err error) error {
		if err != nil || d.IsDir() || !strings.HasSuffix(path, ".go") || strings.HasSuffix(path, "_test.go") {
			return err
		}
		f, err := parser.ParseFile(token.NewFileSet(), path, nil, parser.ParseComments)
		if err != nil {
			return err
		}
		pkg := "mezzadro/" + filepath.ToSlash(filepath.Dir(path))
		for _, decl := range f.Decls {
			g, is := decl.(*ast.GenDecl)
			if !is || g.Tok != token.TYPE {
				continue
			}
			for _, spec := range g.Specs {
				t := spec.(*ast.TypeSpec)
				if !t.Name.IsExported() {
					continue // no answer is made of it
				}
				doc := t.Doc
				if doc == nil {
					doc = g.Doc
				}
				if text := said(doc, t.Name.Name); text != "" {
					out[pkg+"."+t.Name.Name] = text
				}
				if s, is := t.Type.(*ast.StructType); is {
					fields(pkg+"."+t.Name.Name, s, out)
				}
			}
		}
		return nil
	})
}

// fields takes the comments of a struct's fields, by their names in JSON.
func fields(of string, s *ast.StructType, out map[string]string) {
	for _, f := range s.Fields.List {
		if f.Tag == nil {
			continue
		}
		text, err := strconv.Unquote(f.Tag.Value)
		if err != nil {
			continue // the compiler says so
		}
		name, _, _ := strings.Cut(reflect.StructTag(text).Get("json"), ",")
		said := said(f.Doc, "")
		if said == "" {
			said = saidBeside(f.Comment)
		}
		if name != "" && name != "-" && said != "" {
			out[of+"."+name] = said
		}
	}
}

func saidBeside(c *ast.CommentGroup) string { return said(c, "") }

// said is a comment as one paragraph, without the name that it begins with and "is": "Crew is people …" says "People …".
func said(c *ast.CommentGroup, name string) string {
	text, _, _ := strings.Cut(c.Text(), "\n\n")
	text = strings.Join(strings.Fields(text), " ")
	for _, verb := range []string{" is ", " are ", " says ", " tells "} {
		if rest, begins := strings.CutPrefix(text, name+verb); begins && name != "" {
			if verb == " says " || verb == " tells " {
				rest = strings.TrimSpace(verb) + " " + rest
			}
			text = rest
			break
		}
	}
	if text == "" {
		return ""
	}
	first := []rune(text)
	return strings.ToUpper(string(first[0])) + string(first[1:])
}
