package api

import (
	"encoding/json"

	"github.com/danielgtaylor/huma/v2"
)

// examples are what one sends to each operation that takes a body; the contract test sends them.
var examples = map[string]string{
	"move-today":      `{"day": "2027-04-01"}`,
	"change-firm":     `{"name": "Tre Gelsi", "units": "metric", "week_start": 1, "rules": {"perennials": "stand"}, "version": 1}`,
	"add-property":    `{"name": "School garden", "client": "The school board", "climate_type": "lake-foothills", "elevation_m": 350}`,
	"change-property": `{"name": "School garden", "climate_type": "lake-foothills", "elevation_m": 360, "version": 1}`,
	"add-plant":       `{"property_id": 1, "species": "nerium-oleander", "label": "By the bicycle stand", "height_m": 1.8}`,
	"change-plant":    `{"species": "nerium-oleander", "label": "By the bicycle stand", "height_m": 1.9, "version": 1}`,
	"add-outcome":     `{"verdict_id": 1, "state": "alive", "height_m": 1.4, "note": "Shooting from the middle"}`,
	"start-walk":      `{"property_id": 1}`,
	"keep-look":       `{"checks": [{"kind": "scratch", "height_m": 0.5, "result": "green"}], "note": "Leaves brown at the top"}`,
	"decide":          `{"decision": "overruled", "kind": "cut back to live wood", "cut_m": 0.4, "note": "The client wants light"}`,
	"add-order": `{"property_id": 1, "title": "Sweep the court", "minutes": 40, "crew_size": 2,
		"spans": [{"from": "2027-04-01", "to": "2027-04-20", "cost": 0}, {"from": "2027-04-21", "to": "2027-05-10", "cost": 40}]}`,
	"change-order":  `{"property_id": 1, "title": "Sweep the court and the steps", "minutes": 50, "spans": [{"from": "2027-04-01", "to": "2027-05-10"}], "version": 1}`,
	"put-order":     `{"day": "2027-04-02", "crew": "Crew 1", "version": 1}`,
	"tick-order":    `{"state": "done", "took_minutes": 35, "note": "Two loads of leaves", "version": 1}`,
	"reckon-season": `{"date": "2027-03-18", "property": 1}`,
	"reckon-freeze": `{"property": 1, "plants": [{"species": "olea-europaea", "height_m": 3}]}`,
	"reckon-cause": `{"species": "rosa-bedding", "date": "2027-07-10", "property": 1, "seen": ["stippled"],
		"not_seen": ["dark_specks_below"]}`,
	"add-find":    `{"plant_id": 1, "cause": "lace-bug", "certainty": 0.9, "share": 0.3, "seen": ["stippled", "dark_specks_below"], "not_seen": ["webbing"]}`,
	"change-find": `{"cause": "lace-bug", "certainty": 1, "share": 0.3, "state": "closed", "ending": "Washed off twice", "version": 1}`,
	"look-for":    `{"property_id": 1}`,
	"add-call": `{"property_id": 1, "caller": "The housekeeper", "answers": {"how_long": "overnight"}, "seen": ["sudden"], "not_seen": ["slow"],
		"ending": "visit", "said": "We come and look."}`,
	"change-call":      `{"property_id": 1, "caller": "The housekeeper", "ending": "advice", "said": "Leave it until May.", "version": 1}`,
	"add-product":      `{"name": "Soft soap, 1 L", "active": "soap", "unit": "mL", "rates": [{"amount": 20, "per": "L"}], "packs": [{"size": 1000, "price": 9.5}], "supplier": "Farm shop"}`,
	"change-product":   `{"name": "Soft soap, 1 L", "active": "soap", "unit": "mL", "rates": [{"amount": 25, "per": "L"}], "packs": [{"size": 1000, "price": 9.5}], "version": 1}`,
	"keep-treatment":   `{"plants": []}`,
	"keep-feeding":     `{"bed_m2": 6}`,
	"add-person":       `{"name": "Rosa", "skills": ["licence for restricted products"]}`,
	"change-person":    `{"name": "Rosa", "skills": ["ladder"], "version": 1}`,
	"add-crew":         `{"name": "Crew 1", "people": [1], "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "start": {"latitude": 45.9, "longitude": 8.6}, "load_m3": 4}`,
	"change-crew":      `{"name": "Crew 1", "people": [1], "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "version": 1}`,
	"set-access":       `{"arrive": 10, "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "shut": [6], "note": "Key with the caretaker"}`,
	"told":             `{"orders": [1], "told": true}`,
	"take-spots":       `{"set": [{"plant_id": 1, "sun": 0.6, "shelter": 0.4, "wall": false}]}`,
	"first-owner":      `{"login": "ilda", "name": "Ilda", "password": "four quiet mulberry trees"}`,
	"sign-in":          `{"login": "ilda", "password": "four quiet mulberry trees"}`,
	"change-password":  `{"old": "four quiet mulberry trees", "password": "five loud plane trees"}`,
	"take-invitation":  `{"token": "nobody-gave-this", "password": "five loud plane trees"}`,
	"add-account":      `{"login": "bruno", "name": "Bruno", "role": "crew"}`,
	"change-account":   `{"name": "Bruno", "role": "planner", "version": 1}`,
	"add-client-link":  `{"days": 90}`,
	"take-stops":       `{"set": [{"plant_id": 1, "stop": 10}]}`,
	"keep-planting":    `{"kinds": [{"species": "syringa-vulgaris", "count": 2}], "where": "Top bed"}`,
	"say-kind":         `{"price": 24.5, "banned": false}`,
	"keep-winter":      `{"plants": [1]}`,
	"reckon-wintering": `{"property": 1, "species": "citrus-limon", "date": "2027-09-10", "pot_l": 60, "height_m": 1.8, "spread_m": 1.3, "count": 6}`,
	"set-plan":         `{"version": 0, "plan": {"latitude": 45.9, "things": [{"id": "house", "kind": "building", "height_m": 6, "points": [{"x": 0, "y": 0}, {"x": 12, "y": 0}, {"x": 12, "y": 8}, {"x": 0, "y": 8}]}]}}`,
	"reckon-site": `{"plan": {"latitude": 45.9, "things": [{"id": "hedge", "kind": "hedge", "height_m": 3, "spread_m": 1, "points": [{"x": -10, "y": -1}, {"x": 10, "y": -1}]},
		{"id": "ivy", "kind": "plant", "species": "hedera-helix", "height_m": 0.5, "spread_m": 1, "points": [{"x": 0, "y": 0.6}]}]}, "plant": "ivy", "changes": [{"thing": "hedge", "do": "cut", "height_m": 1}]}`,
	"reckon-replacement": `{"property": 1, "spot": {"light": "part shade", "soil_water": "even", "height_m": 2.5}, "died": {"species": "buxus-sempervirens", "cause": "box-blight"},
		"wish": {"evergreen": true}, "limit": 5}`,
	"send-letter": `{"property_id": 1, "day": "2027-03-20", "text": "We come on Saturday.", "orders": [1]}`,
	"propose":     `{"days": 7, "seconds": 0.2}`,
	"pin-order":   `{"pinned": true, "version": 1}`,
	"reckon-rounds": `{"from": "2027-03-22", "days": 5, "rounds": 50, "crews": [{"name": "Crew 1", "size": 2, "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "start": {"latitude": 45.9, "longitude": 8.6}}],
		"places": [{"name": "Villa", "at": {"latitude": 45.92, "longitude": 8.63}, "arrive": 5}], "jobs": [{"title": "Cut the roses", "place": 0, "minutes": 90, "costs": [20, 10, 0, 0, 5]}]}`,
	"add-lot":          `{"amount": 1000, "lot": "A 17", "expires": "2029-06-30"}`,
	"reckon-feeding":   `{"species": "citrus-limon", "date": "2027-03-18", "property": 1, "pot_l": 60, "ph": 6.2}`,
	"reckon-treatment": `{"cause": "lace-bug", "species": "azalea-evergreen", "date": "2027-06-10", "property": 1, "share": 0.5, "count": 12, "affected": 4}`,
	"keep-cuts":        `{"cuts": [{"plant_id": 1}]}`,
	"reckon-pruning":   `{"species": "syringa-vulgaris", "date": "2027-03-18", "property": 1, "height_m": 3.2, "wanted_m": 2.6}`,
	"reckon-damage": `{"species": "camellia-japonica", "date": "2027-03-18", "property": 1, "height_m": 2,
		"checks": [{"kind": "bud_rub", "height_m": 1.8, "broke": 6}, {"kind": "scratch", "height_m": 1.2, "result": "green"}]}`,
}

