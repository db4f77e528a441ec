package e2e

import (
	"fmt"
	"testing"
)

// TestCutBench: the cut line is moved by keys and shows what it costs; beyond what the plant bears it is said so; a wanted height
// gives the cut; the day pointed at on the ribbon tells its cost; it becomes one job, and undo takes it back.
func TestCutBench(t *testing.T) {
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.expect("422 ")
	b.visit("/#/plant/1")
	b.press("link", "When to cut")
	b.see("Evergreens that bloom on last year's wood")
	b.until("too early today", "/Too early/.test(document.querySelector('[data-testid=day-cost]').innerText)")
	b.accessible("the cut bench")
	for range 4 {
		b.key("ArrowDown")
	}
	b.until("the line", "document.querySelector('[data-testid=cut]').innerText .startsWith('1.9')")
	b.see("Next year:")
	for range 14 {
		b.key("ArrowDown")
	}
	b.see("more than it bears at once: not below 1.41")
	b.press("button", "Clear")
	b.fill("Next year", "1.9")
	b.until("cut for it", "document.querySelector('[data-testid=cut]')?.innerText.startsWith('1.6')")
	b.fill("Next year", "12")
	b.see("above what it grows to")
	b.fill("Next year", "1.9")
	b.choose("What for", "renew old stems")
	b.press("button", "Clear")
	b.see("Take out the oldest third of the stems")
	b.press("button", "Make it a job")
	b.see("Cut Common camellia: a job.")
	job := s.orderOf("Cut Common camellia")
	b.press("link", "The job")
	b.until("the job", fmt.Sprintf("location.hash === '#/rounds/%d'", job))
	b.see("Dead and weak wood out.")
}

// TestPlanCuts: a property's year of cuts is proposed, one is struck out, the others become jobs on the year; undo takes them back.
func TestPlanCuts(t *testing.T) {
	s := start(t, "demo", t.TempDir())
	b := open(t, s, 1280, 800)
	b.visit("/#/grounds/3")
	b.press("link", "Plan cuts")
	b.see("A year of cuts at Hillside terrace")
	b.accessible("a year of cuts")
	before, _ := b.eval("document.querySelectorAll('main input[type=checkbox]').length").(float64)
	b.press("checkbox", "Cut Climbing rose, Climbing rose, Gate arch")
	b.see(fmt.Sprintf("%.0f of %.0f cuts", before-1, before))
	b.press("button", "Keep them as jobs")
	b.see(fmt.Sprintf("%.0f cuts are jobs now", before-1))
	b.see("0 of 1 cuts")
	b.visit("/#/year/3")
	b.see("Cut Common camellia")
	b.visit("/#/cuts/3")
	b.see("stand as jobs already")
}
