package api

import (
	"bytes"
	"context"
	"strconv"
	"strings"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/check"
	"mezzadro/core/practice"
	"mezzadro/exchange"
	"mezzadro/house/learn"
)

func (s *Server) learnRoutes(a huma.API) {
	op(a, planner, get, "/pace", doc{"pace", "Ledger", "How long work takes the firm", "Against what is reckoned, by kind of work, crew and size of the job, with how sure that is: drawn from the minutes that were noted.", reads, 0}, s.pace)
	op(a, planner, put, "/pace", doc{"set-pace", "Ledger", "Use the firm's own pace, or not", "In rounds and estimates.", writes, 0}, s.setPace, `{"on": true}`)
	op(a, planner, get, "/found-causes", doc{"found-causes", "Ledger", "What the firm finds, and what helped", "How often it finds causes against what the book lets expect on the same kinds in the same months, and what looks after treatments found: counts, no proof.", reads, 0}, s.foundCauses)
	op(a, planner, put, "/found-causes", doc{"set-found-causes", "Ledger", "Weigh causes by what the firm finds, or not", "Where that is beyond chance.", writes, 0}, s.setFoundCauses, `{"on": true}`)
	op(a, crew, get, "/practice", doc{"practised", "Practice", "How people did in made-up gardens", "The last sixty, the newest first; never mixed with the record.", reads, 0}, s.practised)
	op(a, crew, get, "/practice/garden", doc{"practice-garden", "Practice", "A made-up garden after a made-up freeze", "The same number makes the same garden. What is true of its plants is hidden.", reads, 0}, s.practiceGarden)
	op(a, crew, get, "/practice/look", doc{"practice-look", "Practice", "What a check shows in it", "As a real plant would show it, misreadings included.", reads, 0}, s.practiceLook)
	op(a, crew, post, "/practice", doc{"practice-end", "Practice", "What was decided, held against the truth", "Plant by plant, beside what the program says by the same checks; the score is kept with who it was.", writes, 0}, s.practiceEnd,
		`{"climate": "lake-foothills", "seed": 7, "plants": [{"checks": [], "kind": "leave"}, {"checks": [], "kind": "wait until"}, {"checks": [], "kind": "leave"}, {"checks": [{"kind": "scratch", "height_m": 0.2, "result": "green"}], "kind": "cut back to live wood", "cut_m": 0.3}, {"checks": [], "kind": "replace"}, {"checks": [], "kind": "leave"}]}`)
	op(a, crew, get, "/practice/ails", doc{"practice-ails", "Practice", "A made-up round of ailing plants", "Each with one thing wrong, what is seen of it at once, what one may look for and what it may be. The same number makes the same round.", reads, 0}, s.practiceAils)
	op(a, crew, get, "/practice/sign", doc{"practice-sign", "Practice", "Whether a sign is there on one of them", "As a real plant would show it; now and then it is overlooked, or taken for there.", reads, 0}, s.practiceSign)
	op(a, crew, post, "/practice/ails", doc{"practice-names", "Practice", "What was named, held against the truth", "Plant by plant, beside what the program says by the same looks; the score is kept with who it was.", writes, 0}, s.practiceNames,
		`{"climate": "lake-foothills", "seed": 7, "plants": [`+strings.TrimSuffix(strings.Repeat(`{"looked": [], "cause": ""}, `, 6), ", ")+`]}`)
	op(a, planner, get, "/nights-told", doc{"nights-told", "Ledger", "How well nights were told", "What the station told of the lowest temperatures of the last three months, against what was measured, by how many days ahead it was told.", reads, 0}, s.nightsTold)
	op(a, planner, get, "/due", doc{"due", "Ledger", "How did they turn out", "Plants that were decided on and of which it is now to be told whether they live, or look right again.", reads, 0}, s.due)
	op(a, planner, get, "/shown", doc{"shown", "Ledger", "What gardens and kinds have shown", "How much milder or colder gardens are than their stations tell, and how much more or less kinds bear than the book says, with how sure that is: drawn from where life was found to end after freezes.", reads, 0}, s.shown)
	op(a, planner, put, "/shown", doc{"set-shown", "Ledger", "Use what gardens and kinds have shown, or not", "Of all, of a garden or of a kind; in forecasts and in what to look at.", writes, 0}, s.setShown, `{"what": "gardens", "on": true}`)
	op(a, planner, get, "/score", doc{"score", "Ledger", "What was foretold, and what came", "Of all verdicts and by kind of plant, verdict, hardiness zone and person: chances told against the share that came, with intervals, and the Brier score.", reads, 0}, s.score)
	op(a, planner, get, "/score.csv", doc{"score-csv", "Ledger", "What was foretold, and what came, as CSV", "A line a prognosis of which something is known.", reads, 0}, s.scoreCSV)
}

func (s *Server) score(ctx context.Context, _ *struct{}) (*Out[learn.ScoreTold], error) {
	t, err := s.Learn.Score(ctx)
	return out(t), s.Problem(ctx, "score", err)
}

