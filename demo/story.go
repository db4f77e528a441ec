package demo

import (
	"context"
	_ "embed"
	"encoding/json"
	"fmt"
	"net/http"
	"slices"
	"strings"
	"time"

	"mezzadro/core/quantity"
	"mezzadro/core/written"

	"mezzadro/core/day"
)

//go:embed story.yaml
var storySource []byte

// Step is one day of the firm's year so far.
type Step struct {
	Day      string    `yaml:"day"`
	Looks    []Look    `yaml:"looks"`
	Hand     []HandJob `yaml:"hand"`
	Put      []JobMove `yaml:"put"`
	Done     []JobMove `yaml:"done"`
	Skip     []JobMove `yaml:"skip"`
	Partly   []JobMove `yaml:"partly"`    // the rest stays a job
	NotToday []JobMove `yaml:"not_today"` // back to the list, with the reason
	Unnamed  []Unnamed `yaml:"unnamed"`
	Outcomes []Outcome `yaml:"outcomes"`
	Finds    []Find    `yaml:"finds"`
	Closed   []Find    `yaml:"closed"`
	Calls    []Call    `yaml:"calls"`
	Cuts     []Cuts    `yaml:"cuts"`
	Products []Bought  `yaml:"products"`
	Treat    []Find    `yaml:"treat"` // finds whose treatment is made jobs
	Guard    []Find    `yaml:"guard"` // causes to be kept off, with their jobs
	Feed     []At      `yaml:"feed"`  // whose season's feeding is made a job
	People   []Person  `yaml:"people"`
	Crews    []Crew    `yaml:"crews"`
	Access   []Access  `yaml:"access"`
	Rounds   *Rounds   `yaml:"rounds"`

	Rates   map[string]any `yaml:"rates"`
	Clients []Client       `yaml:"clients"`
	Offers  []Offer        `yaml:"offers"`
	Charges []string       `yaml:"charges"` // properties whose work is charged
	Reports []Told         `yaml:"reports"`
}

// Rounds are proposed for some days, and taken as they are.
type Rounds struct {
	From  string `yaml:"from"`
	Days  int    `yaml:"days"`
	Tries int    `yaml:"tries"`
}

// Crew is people who go together, with the hours of their weekdays and of Saturday, as "8-17".
type Crew struct {
	Name     string   `yaml:"name"`
	People   []string `yaml:"people"`
	Weekdays string   `yaml:"weekdays"`
	Saturday string   `yaml:"saturday"`
	LoadM3   float64  `yaml:"load_m3"`
}

// Access is when one may be at a property.
type Access struct {
	Property string `yaml:"property"`
	Arrive   int    `yaml:"arrive"`
	Weekdays string `yaml:"weekdays"`
	Saturday string `yaml:"saturday"`
	Shut     []int  `yaml:"shut"`
	Note     string `yaml:"note"`
}

// week is the seven spans of hours, Sunday first.
func week(weekdays, saturday string) (out [7]map[string]int, err error) {
	for d := range out {
		text := map[int]string{0: "", 6: saturday}[d]
		if d > 0 && d < 6 {
			text = weekdays
		}
		from, to := 0, 0
		if text != "" {
			if _, err = fmt.Sscanf(text, "%d-%d", &from, &to); err != nil {
				return out, fmt.Errorf("hours %q: %w", text, err)
			}
		}
		out[d] = map[string]int{"from": 60 * from, "to": 60 * to}
	}
	return out, nil
}

// Person is one who works for the firm.
type Person struct {
	Name   string   `yaml:"name" json:"name"`
	Skills []string `yaml:"skills" json:"skills"`
}

// Bought is a product card with the lots of it that were counted in.
type Bought struct {
	Card map[string]any   `yaml:"card"`
	Lots []map[string]any `yaml:"lots"`
}

// Cuts is a property's year of cuts kept as proposed, but for what is struck out; or of some plants alone.
type Cuts struct {
	Property string `yaml:"property"`
	Only     []At   `yaml:"only"`
	Struck   []At   `yaml:"struck"`
}

