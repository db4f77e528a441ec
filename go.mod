module mezzadro

go 1.26.0

require (
	github.com/goccy/go-yaml v1.19.2
	gonum.org/v1/gonum v0.17.0
)
