package rules

import (
	"strings"
	"testing"
)

// TestOr: a property's own choice comes before the firm's, and the firm's before the default.
func TestOr(t *testing.T) {
	firm := House{Roses: InWinter, Wounds: Seal, SealFromCM: 8}
	here := House{Wounds: Compost, Natives: Clip}.Or(firm).Or(Usual)
	want := House{Perennials: "stand", Roses: InWinter, InTheWay: "wait", Natives: Clip, Wounds: Compost, Control: "soft first", Feeding: "organic", Repellents: "hide", SealFromCM: 8}
	if here != want {
		t.Errorf("%+v, want %+v", here, want)
	}
	if got := (House{}).Or(Usual); got != Usual {
		t.Errorf("nothing chosen: %+v", got)
	}
}

// TestValidate names the question and its choices; what is left out is no fault.
func TestValidate(t *testing.T) {
	for _, h := range []House{{}, Usual, {Wounds: Compost}} {
		if err := h.Validate(); err != nil {
			t.Errorf("%+v: %v", h, err)
		}
	}
	for says, h := range map[string]House{"roses": {Roses: "never"}, "seal_from_cm": {SealFromCM: -3}, `"compost"`: {Wounds: "tar"}} {
		if err := h.Validate(); err == nil || !strings.Contains(err.Error(), says) {
			t.Errorf("%+v: %v, want it to name %s", h, err, says)
		}
	}
}