// Find is a cause that was found on a plant; when it is closed, how it ended.
type Find struct {
	At        `yaml:",inline"`
	Cause     string   `yaml:"cause"`
	Certainty float64  `yaml:"certainty"`
	Share     float64  `yaml:"share"`
	Seen      []string `yaml:"seen"`
	NotSeen   []string `yaml:"not_seen"`
	How       string   `yaml:"how"`
	Note      string   `yaml:"note"`
	Ending    string   `yaml:"ending"`
	Helped    string   `yaml:"helped"` // when it is closed: gone, less or same
	Affected  int      `yaml:"affected"`
}

// Unnamed is something that nobody could name yet.
type Unnamed struct {
	At       `yaml:",inline"`
	Words    string   `yaml:"words"`
	Seen     []string `yaml:"seen"`
	Sent     string   `yaml:"sent"`
	SentTo   string   `yaml:"sent_to"`
	AnswerBy string   `yaml:"answer_by"`
}

// Call is a client's call.
type Call struct {
	At      `yaml:",inline"`
	Caller  string            `yaml:"caller"`
	Answers map[string]string `yaml:"answers"`
	Seen    []string          `yaml:"seen"`
	NotSeen []string          `yaml:"not_seen"`
	Ending  string            `yaml:"ending"`
	Said    string            `yaml:"said"`
}

// At names a plant by its property, species and label.
type At struct {
	Property string `yaml:"property"`
	Species  string `yaml:"species"`
	Label    string `yaml:"label"`
}

// Look is what was found at a plant and decided.
type Look struct {
	At       `yaml:",inline"`
	Checks   []map[string]any `yaml:"checks"`
	Note     string           `yaml:"note"`
	Decision string           `yaml:"decision"`
	Kind     string           `yaml:"kind"`
	CutM     float64          `yaml:"cut_m"`
	Why      string           `yaml:"why"`
}

// HandJob is a job entered by hand.
type HandJob struct {
	Property  string           `yaml:"property"`
	Title     string           `yaml:"title"`
	Minutes   int              `yaml:"minutes"`
	Crew      int              `yaml:"crew"`
	EveryDays int              `yaml:"every_days"`
	Spans     []map[string]any `yaml:"spans"`
	Kit       []string         `yaml:"kit"`
	Note      string           `yaml:"note"`
	Plants    []At             `yaml:"plants"`
}

// JobMove puts a job on a day, ticks it off or skips it. It is named by the words it begins with.
type JobMove struct {
	Property string `yaml:"property"`
	Job      string `yaml:"job"`
	Day      string `yaml:"day"`
	Crew     string `yaml:"crew"`
	Took     int    `yaml:"took"`
	Left     int    `yaml:"left"` // minutes, of what is partly done
	Note     string `yaml:"note"`
	Why      string `yaml:"why"`

	Use map[string]any `yaml:"use"` // of a treatment: what was used
}

// Outcome is how a plant turned out after its last verdict.
type Outcome struct {
	At      `yaml:",inline"`
	State   string  `yaml:"state"`
	HeightM float64 `yaml:"height_m"`
	Note    string  `yaml:"note"`
}

// Tale is the sample firm's past as data: the winters before, and its year so far.
type Tale struct {
	Winters []Winter `yaml:"winters"`
	Story   []Step   `yaml:"story"`
}

// ReadStory is the tale that ships with the program.
func ReadStory() (Tale, error) {
	var s Tale
	if err := written.Read(storySource, &s); err != nil {
		return s, fmt.Errorf("story.yaml: %w", err)
	}
	return s, nil
}

// teller tells the story through the operations.
type teller struct {
	*sender
	properties map[string]int64
	plants     map[string]int64 // by property, species and label
	later      map[int64]bool   // plants that the story itself tells of: nothing is said of them before
}

func newTeller(s *sender) (*teller, error) {
	t := &teller{s, map[string]int64{}, map[string]int64{}, map[int64]bool{}}
	var props struct {
		Items []struct {
			ID   int64  `json:"id"`
			Name string `json:"name"`
		} `json:"items"`
	}
	if err := s.get("/properties?limit=1000", &props); err != nil {
		return nil, err
	}
	for _, p := range props.Items {
		t.properties[p.Name] = p.ID
	}
	var plants struct {
		Items []struct {
			ID       int64  `json:"id"`
			Species  string `json:"species"`
			Label    string `json:"label"`
			Property string `json:"property"`
		} `json:"items"`
	}
	if err := s.get("/plants?limit=1000", &plants); err != nil {
		return nil, err
	}
	for _, p := range plants.Items {
		t.plants[p.Property+"|"+p.Species+"|"+p.Label] = p.ID
	}
	return t, nil
}

