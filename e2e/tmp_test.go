package e2e

import "testing"

func TestTmp(t *testing.T) {
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 390, 844)
	b.visit("/#/walk/1")
	b.see("Next:")
	b.shot("/tmp/p1.png")
	b.press("button", "More checks")
	b.see("Bark gone round")
	b.shot("/tmp/p2.png")
	b.press("button", "Done")
	b.press("button", "How")
	b.press("button", "Note")
	b.shot("/tmp/p3.png")
	c := open(t, s, 1280, 800)
	c.visit("/#/walk/1")
	c.see("Next:")
	c.shot("/tmp/d1.png")
	c.press("button", "More checks")
	c.see("Bark gone round")
	c.shot("/tmp/d2.png")
	c.visit("/#/plant/1")
	c.see("Foretold")
	c.shot("/tmp/d3.png")
}