// textExamples are those whose body is a file.
var textExamples = map[string]string{
	"take-plan":      `{"type":"FeatureCollection","features":[{"type":"Feature","geometry":{"type":"Point","coordinates":[8.6,45.9]},"properties":{"kind":"tree","height_m":9}}]}`,
	"take-plants":    "species,label,height_m\nolea-europaea,Court,2.5\n",
	"take-ways":      "from,to,minutes\nCrew 1,Villa Lumera,9\n",
	"take-weather":   "time,temp_c\n2027-03-01T00:00:00Z,4.5\n2027-03-01T01:00:00Z,4.1\n",
	"reckon-normals": "month,tmin_c,tmax_c\n1,-1,6\n2,0,8\n3,3,13\n4,6,16\n5,11,21\n6,14,25\n7,17,28\n8,16,27\n9,13,22\n10,8,17\n11,3,10\n12,0,6\n",
}

// addExamples puts the examples into the description.
func addExamples(o *huma.OpenAPI) {
	for _, path := range o.Paths {
		for _, op := range []*huma.Operation{path.Get, path.Put, path.Post, path.Delete} {
			if op == nil || op.RequestBody == nil {
				continue
			}
			for kind, content := range op.RequestBody.Content {
				if text, known := textExamples[op.OperationID]; known {
					content.Example = text
				} else if text, known := examples[op.OperationID]; known && kind == "application/json" {
					var v any
					if err := json.Unmarshal([]byte(text), &v); err != nil {
						panic(op.OperationID + ": " + err.Error()) // a constant of the program, and a test reads all of them
					}
					content.Example = v
				}
			}
		}
	}
}
