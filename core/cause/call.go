package cause

// Asked is what a client is asked on the telephone, in a client's words, with answers that tell signs.
type Asked struct {
	Key     string   `json:"key"`
	Ask     string   `json:"ask"`
	Why     string   `json:"why" doc:"What it tells, for who asks"`
	Answers []Answer `json:"answers"`
}

// Answer is one answer of several; more than one may hold where the question says so.
type Answer struct {
	Key  string   `json:"key"`
	Text string   `json:"text"`
	Seen []string `json:"seen,omitempty" doc:"Signs it says are there, by id"`
	Not  []string `json:"not_seen,omitempty" doc:"Signs it says are not there"`
}

// CallSheet is what to ask, in order.
func CallSheet() []Asked { return callSheet }

var callSheet = []Asked{
	{"how_long", "How long has it looked like that?", "What comes overnight is weather, spray or animals; what comes over years is place or roots.", []Answer{
		{"overnight", "Since one night, or two", []string{"sudden"}, []string{"slow"}},
		{"weeks", "A few weeks", nil, []string{"sudden", "slow"}},
		{"long", "Months, or years", []string{"slow"}, []string{"sudden"}},
	}},
	{"which_plants", "Which plants show it?", "One kind only: look for what lives on it. Many kinds: weather, place or spray.", []Answer{
		{"this", "This one alone", nil, []string{"many_kinds"}},
		{"kind", "Others of the same kind too", []string{"same_kind_only"}, []string{"many_kinds"}},
		{"many", "Plants of many kinds", []string{"many_kinds"}, []string{"same_kind_only"}},
	}},
	{"side", "Is it worse on one side, inside, or at the tips?", "One side is sun, wind, a road, a neighbour or a root; inside first is age, dryness or mites.", []Answer{
		{"side", "On one side", []string{"one_side"}, nil},
		{"inside", "Inside, on the old leaves", []string{"inside_first"}, []string{"outside_first"}},
		{"tips", "At the tips", []string{"outside_first"}, []string{"inside_first"}},
		{"all", "All over", nil, []string{"one_side"}},
	}},
	{"changed", "What has changed near it in the last year?", "Most sudden troubles follow somebody's work.", []Answer{
		{"nothing", "Nothing", nil, []string{"neighbour_cut", "moved_out", "dug_roots", "cut_hard"}},
		{"shade", "A tree or hedge beside it was cut or felled", []string{"neighbour_cut"}, nil},
		{"moved", "It was moved, or brought outside", []string{"moved_out"}, nil},
		{"planted", "It was planted within two years", []string{"planted_lately"}, nil},
		{"dug", "Digging, paving or new soil", []string{"dug_roots"}, nil},
		{"cut", "It was cut hard", []string{"cut_hard"}, nil},
	}},
	{"water", "When you push a finger into the soil: dry or wet?", "Wilting in wet soil and wilting in dry soil ask for the opposite.", []Answer{
		{"dry", "Dry, and it hangs", []string{"wilts_dry"}, []string{"wilts_wet"}},
		{"wet", "Wet, and it hangs all the same", []string{"wilts_wet"}, []string{"wilts_dry"}},
		{"stands", "Water stands there after rain", []string{"water_stands"}, nil},
		{"even", "Moist, and it stands well", nil, []string{"wilts_dry", "wilts_wet"}},
	}},
	{"sprays", "Was anything sprayed or spread, by you or next door?", "Weed killer drifts; feed burns; and what was sprayed says what may not be eaten.", []Answer{
		{"none", "Nothing", nil, []string{"sprayed_weeds", "fed_much"}},
		{"weeds", "Something against weeds", []string{"sprayed_weeds"}, nil},
		{"feed", "Feed, on it or on the lawn", []string{"fed_much"}, nil},
		{"unknown", "I do not know", nil, nil},
	}},
	{"pets", "Are there children, dogs, cats or hens about?", "It says what may be done there at all, and who may have dug or chewed.", []Answer{
		{"none", "No", nil, nil},
		{"dogs", "A dog, and it digs", []string{"dug"}, nil},
		{"some", "Yes", nil, nil},
	}},
	{"eaten", "Do you eat from it?", "Nothing may come on it then that must not be eaten.", []Answer{
		{"no", "No", nil, nil},
		{"yes", "Yes", nil, nil},
	}},
}