func (t *teller) plant(a At) (int64, error) {
	id := t.plants[a.Property+"|"+a.Species+"|"+a.Label]
	if id == 0 {
		return 0, fmt.Errorf("no %s at %q of %q", a.Species, a.Label, a.Property)
	}
	return id, nil
}

func (t *teller) property(name string) (int64, error) {
	id := t.properties[name]
	if id == 0 {
		return 0, fmt.Errorf("no property %q", name)
	}
	return id, nil
}

// tell does one day.
func (t *teller) tell(s Step) error {
	for _, l := range s.Looks {
		if err := t.look(l); err != nil {
			return fmt.Errorf("look at %s, %s: %w", l.Species, l.Label, err)
		}
	}
	for _, h := range s.Hand {
		if err := t.hand(h); err != nil {
			return fmt.Errorf("job %q: %w", h.Title, err)
		}
	}
	for _, c := range s.Cuts {
		if err := t.keepCuts(c); err != nil {
			return fmt.Errorf("cuts of %s: %w", c.Property, err)
		}
	}
	for _, of := range []struct {
		how   string
		moves []JobMove
	}{{"put", s.Put}, {"done", s.Done}, {"partly done", s.Partly}, {"not today", s.NotToday}, {"skipped", s.Skip}} {
		for _, m := range of.moves {
			if err := t.move(of.how, m); err != nil {
				return fmt.Errorf("job %q %s: %w", m.Job, of.how, err)
			}
		}
	}
	for _, o := range s.Outcomes {
		if err := t.outcome(o); err != nil {
			return fmt.Errorf("outcome of %s: %w", o.Species, err)
		}
	}
	if err := t.tellCauses(s); err != nil {
		return err
	}
	if err := t.tellStores(s); err != nil {
		return err
	}
	if s.Rounds != nil {
		if err := t.rounds(*s.Rounds); err != nil {
			return err
		}
	}
	return t.tellLedger(s)
}

// rounds proposes, waits for the search to end by its tries, and puts the jobs on their days.
func (t *teller) rounds(r Rounds) error {
	id, err := t.post(
		"/rounds/proposals",
		map[string]any{"from": r.From, "days": r.Days, "tries": r.Tries, "seconds": 60},
	)
	if err != nil {
		return fmt.Errorf("rounds: %w", err)
	}
	for state := "working"; state == "working"; time.Sleep(10 * time.Millisecond) {
		var now struct {
			State string `json:"state"`
		}
		if err := t.get(fmt.Sprintf("/rounds/proposals/%d", id), &now); err != nil {
			return fmt.Errorf("rounds: %w", err)
		}
		state = now.State
	}
	_, err = t.post(fmt.Sprintf("/rounds/proposals/%d/accept", id), nil)
	return err
}

// tellStores does what a day has of products and treatments.
func (t *teller) tellStores(s Step) error {
	for _, p := range s.People {
		if _, err := t.post("/people", map[string]any{"name": p.Name, "skills": append([]string{}, p.Skills...)}); err != nil {
			return fmt.Errorf("%s: %w", p.Name, err)
		}
	}
	if err := t.tellCrews(s); err != nil {
		return err
	}
	for _, p := range s.Products {
		id, err := t.post("/products", p.Card)
		if err != nil {
			return fmt.Errorf("product %v: %w", p.Card["name"], err)
		}
		for _, l := range p.Lots {
			if _, err := t.post(fmt.Sprintf("/products/%d/stock", id), l); err != nil {
				return fmt.Errorf("lot of %v: %w", p.Card["name"], err)
			}
		}
	}
	for _, f := range s.Treat {
		id, err := t.openFind(f)
		if err == nil {
			_, err = t.post(fmt.Sprintf("/finds/%d/treatment", id), map[string]any{})
		}
		if err != nil {
			return fmt.Errorf("treatment of %s: %w", f.Cause, err)
		}
	}
	return t.tellAhead(s)
}

