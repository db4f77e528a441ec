package api

import (
	"fmt"
	"strings"
)

// Out is an answer with a JSON body.
type Out[T any] struct{ Body T }

func out[T any](v T) *Out[T] { return &Out[T]{v} }

// ByID names one record.
type ByID struct {
	ID int64 `path:"id" minimum:"1" example:"1" doc:"Of the record"`
}

// OnceKey is the key by which a repeated write is known.
type OnceKey struct {
	Key string `header:"Idempotency-Key" maxLength:"100" example:"3f1c8a52-2f0e-4c5b-9f0d-6a1d1f0a7b11" doc:"A repeat of the same write with the same key gets the same answer and writes nothing; the same key with another body is refused. Kept for 30 days"`
}

// Write is a write on one record.
type Write struct {
	ByID
	OnceKey
}

// Page is a stretch of a list of records.
type Page struct {
	Cursor int64 `query:"cursor" example:"0" doc:"The next field of the answer before"`
	Limit  int   `query:"limit" default:"200" minimum:"1" maximum:"1000" example:"200"`
}

// List is one page of a list; Next is the cursor of the following page, 0 at the end.
type List[T any] struct {
	Items []T   `json:"items"`
	Next  int64 `json:"next" doc:"Cursor of the following page; 0 at the end"`
}

// listed makes a page from up to limit+1 records.
func listed[T any](items []T, limit int, id func(T) int64) List[T] {
	if len(items) > limit {
		return List[T]{items[:limit], id(items[limit-1])}
	}
	return List[T]{Items: items}
}

// Stretch is a stretch of a list that is in some other order than its records' ids.
type Stretch struct {
	Cursor string `query:"cursor" maxLength:"60" doc:"The next field of the answer before; absent for the first page"`
	Limit  int    `query:"limit" default:"100" minimum:"1" maximum:"500" example:"100"`
}

// Run is one page of such a list; Next is the cursor of the following page, empty at the end.
type Run[T any] struct {
	Items []T    `json:"items"`
	Next  string `json:"next" doc:"Cursor of the following page; empty at the end"`
}

// File is an answer that is a file to keep.
type File struct {
	Type string `header:"Content-Type"`
	Name string `header:"Content-Disposition"`
	Body []byte
}

// attached is an answer to keep as a file named after a property.
func attached(property, what, kind string, body []byte) *File {
	plain := strings.Map(func(r rune) rune {
		switch {
		case r >= 'a' && r <= 'z', r >= '0' && r <= '9':
			return r
		}
		return '-'
	}, strings.ToLower(property))
	if strings.HasPrefix(kind, "text/") {
		kind += "; charset=utf-8"
	}
	return &File{kind, fmt.Sprintf("attachment; filename=%q", strings.Trim(plain, "-")+"-"+what), body}
}
