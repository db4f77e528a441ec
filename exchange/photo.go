package exchange

import (
	"bytes"
	"fmt"
	"image"
	_ "image/gif" // formats that are read
	_ "image/png"
	"sync"

	"github.com/kovidgoyal/imaging"
	_ "golang.org/x/image/webp"
)

const (
	// MaxPhotoBytes is the largest picture file taken in.
	MaxPhotoBytes = 25 << 20
	maxPixels     = 51_000_000
	maxEdge       = 30_000 // px: so that the product of two is a number still
	photoEdge     = 1600   // px: enough to tell a scale from a spot of dirt
	photoQuality  = 82
)

var decoding sync.Mutex

// Photo reads a picture and gives it as a JPEG no longer than 1600 px on an edge, upright, without any note of where,
// when or by what it was taken.
func Photo(file []byte) (jpeg []byte, width, height int, err error) {
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
	decoding.Lock() // one at a time: each takes hundreds of megabytes for a moment
	defer decoding.Unlock()
	img, err := imaging.Decode(bytes.NewReader(file), imaging.AutoOrientation(true))
	if err != nil {
		return nil, 0, 0, fmt.Errorf("the %s picture is broken: %v", format, err)
	}
	if b := img.Bounds(); b.Dx() > photoEdge || b.Dy() > photoEdge {
		img = imaging.Fit(img, photoEdge, photoEdge, imaging.Lanczos)
	}
	var out bytes.Buffer
	if err := imaging.Encode(&out, img, imaging.JPEG, imaging.JPEGQuality(photoQuality)); err != nil {
		return nil, 0, 0, err
	}
	return out.Bytes(), img.Bounds().Dx(), img.Bounds().Dy(), nil
}
