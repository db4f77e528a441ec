package e2e

import (
	"fmt"
	"image"
	"image/color"
	"testing"
)

// crownFile is a picture of a square crown before the sky, with the left share of it brown.
func crownFile(t *testing.T, share float64) string {
	t.Helper()
	img := image.NewRGBA(image.Rect(0, 0, 800, 600))
	for y := range 600 {
		for x := range 800 {
			c := color.RGBA{150, 185, 225, 255}
			if x >= 200 && x < 600 && y >= 100 && y < 500 {
				c = color.RGBA{uint8(80 + (x*7+y*3)%30), uint8(120 + (x*5+y*11)%30), 50, 255}
				if float64(x-200) < share*400 {
					c = color.RGBA{uint8(115 + (x*7+y*3)%20), uint8(78 + (x*5+y*11)%12), 45, 255}
				}
			}
			img.Set(x, y, c)
		}
	}
	return keptPicture(t, "crown.png", img)
}

// outlineCrown draws a line round the crown of such a picture with a finger.
func (b *browser) outlineCrown() {
	b.t.Helper()
	b.until("the picture", `!!document.querySelector('svg[aria-label^="The picture"]')`)
	b.eval(`(() => {
		const svg = document.querySelector('svg[aria-label^="The picture"]'), box = svg.getBoundingClientRect();
		svg.setPointerCapture = () => {};
		const at = (type, x, y) => svg.dispatchEvent(new PointerEvent(type, {bubbles: true, pointerId: 1,
			clientX: box.left + x / 800 * box.width, clientY: box.top + y / 600 * box.height}));
		at('pointerdown', 205, 105);
		for (let i = 0; i <= 20; i++) at('pointermove', 205 + 19.5 * i, 105);
		for (let i = 0; i <= 20; i++) at('pointermove', 595, 105 + 19.5 * i);
		for (let i = 0; i <= 20; i++) at('pointermove', 595 - 19.5 * i, 495);
		for (let i = 0; i <= 20; i++) at('pointermove', 205, 495 - 19.5 * i);
		at('pointerup', 205, 105);
	})()`)
}

// share is what the crown is told to come to, in per cent.
func (b *browser) crownShare() float64 {
	b.t.Helper()
	b.until("a share", `/^\d+ % brown/.test(document.querySelector('[data-testid=crown-share]')?.innerText ?? '')`)
	share, ok := b.eval(`parseFloat(document.querySelector('[data-testid=crown-share]').innerText)`).(float64)
	if !ok {
		b.t.Fatal("no share is told")
	}
	return share
}

// TestCrownIsCounted: on a walk with a phone a crown of which a quarter is brown is outlined with a finger, read, put
// right at one point and kept with its picture; at the desk the next count from the same side stands beside it, and is
// removed and brought back.
func TestCrownIsCounted(t *testing.T) {
	t.Parallel()
	s := start(t, "demo", t.TempDir())
	plant := s.plants(1)[0]
	phone := open(t, s, 390, 844)
	phone.visit(fmt.Sprintf("/#/walk/1/%d", plant.ID))
	phone.see("make the first check")
	phone.settled()
	phone.press("button", "Count the crown")
	phone.upload("Take or choose a picture", crownFile(t, 0.25))
	phone.outlineCrown()
	if share := phone.crownShare(); share < 18 || share > 32 {
		t.Errorf("a quarter is counted as %g %%", share)
	}
	phone.accessible("a crown is counted")
	phone.press("button", "Next point")
	phone.press("button", "Dead leaf")
	phone.see("told as dead leaf")
	phone.press("checkbox", "I looked at every point: those that were wrong are put right")
	phone.see("19 times in 20")
	phone.choose("Looked at from", "the south")
	phone.eval(`[...document.querySelectorAll('button')].find((x) => /^Keep \d+ %$/.test(x.innerText)).click()`)
	phone.see("brown or bare: saved.")

	b := open(t, s, 1280, 800)
	b.visit(fmt.Sprintf("/#/plant/%d", plant.ID))
	b.see("Crown counted")
	b.press("button", "Count the crown")
	b.upload("Take or choose a picture", crownFile(t, 0.6))
	b.outlineCrown()
	if share := b.crownShare(); share < 52 || share > 68 {
		t.Errorf("three fifths are counted as %g %%", share)
	}
	b.see("From the south on")
	b.eval(`[...document.querySelectorAll('button')].find((x) => /^Keep \d+ %$/.test(x.innerText)).click()`)
	b.until("it is more", `/more than \d+ % on/.test(document.querySelector('section[aria-label="Crown counted"]').innerText)`)
	b.accessible("counts of a crown")
	rows := `document.querySelectorAll('section[aria-label="Crown counted"] tbody tr').length`
	b.eval(`document.querySelector('section[aria-label="Crown counted"] tbody button').click()`)
	b.until("one row", rows+` === 1`)
	b.press("button", "Undo")
	b.until("two rows", rows+` === 2`)
}

// TestCrownOnALivePicture: the camera's picture is held and counted as one from the album is; gone back from, the camera
// is let go.
func TestCrownOnALivePicture(t *testing.T) {
	t.Parallel()
	s := reading(t)
	plant := s.plants(1)[0]
	b := open(t, s, 390, 844)
	b.visit(fmt.Sprintf("/#/plant/%d", plant.ID))
	b.settled()
	b.press("button", "Count the crown")
	b.press("button", "Use the live picture")
	b.until("the camera", "document.querySelector('video')?.videoWidth > 0")
	b.eval("window.seen = document.querySelector('video').srcObject.getTracks()[0], true")
	b.accessible("the live picture")
	b.press("button", "Back")
	b.until("the camera is let go", "window.seen.readyState === 'ended' && !document.querySelector('video')")
	b.press("button", "Use the live picture")
	b.press("button", "Hold this picture")
	b.until("the picture", `!!document.querySelector('svg[aria-label^="The picture"]')`)
	b.press("button", "Take the whole picture")
	if share := b.crownShare(); share < 0 || share > 100 {
		t.Errorf("counted as %g %%", share)
	}
}