func (s *Server) scoreCSV(ctx context.Context, _ *struct{}) (*File, error) {
	list, err := s.Learn.Told(ctx)
	var b bytes.Buffer
	if err == nil {
		lines := make([]exchange.ScoreLine, len(list))
		for i, t := range list {
			lines[i] = exchange.ScoreLine{Given: t.Given.String(), Property: t.Property, Plant: t.Plant, Kind: t.Kind, Verdict: t.Verdict, By: t.Person,
				Zone: t.Zone, Cause: t.Cause, Chance: strconv.FormatFloat(t.Chance, 'g', 3, 64), SeasonsLow: strconv.Itoa(t.Low), SeasonsHigh: strconv.Itoa(t.High),
				Seen: t.Day.String(), State: t.State, Seasons: strconv.Itoa(t.Seasons)}
			if t.Overrule {
				lines[i].Overruled = "yes"
			}
		}
		err = exchange.WriteScoreCSV(&b, lines)
	}
	return attached("foretold", "foretold.csv", "text/csv", b.Bytes()), s.Problem(ctx, "score", err)
}

func (s *Server) pace(ctx context.Context, _ *struct{}) (*Out[learn.PaceTold], error) {
	p, err := s.Learn.PaceTold(ctx)
	return out(p), s.Problem(ctx, "pace", err)
}

func (s *Server) setPace(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		On bool `json:"on" doc:"It is used in rounds and estimates"`
	}
}) (*Out[learn.PaceTold], error) {
	p, err := s.Learn.SetPace(ctx, keyOf(ctx), in.Body.On)
	return out(p), s.Problem(ctx, "pace", err)
}

func (s *Server) foundCauses(ctx context.Context, _ *struct{}) (*Out[learn.CausesTold], error) {
	t, err := s.Learn.CausesTold(ctx)
	return out(t), s.Problem(ctx, "what is found", err)
}

func (s *Server) setFoundCauses(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		On bool `json:"on" doc:"What is found oftener than the book lets expect is taken for likelier"`
	}
}) (*Out[learn.CausesTold], error) {
	t, err := s.Learn.SetCauses(ctx, keyOf(ctx), in.Body.On)
	return out(t), s.Problem(ctx, "what is found", err)
}

func (s *Server) shown(ctx context.Context, _ *struct{}) (*Out[learn.ShownTold], error) {
	t, err := s.Learn.ShownTold(ctx)
	return out(t), s.Problem(ctx, "what was shown", err)
}

func (s *Server) setShown(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		What string `json:"what" maxLength:"200" doc:"gardens for all, garden: with the id of a property, or kind: with that of a species"`
		On   bool   `json:"on" doc:"It is used in forecasts and in what to look at"`
	}
}) (*Out[learn.ShownTold], error) {
	t, err := s.Learn.SetShown(ctx, keyOf(ctx), in.Body.What, in.Body.On)
	return out(t), s.Problem(ctx, "what was shown", err)
}

func (s *Server) due(ctx context.Context, _ *struct{}) (*Out[learn.DueList], error) {
	list, err := s.Learn.Due(ctx)
	return out(list), s.Problem(ctx, "what is due", err)
}

func (s *Server) nightsTold(ctx context.Context, _ *struct{}) (*Out[learn.NightsTold], error) {
	t, err := s.Learn.Nights(ctx)
	return out(t), s.Problem(ctx, "nights", err)
}

func (s *Server) practised(ctx context.Context, _ *struct{}) (*Out[Run[learn.Practised]], error) {
	list, err := s.Learn.Practised(ctx)
	return out(Run[learn.Practised]{Items: list}), s.Problem(ctx, "practice", err)
}

func (s *Server) practiceGarden(ctx context.Context, in *learn.PracticeOf) (*Out[practice.Garden], error) {
	g, err := s.Learn.PracticeGarden(*in)
	return out(g), s.Problem(ctx, "garden", err)
}

func (s *Server) practiceLook(ctx context.Context, in *learn.PracticeLook) (*Out[check.Check], error) {
	c, err := s.Learn.PracticeSeen(*in)
	return out(c), s.Problem(ctx, "garden", err)
}

func (s *Server) practiceEnd(ctx context.Context, in *struct {
	OnceKey
	Body learn.PracticeIn
}) (*Out[learn.PracticeOut], error) {
	o, err := s.Learn.PracticeEnd(ctx, keyOf(ctx), in.Body)
	return out(o), s.Problem(ctx, "garden", err)
}

func (s *Server) practiceAils(ctx context.Context, in *learn.PracticeOf) (*Out[practice.Ails], error) {
	a, err := s.Learn.PracticeAils(*in)
	return out(a), s.Problem(ctx, "round", err)
}

func (s *Server) practiceSign(ctx context.Context, in *learn.PracticeSign) (*Out[learn.SignSeen], error) {
	t, err := s.Learn.PracticeSignSeen(*in)
	return out(t), s.Problem(ctx, "round", err)
}

func (s *Server) practiceNames(ctx context.Context, in *struct {
	OnceKey
	Body learn.PracticeNamesIn
}) (*Out[learn.PracticeNamesOut], error) {
	o, err := s.Learn.PracticeNames(ctx, keyOf(ctx), in.Body)
	return out(o), s.Problem(ctx, "round", err)
}
