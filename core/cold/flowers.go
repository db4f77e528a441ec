package cold

import "mezzadro/core/catalogue"

// flowers is what stands of a plant's bloom on a day.
type flowers struct {
	Name  string  // what one finds, as part of a sentence; empty where there is none
	KillC float64 // the temperature at which half of it dies, °C
}

// What stands of a bloom.
const (
	flowerBuds = "flower buds"
	openBloom  = "open flowers"
	youngFruit = "young fruit"
	ripeFruit  = "fruit"
)

// A flower bud made the year before bears nearly what the wood does, and less from its first swelling on: what it bears
// of frost rises towards what the open flower bears, faster and faster the nearer bloom is a month or more before it,
// slower in the last week. Young fruit bears as little as the flower or less, until it is as thick as a thumb.
const (
	budSwellC    = 0.08  // °C a flower bud bears more than the open flower for each day before bloom,
	budSwellCC   = 0.014 // and for each day squared
	budTenderC   = 1.3   // how much less dormant flower buds bear than leaf buds, °C
	fruitDays    = 50    // how long after bloom young fruit is lost to frost
	fruitBearsC  = -2.2
	budsCarried  = 0.5 // the share of the bloom on older wood from which flower buds stand there in winter
	swellingDays = 45
)

// Citrus hangs in fruit through the winter. It freezes long before the wood does: that of lemons first, kumquats last.
const (
	citrusShare  = 0.5
	citrusLeastC = -1.8
	citrusMostC  = -4.0
	citrusMM     = 40.0 // the fruit's thickness
)

// thick is how thick it is, mm: fruit as thick as a fist follows the air for hours.
func (f flowers) thick() float64 {
	if f.Name == ripeFruit {
		return citrusMM
	}
	return 0
}

// bloomOn is what stands of the bloom of a plant at a stage, and what it bears when its leaf buds bear budC, °C.
func bloomOn(e *catalogue.Entry, stage catalogue.Stage, budC float64) flowers {
	open := blossomBears(e)
	switch {
	case stage.InBloom:
		return flowers{openBloom, open}
	case !stage.Blooms:
		return flowers{}
	case stage.ToBloom > 0 && e.Bloom.OldWood >= budsCarried && woody(e):
		return flowers{flowerBuds, swelling(open, float64(stage.ToBloom), budC+budTenderC)}
	case e.GrownForFruit() && woody(e) && stage.PastBloom > 0 && stage.PastBloom <= fruitDays:
		return flowers{youngFruit, max(open, fruitBearsC)}
	case e.Bloom.Habit == "citrus":
		return flowers{ripeFruit, max(citrusMostC, min(citrusLeastC, citrusShare*e.HardinessC))}
	}
	return flowers{}
}

// swelling is what a flower bud bears so many days before it opens, when dormant ones bear dormantC, °C.
func swelling(open, days, dormantC float64) float64 {
	if days > swellingDays {
		return min(open, dormantC)
	}
	return min(open, max(dormantC, open-budSwellC*days-budSwellCC*days*days))
}

// blossomBears is what the open flowers of a kind bear, °C.
func blossomBears(e *catalogue.Entry) float64 {
	if e.Flower == nil || e.Flower.BearsC == 0 {
		return OpenGrowthC
	}
	return e.Flower.BearsC
}

// woody reports a kind whose stems live for years.
func woody(e *catalogue.Entry) bool {
	return e.Form != catalogue.Perennial && e.Form != catalogue.Palm && e.LeafSeason != catalogue.Herbaceous
}

// lost says what becomes of it, as a part of a sentence that begins with whose it is.
func (f flowers) lost() string {
	return map[string]string{flowerBuds: "flower buds likely die", openBloom: "open flowers brown",
		youngFruit: "young fruit drops", ripeFruit: "fruit freezes"}[f.Name]
}

// left is what one finds after.
func (f flowers) left() string {
	return map[string]string{flowerBuds: "dead flower buds", openBloom: "browned flowers", youngFruit: "lost young fruit",
		ripeFruit: "frozen fruit"}[f.Name]
}

// bear is the verb that goes with it.
func (f flowers) bear() string {
	switch f.Name {
	case flowerBuds:
		return "bore"
	case youngFruit, ripeFruit:
		return "bears"
	}
	return "bear"
}