// tellCrews does what a day has of crews and access.
func (t *teller) tellCrews(s Step) error {
	for _, c := range s.Crews {
		var all struct {
			Items []struct {
				ID   int64  `json:"id"`
				Name string `json:"name"`
			} `json:"items"`
		}
		if err := t.get("/people", &all); err != nil {
			return err
		}
		people := []int64{}
		for _, p := range all.Items {
			if slices.Contains(c.People, p.Name) {
				people = append(people, p.ID)
			}
		}
		hours, err := week(c.Weekdays, c.Saturday)
		if err == nil {
			_, err = t.post(
				"/crews",
				map[string]any{"name": c.Name, "people": people, "hours": hours, "load_m3": c.LoadM3,
					"start": map[string]float64{"latitude": yardLat, "longitude": yardLon}},
			)
		}
		if err != nil {
			return fmt.Errorf("%s: %w", c.Name, err)
		}
	}
	for _, a := range s.Access {
		id, err := t.property(a.Property)
		if err != nil {
			return err
		}
		hours, err := week(a.Weekdays, a.Saturday)
		if err != nil {
			return err
		}
		body := map[string]any{"arrive": a.Arrive, "hours": hours, "shut": append([]int{}, a.Shut...), "note": a.Note}
		if err := t.put(fmt.Sprintf("/properties/%d/access", id), body, nil); err != nil {
			return fmt.Errorf("access to %s: %w", a.Property, err)
		}
	}
	return nil
}

// The firm's yard.
const yardLat, yardLon = 45.905, 8.59

// tellAhead does what a day has of guards and feedings.
func (t *teller) tellAhead(s Step) error {
	for _, f := range s.Guard {
		plant, err := t.plant(f.At)
		if err != nil {
			return err
		}
		id, err := t.post(
			"/finds",
			map[string]any{"plant_id": plant, "cause": f.Cause, "certainty": 1, "prevent": true, "note": f.Note},
		)
		if err == nil {
			_, err = t.post(fmt.Sprintf("/finds/%d/treatment", id), map[string]any{})
		}
		if err != nil {
			return fmt.Errorf("guard against %s: %w", f.Cause, err)
		}
	}
	for _, a := range s.Feed {
		plant, err := t.plant(a)
		if err == nil {
			_, err = t.post(fmt.Sprintf("/plants/%d/feeding", plant), map[string]any{})
		}
		if err != nil {
			return fmt.Errorf("feeding of %s: %w", a.Species, err)
		}
	}
	return nil
}

// openFind is the id of an open find of a cause on a plant.
func (t *teller) openFind(f Find) (int64, error) {
	plant, err := t.plant(f.At)
	if err != nil {
		return 0, err
	}
	var list struct {
		Items []struct {
			ID    int64  `json:"id"`
			Cause string `json:"cause"`
		} `json:"items"`
	}
	if err := t.get(fmt.Sprintf("/finds?open=true&plant=%d", plant), &list); err != nil {
		return 0, err
	}
	for _, kept := range list.Items {
		if kept.Cause == f.Cause {
			return kept.ID, nil
		}
	}
	return 0, fmt.Errorf("no open find of %s on %s", f.Cause, f.Species)
}

// tellCauses does what a day has of finds and calls.
func (t *teller) tellCauses(s Step) error {
	for _, f := range s.Finds {
		if err := t.keepFind(f); err != nil {
			return fmt.Errorf("find of %s: %w", f.Cause, err)
		}
	}
	for _, f := range s.Closed {
		if err := t.closeFind(f); err != nil {
			return fmt.Errorf("find of %s closed: %w", f.Cause, err)
		}
	}
	for _, u := range s.Unnamed {
		plant, err := t.plant(u.At)
		if err == nil {
			_, err = t.post("/unnamed", map[string]any{"plant_id": plant, "words": u.Words, "seen": append([]string{}, u.Seen...), "sent": u.Sent,
				"sent_to": u.SentTo, "answer_by": u.AnswerBy})
		}
		if err != nil {
			return fmt.Errorf("find without a name on %s: %w", u.Species, err)
		}
	}
	for _, c := range s.Calls {
		plant, err := t.plant(c.At)
		if err == nil {
			_, err = t.post(
				"/calls",
				map[string]any{
					"plant_id": plant,
					"caller":   c.Caller,
					"answers":  c.Answers,
					"seen":     append([]string{}, c.Seen...),
					"not_seen": append([]string{}, c.NotSeen...),
					"ending":   c.Ending,
					"said":     c.Said,
				},
			)
		}
		if err != nil {
			return fmt.Errorf("call about %s: %w", c.Species, err)
		}
	}
	return nil
}

