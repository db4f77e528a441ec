package exchange

import (
	"bytes"
	"context"
	"fmt"
	"image"
	"image/color"
	_ "image/gif" // formats that are read
	_ "image/png"

	"github.com/kovidgoyal/imaging"
	_ "golang.org/x/image/webp"
)

const (
	// MaxPhotoBytes is the largest picture file taken in.
	MaxPhotoBytes = 25 << 20
	maxPixels     = 51_000_000
	maxDecoded    = 160 << 20 // bytes that its pixels take when they are read: 16 bit ones take twice as many
	maxEdge       = 30_000    // px: so that the product of two is a number still
	photoEdge     = 1600      // px: enough to tell a scale from a spot of dirt
	photoQuality  = 82
)

// decoding lets one picture be read at a time: each takes some hundred megabytes for a moment.
var decoding = make(chan struct{}, 1)

// bytesOf is what a pixel of a picture takes when it is read.
func bytesOf(c image.Config, format string) int {
	switch c.ColorModel {
	case color.RGBA64Model, color.NRGBA64Model:
		return 8
	case color.RGBAModel, color.NRGBAModel:
		return 4
	case color.YCbCrModel:
		return 3
	case color.Gray16Model:
		return 2
	}
	if format == "jpeg" { // CMYK, or what is not known
		return 4
	}
	return 1 // grey, or by a palette
}

// Photo reads a picture and gives it as a JPEG no longer than 1600 px on an edge, upright, without any note of where,
// when or by what it was taken. It waits for its turn as long as whoever sent it does.
func Photo(ctx context.Context, file []byte) (jpeg []byte, width, height int, err error) {
	c, format, err := image.DecodeConfig(bytes.NewReader(file))
	if err != nil {
		return nil, 0, 0, fmt.Errorf("this is no picture: want JPEG, PNG, WebP or GIF")
	}
	if c.Width <= 0 || c.Height <= 0 || c.Width > maxEdge || c.Height > maxEdge || c.Width*c.Height > maxPixels {
		return nil, 0, 0, fmt.Errorf(
			"a picture of %d × %d px is too large: at most %d million px are read",
			c.Width,
			c.Height,
			maxPixels/1_000_000,
		)
	}
	if n := bytesOf(c, format) * c.Width * c.Height; n > maxDecoded {
		return nil, 0, 0, fmt.Errorf("a %s picture of %d × %d px takes %d MB to read, and %d are the most: send it smaller, or as JPEG",
			format, c.Width, c.Height, n>>20, maxDecoded>>20)
	}
	select {
	case decoding <- struct{}{}:
		defer func() { <-decoding }()
	case <-ctx.Done():
		return nil, 0, 0, ctx.Err()
	}
	img, err := imaging.Decode(bytes.NewReader(file), imaging.AutoOrientation(true))
	if err != nil {
		return nil, 0, 0, fmt.Errorf("the %s picture is broken: %v", format, err)
	}
	if b := img.Bounds(); b.Dx() > photoEdge || b.Dy() > photoEdge {
		if b.Dx() > 4*photoEdge || b.Dy() > 4*photoEdge { // coarsely first: what is fine goes anyway
			img = imaging.Fit(img, 2*photoEdge, 2*photoEdge, imaging.Box)
		}
		img = imaging.Fit(img, photoEdge, photoEdge, imaging.Lanczos)
	}
	var out bytes.Buffer
	if err := imaging.Encode(&out, img, imaging.JPEG, imaging.JPEGQuality(photoQuality)); err != nil {
		return nil, 0, 0, err
	}
	return out.Bytes(), img.Bounds().Dx(), img.Bounds().Dy(), nil
}
