package site

import "mezzadro/core/catalogue"

// How crowns usually stand.
const (
	litAt     = 0.6  // share of a plant's height at which its light is taken
	clearFrom = 3.0  // m: a taller tree has a clear stem
	clearTree = 0.25 // of its height
	clearPalm = 0.7
)

// LitAt is the height at which a plant's light is taken, m.
func (t *Thing) LitAt() float64 { return litAt * t.HeightM }

// SpotHeight is the height at which the light of a spot is taken where nothing stands yet, m.
const SpotHeight = 0.6

// Fill takes what is absent of a thing from its kind.
func (t *Thing) Fill(e *catalogue.Entry) {
	if t.HeightM == 0 {
		t.HeightM = e.Mature.HeightM
	}
	if t.SpreadM == 0 {
		t.SpreadM = e.Mature.SpreadM
	}
	if t.Name == "" {
		t.Name = e.Common
	}
	if t.Leaf == "" {
		t.Leaf = e.LeafSeason
	}
	if t.Light == "" {
		t.Light = e.Light
	}
	if t.Thirst == "" {
		t.Thirst = e.Thirst
	}
	if t.Reach == 0 {
		t.Reach = e.RootReach
	}
	if t.Shape == "" && e.Form == catalogue.Conifer {
		t.Shape = "cone"
	}
	if t.ClearM == 0 && (e.Form == catalogue.Tree || e.Form == catalogue.Palm) && t.HeightM > clearFrom {
		t.ClearM = clearTree * t.HeightM
		if e.Form == catalogue.Palm {
			t.ClearM = clearPalm * t.HeightM
		}
	}
}