func (t *teller) keepFind(f Find) error {
	plant, err := t.plant(f.At)
	if err != nil {
		return err
	}
	how := f.How
	if how == "" {
		how = "walk"
	}
	_, err = t.post(
		"/finds",
		map[string]any{"plant_id": plant, "cause": f.Cause, "certainty": f.Certainty, "share": f.Share,
			"seen": append(
				[]string{},
				f.Seen...), "not_seen": append([]string{}, f.NotSeen...), "how": how, "note": f.Note, "affected": f.Affected},
	)
	return err
}

func (t *teller) closeFind(f Find) error {
	plant, err := t.plant(f.At)
	if err != nil {
		return err
	}
	var list struct {
		Items []map[string]any `json:"items"`
	}
	if err := t.get(fmt.Sprintf("/finds?open=true&plant=%d", plant), &list); err != nil {
		return err
	}
	for _, kept := range list.Items {
		if kept["cause"] == f.Cause {
			change := map[string]any{"state": "closed", "ending": f.Ending, "helped": f.Helped}
			for _, key := range []string{"cause", "certainty", "share", "seen", "not_seen", "note", "version"} {
				change[key] = kept[key]
			}
			return t.put(fmt.Sprintf("/finds/%.0f", kept["id"]), change, nil)
		}
	}
	return fmt.Errorf("none is open on it")
}

func (t *teller) look(l Look) error {
	property, err := t.property(l.Property)
	if err != nil {
		return err
	}
	plant, err := t.plant(l.At)
	if err != nil {
		return err
	}
	walk, err := t.post("/walks", map[string]any{"property_id": property})
	if err != nil {
		return err
	}
	at := fmt.Sprintf("/walks/%d/plants/%d", walk, plant)
	if len(l.Checks) > 0 || l.Note != "" {
		if err := t.put(
			at+"/checks",
			map[string]any{"checks": append([]map[string]any{}, l.Checks...), "note": l.Note},
			nil,
		); err != nil {
			return err
		}
	}
	if l.Decision == "" {
		return nil
	}
	d := map[string]any{"decision": l.Decision}
	if l.Kind != "" {
		d["kind"], d["cut_m"], d["note"] = l.Kind, l.CutM, l.Why
	}
	_, err = t.post(at+"/verdict", d)
	return err
}

func (t *teller) hand(h HandJob) error {
	property, err := t.property(h.Property)
	if err != nil {
		return err
	}
	plants := []int64{}
	for _, a := range h.Plants {
		a.Property = h.Property
		id, err := t.plant(a)
		if err != nil {
			return err
		}
		plants = append(plants, id)
	}
	_, err = t.post(
		"/orders",
		map[string]any{
			"property_id": property,
			"title":       h.Title,
			"minutes":     h.Minutes,
			"crew_size":   h.Crew,
			"every_days":  h.EveryDays,
			"spans":       h.Spans,
			"kit":         append([]string{}, h.Kit...),
			"note":        h.Note,
			"plants":      plants,
		},
	)
	return err
}

// keepCuts plans a year of cuts.
func (t *teller) keepCuts(c Cuts) error {
	property, err := t.property(c.Property)
	if err != nil {
		return err
	}
	ids := func(list []At) (map[int64]bool, error) {
		out := map[int64]bool{}
		for _, a := range list {
			a.Property = c.Property
			id, err := t.plant(a)
			if err != nil {
				return nil, err
			}
			out[id] = true
		}
		return out, nil
	}
	only, err := ids(c.Only)
	if err != nil {
		return err
	}
	struck, err := ids(c.Struck)
	if err != nil {
		return err
	}
	path := fmt.Sprintf("/properties/%d/cuts", property)
	var proposed struct {
		Cuts []struct {
			Plant int64 `json:"plant_id"`
			Asked bool  `json:"asked"`
		} `json:"cuts"`
	}
	if err := t.get(path, &proposed); err != nil {
		return err
	}
	var wanted []map[string]int64
	for _, p := range proposed.Cuts {
		if !p.Asked && !struck[p.Plant] && (len(only) == 0 || only[p.Plant]) {
			wanted = append(wanted, map[string]int64{"plant_id": p.Plant})
		}
	}
	_, err = t.post(path, map[string]any{"cuts": wanted})
	return err
}

// found is a job as the list of a property shows it.
type found struct {
	ID      int64  `json:"id"`
	Title   string `json:"title"`
	Version int    `json:"version"`
}

func (t *teller) find(property, job string) (found, error) {
	id, err := t.property(property)
	if err != nil {
		return found{}, err
	}
	var list struct {
		Items []found `json:"items"`
	}
	if err := t.get(fmt.Sprintf("/orders?list=standing&limit=500&property=%d", id), &list); err != nil {
		return found{}, err
	}
	titles := []string{}
	for _, j := range list.Items {
		if strings.HasPrefix(j.Title, quantity.Metric.Text(job)) { // the house writes its titles out
			return j, nil
		}
		titles = append(titles, j.Title)
	}
	return found{}, fmt.Errorf("no such job at %q; there are %q", property, titles)
}

func (t *teller) move(how string, m JobMove) error {
	j, err := t.find(m.Property, m.Job)
	if err != nil {
		return err
	}
	if how == "put" {
		return t.put(
			fmt.Sprintf("/orders/%d/day", j.ID),
			map[string]any{"day": m.Day, "crew": m.Crew, "version": j.Version},
			nil,
		)
	}
	body := map[string]any{"state": how, "took_minutes": m.Took, "note": m.Note + m.Why, "version": j.Version}
	switch how {
	case "partly done":
		body["left_minutes"] = m.Left
	case "not today":
		body["reason"], body["note"] = m.Why, m.Note
	}
	if m.Use != nil {
		body["use"] = m.Use
	}
	return t.put(fmt.Sprintf("/orders/%d/state", j.ID), body, nil)
}

func (t *teller) outcome(o Outcome) error {
	plant, err := t.plant(o.At)
	if err != nil {
		return err
	}
	var story struct {
		Walks []struct {
			Verdicts []struct {
				ID int64 `json:"id"`
			} `json:"verdicts"`
		} `json:"walks"`
	}
	if err := t.get(fmt.Sprintf("/plants/%d/story", plant), &story); err != nil {
		return err
	}
	for _, w := range story.Walks {
		for _, v := range w.Verdicts {
			_, err := t.post(
				fmt.Sprintf("/plants/%d/outcomes", plant),
				map[string]any{"verdict_id": v.ID, "state": o.State, "height_m": o.HeightM, "note": o.Note},
			)
			return err
		}
	}
	return fmt.Errorf("no verdict was given on it")
}

// tellStory tells the firm's year so far, day by day.
func tellStory(ctx context.Context, s *sender, setToday func(day.Day)) error {
	tale, err := ReadStory()
	if err != nil {
		return err
	}
	t, err := newTeller(s)
	if err != nil {
		return err
	}
	for _, step := range tale.Story {
		for _, l := range step.Looks {
			t.later[t.plants[l.Property+"|"+l.Species+"|"+l.Label]] = true
		}
	}
	for _, w := range tale.Winters {
		if err := t.winter(w, setToday); err != nil {
			return fmt.Errorf("story.yaml, winter of %s: %w", w.Walk, err)
		}
	}
	for _, step := range tale.Story {
		d, err := day.Parse(step.Day)
		if err != nil {
			return fmt.Errorf("story.yaml: %w", err)
		}
		setToday(d)
		if err := t.tell(step); err != nil {
			return fmt.Errorf("story.yaml, %s: %w", step.Day, err)
		}
		if err := ctx.Err(); err != nil {
			return err
		}
	}
	return nil
}

// sender sends to the operations as a user's screen would.
type sender struct {
	ctx    context.Context
	client *http.Client
}

func (s *sender) get(path string, into any) error {
	return s.send(http.MethodGet, path, "", nil, into)
}

func (s *sender) put(path string, body, into any) error {
	b, err := json.Marshal(body)
	if err != nil {
		return err
	}
	return s.send(http.MethodPut, path, "application/json", b, into)
}

// post sends a new record and gives its id, where the answer has one.
func (s *sender) post(path string, body any) (int64, error) {
	b, err := json.Marshal(body)
	if err != nil {
		return 0, err
	}
	return s.postFile(path, "application/json", b)
}

func (s *sender) postFile(path, kind string, body []byte) (int64, error) {
	var made struct {
		ID int64 `json:"id"`
	}
	err := s.send(http.MethodPost, path, kind, body, &made)
	return made.ID, err
}
