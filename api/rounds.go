package api

import (
	"bytes"
	"context"
	"encoding/json"
	"fmt"
	"io"
	"net/http"
	"reflect"

	"github.com/danielgtaylor/huma/v2"

	round "mezzadro/core/rounds"
	"mezzadro/exchange"
	"mezzadro/house/crews"
	"mezzadro/house/days"
	"mezzadro/house/letters"
	"mezzadro/house/rounds"
	"mezzadro/house/standing"
	"mezzadro/house/work"
)

func (s *Server) roundRoutes(a huma.API) {
	op(a, crew, get, "/crews", doc{"crews", "Firm", "The firm's crews", "With their people, skills, hours and start.", reads, 0}, s.crews)
	op(a, planner, post, "/crews", doc{"add-crew", "Firm", "Enter a crew", "People who go together, with their hours.", writes, 0}, s.addCrew, `{"name": "Crew 1", "people": [1], "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "start": {"latitude": 45.9, "longitude": 8.6}, "load_m3": 4}`)
	op(a, planner, put, "/crews/{id}", doc{"change-crew", "Firm", "Change a crew", "All fields, based on a version.", writes, 0}, s.changeCrew, `{"name": "Crew 1", "people": [1], "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "version": 1}`)
	op(a, planner, remove, "/crews/{id}", doc{"remove-crew", "Firm", "Remove a crew", "Out of sight, and can be restored; days it was put on stay.", writes, 0}, s.removeCrew)
	op(a, planner, post, "/crews/{id}/restore", doc{"restore-crew", "Firm", "Bring a removed crew back", "As it was.", writes, 0}, s.restoreCrew)
	op(a, crew, get, "/properties/{id}/access", doc{"access", "Grounds", "When one may be at a property", "Hours by weekday, days on which it is shut, minutes on arrival.", readsOf, 0}, s.access)
	op(a, planner, put, "/properties/{id}/access", doc{"set-access", "Grounds", "Say when one may be at a property", "All of it, whatever stood there.", writes, 0}, s.setAccess, `{"arrive": 10, "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "shut": [6], "note": "Key with the caretaker"}`)
	op(a, planner, get, "/traffic", doc{"traffic", "Work", "When ways take longer", "Stretches of the day, by the hour.", reads, 0}, s.traffic)
	op(a, planner, put, "/traffic", doc{"set-traffic", "Work", "Say when ways take longer", "All stretches, in the place of those before; none for a free road at all hours. Rounds that are proposed from then on go by it.", writes, 0}, s.setTraffic, `{"traffic": [{"from": 420, "to": 540, "times": 1.5}]}`)
	op(a, planner, get, "/ways.csv", doc{"give-ways", "Work", "Ways between crews and properties as CSV", "Minutes as they are reckoned with: timed, or estimated; to be corrected and given back.", reads, 0}, s.giveWays)
	op(a, planner, post, "/ways", doc{"take-ways", "Work", "Take timed ways from a CSV file", "from, to, minutes, by name; in the place of those before. All of it, or with a fault anywhere none.", files, maxCSV}, s.takeWays, "from,to,minutes\nCrew 1,Villa Lumera,9\n")
	op(a, crew, get, "/rounds/sheet", doc{"sheet", "Work", "A crew's day", "Properties in order, with their jobs, kit, cautions and what to mind.", readsOf, 0}, s.sheet)
	op(a, crew, get, "/rounds/load", doc{"load", "Work", "What is taken along, and what is bought", "Plants, stuff, tools, ladders, fuel and bags for what comes off, summed over the jobs of some days, of a crew or of all: estimates.", readsOf, 0}, s.load)
	op(a, planner, post, "/rounds/visits", doc{"change-visit", "Work", "Change a visit", "All jobs of a property, a day and a crew: moved, taken off or cancelled in one write.", writes, 0}, s.changeVisit, `{"property_id": 1, "day": "2027-03-22", "do": "move", "to": "2027-03-24"}`)
	op(a, planner, post, "/rounds/visits/back", doc{"visit-back", "Work", "Have a visit stand as it did", "Of what a change answered; what was changed since stays.", writes, 0}, s.visitBack, `{"was": [{"order": 1, "version": 2, "day": "2027-03-22"}]}`)
	op(a, planner, get, "/rounds/lost", doc{"lost-day", "Work", "What falls off a lost day", "It rains, a crew is away, the van is broken: what falls off, and where it would go. Nothing is changed.", reads, 0}, s.lostDay)
	op(a, planner, post, "/rounds/lost", doc{"lose-day", "Work", "Take a lost day's work where it goes", "In one write; letters to those who know the day are drafted among the tellings.", writes, 0}, s.loseDay, `{"day": "2027-03-22", "why": "rain"}`)
	op(a, planner, get, "/rounds/tellings", doc{"tellings", "Work", "What clients are to be told", "Days from today on that a client does not know yet, with a draft of what is written. Nothing is sent.", reads, 0}, s.tellings)
	op(a, planner, get, "/rounds/thanks", doc{"thanks", "Work", "What clients may be told after a visit", "Drafts for the visits of the last five days whose work is all done, and of which nobody was written to yet.", reads, 0}, s.thanks)
	op(a, planner, post, "/rounds/thanks", doc{"send-thanks", "Work", "Write to a client after a visit", "Gives the letter to the post.", writes, 0}, s.sendThanks, `{"property_id": 1, "day": "2027-03-16", "text": "We were at Hillside terrace on Tuesday."}`)
	op(a, planner, put, "/rounds/told", doc{"told", "Work", "Note that clients know the days of some jobs", "Those stay when rounds are proposed again, unless nothing else can be.", writes, 0}, s.told, `{"orders": [1], "told": true}`)
	op(a, planner, get, "/rounds/letters", doc{"letters", "Work", "Letters that were sent", "The last sixty. The post is simulated: it delivers to nobody.", reads, 0}, s.letters)
	op(a, planner, post, "/rounds/letters", doc{"send-letter", "Work", "Send a letter to a client", "Gives it to the post, and notes that the client knows the day of its jobs: both or neither.", writes, 0}, s.sendLetter, `{"property_id": 1, "day": "2027-03-20", "text": "We come on Saturday.", "orders": [1]}`)
	op(a, crew, get, "/rounds/sheet.pdf", doc{"sheet-pdf", "Work", "A crew's day as PDF", "To be printed: what to take, where to go, what to do and mind.", readsOf, 0}, s.sheetPDF)
	op(a, planner, get, "/rounds/season", doc{"rounds-season", "Work", "The season in weeks", "What the work wants, what the crews have, and what goes where so that it fits.", reads, 0}, s.roundsSeason)
	op(a, crew, get, "/rounds/route.geojson", doc{"route-geojson", "Work", "The way of a day as GeoJSON", "From where the crew's day begins over its visits and back.", readsOf, 0}, s.routeGeoJSON)
	op(a, crew, get, "/rounds/route.gpx", doc{"route-gpx", "Work", "The way of a day as a GPX route", "For a navigation device.", readsOf, 0}, s.routeGPX)
	op(a, planner, post, "/rounds/proposals", doc{"propose", "Work", "Look for rounds", "Who goes where on which day, in a span of days. It is looked for in the background: ask how far it is.", writes, 0}, s.propose, `{"days": 7, "seconds": 0.2}`)
	op(a, planner, get, "/rounds/proposals", doc{"last-proposal", "Work", "The last proposal", "The last rounds that were found, taken or not, though the program was begun anew since; none: no items.", readsOf, 0}, s.lastProposal)
	op(a, planner, get, "/rounds/proposals/{id}", doc{"proposal", "Work", "A proposal of rounds", "How far it is; once it is done, its visits and what is left.", readsOf, 0}, s.proposal)
	op(a, planner, get, "/rounds/proposals/{id}/progress", doc{"proposal-progress", "Work", "How far a proposal is, as it comes",
		"Server-sent events, each the state, the share done, the tries and the best score; the last one when the search has ended.", readsOf, 0}, s.proposalProgress)
	events(a, "/rounds/proposals/{id}/progress", rounds.Progress{})
	op(a, planner, post, "/rounds/proposals/{id}/stop", doc{"stop-proposal", "Work", "Stop looking", "What was found so far is the proposal.", writes, 0}, s.stopProposal)
	op(a, planner, get, "/rounds/proposals/{id}/why/{order}", doc{"why-there", "Work", "Why a job stands where it does", "And what each other day would cost, with all else as it stands.", readsOf, 0}, s.whyThere)
	op(a, planner, post, "/rounds/proposals/{id}/accept", doc{"accept-proposal", "Work", "Put the jobs of a proposal on their days", "All in one write; what was changed meanwhile stays as it is.", writes, 0}, s.acceptProposal)
	op(a, planner, post, "/rounds/proposals/{id}/take-back", doc{"take-back-proposal", "Work", "Put them back to where they stood", "As far as nobody has changed them since.", writes, 0}, s.takeBackProposal)
	op(a, planner, put, "/orders/{id}/pin", doc{"pin-order", "Work", "Pin a job to its day", "It stays there, with its crew, when rounds are proposed.", writes, 0}, s.pinOrder, `{"pinned": true, "version": 1}`)
	op(a, crew, post, "/reckon/rounds", doc{"reckon-rounds", "Reckon", "Who goes where on which day", "From inline jobs, crews, places and weather: visits with times, breaks, score by part, a bound, what is left and why. Nothing is stored. " +
		"The score is minutes, a point of a day's cost counted as one: what holds, how the clock runs and what each part costs stands in docs/rounds.md, so that it can be worked out again from the answer.", asks, 16 << 20}, s.reckonRounds, `{"from": "2027-03-22", "days": 5, "rounds": 50, "crews": [{"name": "Crew 1", "size": 2, "hours": [{"from":0,"to":0},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":480,"to":1020},{"from":0,"to":0}], "start": {"latitude": 45.9, "longitude": 8.6}}],
		"places": [{"name": "Villa", "at": {"latitude": 45.92, "longitude": 8.63}, "arrive": 5}], "jobs": [{"title": "Cut the roses", "place": 0, "minutes": 90, "costs": [20, 10, 0, 0, 5]}]}`)
}

func (s *Server) reckonRounds(ctx context.Context, in *struct{ Body rounds.ReckonRoundsIn }) (*Out[rounds.ReckonRoundsOut], error) {
	o, err := s.Rounds.ReckonRounds(ctx, in.Body)
	return out(o), s.Problem(ctx, "rounds", err)
}

func (s *Server) crews(ctx context.Context, _ *struct{}) (*Out[Run[crews.Crew]], error) {
	list, err := s.Team.Crews(ctx)
	return out(Run[crews.Crew]{Items: list}), s.Problem(ctx, "crews", err)
}

func (s *Server) addCrew(ctx context.Context, in *struct {
	OnceKey
	Body crews.CrewIn
}) (*Out[crews.Crew], error) {
	c, err := s.Team.KeepCrew(ctx, keyOf(ctx), 0, in.Body)
	return out(c), s.Problem(ctx, "crew", err)
}

func (s *Server) changeCrew(ctx context.Context, in *struct {
	Write
	Body crews.CrewIn
}) (*Out[crews.Crew], error) {
	c, err := s.Team.KeepCrew(ctx, keyOf(ctx), in.ID, in.Body)
	return out(c), s.Problem(ctx, "crew", err)
}

func (s *Server) removeCrew(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "crew", s.Team.RemoveCrew(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreCrew(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "crew", s.Team.RemoveCrew(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) access(ctx context.Context, in *ByID) (*Out[standing.Access], error) {
	a, err := s.Standing.AccessOf(ctx, in.ID)
	return out(a), s.Problem(ctx, "property", err)
}

func (s *Server) setAccess(ctx context.Context, in *struct {
	Write
	Body standing.Access
}) (*Out[standing.Access], error) {
	a, err := s.Standing.SetAccess(ctx, keyOf(ctx), in.ID, in.Body)
	return out(a), s.Problem(ctx, "property", err)
}

func (s *Server) giveWays(ctx context.Context, _ *struct{}) (*File, error) {
	list, err := s.Team.GiveWays(ctx)
	var b bytes.Buffer
	if err == nil {
		err = exchange.WriteWays(&b, list)
	}
	return attached("ways", "ways.csv", "text/csv", b.Bytes()), s.Problem(ctx, "ways", err)
}

func (s *Server) takeWays(ctx context.Context, in *struct {
	OnceKey
	RawBody []byte `contentType:"text/csv"`
}) (*Out[crews.WaysTaken], error) {
	t, err := s.Team.TakeWays(ctx, keyOf(ctx), in.RawBody)
	return out(t), s.Problem(ctx, "ways", err)
}

func (s *Server) traffic(ctx context.Context, _ *struct{}) (*Out[Run[round.Traffic]], error) {
	list, err := s.Team.Traffic(ctx)
	return out(Run[round.Traffic]{Items: list}), s.Problem(ctx, "traffic", err)
}

func (s *Server) setTraffic(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		Traffic []round.Traffic `json:"traffic" maxItems:"40" doc:"Stretches that do not lie over each other"`
	}
}) (*Out[Run[round.Traffic]], error) {
	list, err := s.Team.SetTraffic(ctx, keyOf(ctx), in.Body.Traffic)
	return out(Run[round.Traffic]{Items: list}), s.Problem(ctx, "traffic", err)
}

// RouteOf names a day's way.
type RouteOf struct {
	Day  string `query:"day" format:"date" example:"2027-03-18" doc:"Today when absent"`
	Crew int64  `query:"crew" minimum:"0" doc:"Its id; all when absent"`
}

func (s *Server) routeFile(
	ctx context.Context,
	in *RouteOf,
	ending, kind string,
	write func(io.Writer, string, []exchange.RouteStop) error,
) (*File, error) {
	on, err := dayOr("day", in.Day, s.Estate.Today())
	if err != nil {
		return nil, s.Problem(ctx, "route", err)
	}
	name, stops, err := s.Days.Route(ctx, on, in.Crew)
	var b bytes.Buffer
	if err == nil {
		err = write(&b, name, stops)
	}
	return attached(name, "route."+ending, kind, b.Bytes()), s.Problem(ctx, "route", err)
}

func (s *Server) routeGeoJSON(ctx context.Context, in *RouteOf) (*File, error) {
	return s.routeFile(ctx, in, "geojson", "application/geo+json", exchange.WriteRouteGeoJSON)
}

func (s *Server) routeGPX(ctx context.Context, in *RouteOf) (*File, error) {
	return s.routeFile(ctx, in, "gpx", "application/gpx+xml", exchange.WriteRouteGPX)
}

func (s *Server) load(ctx context.Context, in *struct {
	From    string `query:"from" format:"date" example:"2027-03-22" doc:"Today when absent"`
	To      string `query:"to" format:"date" example:"2027-03-28" doc:"The same day when absent"`
	Crew    int64  `query:"crew" example:"1" doc:"By id; 0 for all"`
	Waiting bool   `query:"waiting" doc:"With the jobs without a day whose best day comes by then: what is to be bought"`
}) (*Out[days.Load], error) {
	from, err := dayOr("from", in.From, s.Estate.Today())
	if err != nil {
		return nil, s.Problem(ctx, "load", err)
	}
	to, err := dayOr("to", in.To, from)
	if err != nil {
		return nil, s.Problem(ctx, "load", err)
	}
	l, err := s.Days.Load(ctx, from, to, in.Crew, in.Waiting)
	return out(l), s.Problem(ctx, "crew", err)
}

func (s *Server) sheet(ctx context.Context, in *struct {
	Day  string `query:"day" format:"date" example:"2027-03-18" doc:"Today when absent"`
	Crew int64  `query:"crew" minimum:"0" doc:"Its id; all when absent"`
}) (*Out[days.Sheet], error) {
	on, err := dayOr("day", in.Day, s.Estate.Today())
	if err != nil {
		return nil, s.Problem(ctx, "sheet", err)
	}
	sheet, err := s.Days.Sheet(ctx, on, in.Crew)
	return out(sheet), s.Problem(ctx, "sheet", err)
}

func (s *Server) sheetPDF(ctx context.Context, in *struct {
	RouteOf
	Language string `header:"Accept-Language"`
}) (*File, error) {
	on, err := dayOr("day", in.Day, s.Estate.Today())
	if err != nil {
		return nil, s.Problem(ctx, "sheet", err)
	}
	page, err := s.Days.SheetPage(ctx, on, in.Crew, s.StyleOf(ctx, in.Language))
	var b bytes.Buffer
	if err == nil {
		err = exchange.WriteDaySheet(&b, s.paper(ctx, in.Language), page)
	}
	return attached(page.Title, "sheet.pdf", "application/pdf", b.Bytes()), s.Problem(ctx, "sheet", err)
}

func (s *Server) tellings(ctx context.Context, in *struct {
	Days     int    `query:"days" default:"14" minimum:"1" maximum:"60"`
	Language string `header:"Accept-Language"`
}) (*Out[Run[letters.Telling]], error) {
	list, err := s.Letters.Tellings(ctx, in.Days, s.StyleOf(ctx, in.Language))
	return out(Run[letters.Telling]{Items: list}), s.Problem(ctx, "jobs", err)
}

func (s *Server) thanks(ctx context.Context, in *struct {
	Language string `header:"Accept-Language"`
}) (*Out[Run[letters.Telling]], error) {
	list, err := s.Letters.Thanks(ctx, s.StyleOf(ctx, in.Language))
	return out(Run[letters.Telling]{Items: list}), s.Problem(ctx, "visits", err)
}

func (s *Server) sendThanks(ctx context.Context, in *struct {
	OnceKey
	Body letters.ThanksIn
}) (*Out[letters.Letter], error) {
	l, err := s.Letters.SendThanks(ctx, keyOf(ctx), in.Body)
	return out(l), s.Problem(ctx, "property", err)
}

func (s *Server) letters(ctx context.Context, _ *struct{}) (*Out[Run[letters.Letter]], error) {
	list, err := s.Letters.Letters(ctx)
	return out(Run[letters.Letter]{Items: list}), s.Problem(ctx, "letters", err)
}

func (s *Server) sendLetter(ctx context.Context, in *struct {
	OnceKey
	Body letters.LetterIn
}) (*Out[letters.Letter], error) {
	l, err := s.Letters.SendLetter(ctx, keyOf(ctx), in.Body)
	return out(l), s.Problem(ctx, "job on that day", err)
}

func (s *Server) told(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		Orders []int64 `json:"orders" minItems:"1" maxItems:"500" doc:"Ids of jobs that are on days"`
		Told   bool    `json:"told"`
	}
}) (*struct{}, error) {
	return nil, s.Problem(ctx, "job on a day", s.Letters.Told(ctx, keyOf(ctx), in.Body.Orders, in.Body.Told))
}

func (s *Server) roundsSeason(ctx context.Context, in *struct {
	Weeks int `query:"weeks" default:"26" minimum:"1" maximum:"52"`
}) (*Out[rounds.WeeksAhead], error) {
	o, err := s.Rounds.SeasonOf(ctx, in.Weeks)
	return out(o), s.Problem(ctx, "jobs", err)
}

func (s *Server) propose(ctx context.Context, in *struct {
	OnceKey
	Body rounds.ProposalIn
}) (*Out[rounds.Proposal], error) {
	p, err := s.Rounds.Propose(ctx, in.Body)
	return out(p), s.Problem(ctx, "rounds", err)
}

func (s *Server) lastProposal(ctx context.Context, _ *struct{}) (*Out[Run[rounds.Proposal]], error) {
	p, err := s.Rounds.LastProposal(ctx)
	run := Run[rounds.Proposal]{Items: []rounds.Proposal{}}
	if p.ID != 0 {
		run.Items = append(run.Items, p)
	}
	return out(run), s.Problem(ctx, "proposal", err)
}

func (s *Server) proposal(ctx context.Context, in *ByID) (*Out[rounds.Proposal], error) {
	p, err := s.Rounds.ReadProposal(ctx, in.ID)
	return out(p), s.Problem(ctx, "proposal", err)
}

// events says of what kind the events are that a read streams.
func events(a huma.API, path string, one any) {
	d := a.OpenAPI()
	d.Paths["/api/v1"+path].Get.Responses["200"] = &huma.Response{
		Description: "OK",
		Content: map[string]*huma.MediaType{
			"text/event-stream": {Schema: d.Components.Schemas.Schema(reflect.TypeOf(one), true, "")},
		},
	}
}

// proposalProgress streams: it answers at once, and writes an event whenever there is news.
func (s *Server) proposalProgress(ctx context.Context, in *ByID) (*huma.StreamResponse, error) {
	if _, err := s.Rounds.ReadProposal(ctx, in.ID); err != nil {
		return nil, s.Problem(ctx, "proposal", err)
	}
	return &huma.StreamResponse{Body: func(c huma.Context) {
		c.SetHeader("Content-Type", "text/event-stream")
		c.SetHeader("Cache-Control", "no-store")
		w := c.BodyWriter()
		err := s.Rounds.WatchProposal(c.Context(), in.ID, func(p rounds.Progress) error {
			b, err := json.Marshal(p)
			if err == nil {
				_, err = fmt.Fprintf(w, "data: %s\n\n", b)
			}
			if f, can := w.(http.ResponseWriter); err == nil && can {
				err = http.NewResponseController(f).Flush()
			}
			return err
		})
		if err != nil && c.Context().Err() == nil {
			s.Estate.Log.Error("progress of a proposal", "error", err)
		}
	}}, nil
}

func (s *Server) stopProposal(ctx context.Context, in *Write) (*Out[rounds.Proposal], error) {
	p, err := s.Rounds.StopProposal(ctx, in.ID)
	return out(p), s.Problem(ctx, "proposal", err)
}

func (s *Server) whyThere(ctx context.Context, in *struct {
	ByID
	Order int64 `path:"order" example:"1" doc:"Id of the job"`
	Part  int   `query:"part" minimum:"0" maximum:"200" doc:"Which part of it, from 1, where it is done in parts"`
}) (*Out[round.Why], error) {
	w, err := s.Rounds.WhyThere(ctx, in.ID, in.Order, in.Part)
	return out(w), s.Problem(ctx, "job in this proposal", err)
}

func (s *Server) acceptProposal(ctx context.Context, in *Write) (*Out[rounds.Accepted], error) {
	a, err := s.Rounds.Accept(ctx, keyOf(ctx), in.ID)
	return out(a), s.Problem(ctx, "proposal", err)
}

func (s *Server) takeBackProposal(ctx context.Context, in *Write) (*Out[rounds.Accepted], error) {
	a, err := s.Rounds.TakeBack(ctx, keyOf(ctx), in.ID)
	return out(a), s.Problem(ctx, "proposal", err)
}

func (s *Server) pinOrder(ctx context.Context, in *struct {
	Write
	Body struct {
		Pinned  bool `json:"pinned"`
		Version int  `json:"version"`
	}
}) (*Out[work.OrderDetail], error) {
	o, err := s.Rounds.PinOrder(ctx, keyOf(ctx), in.ID, in.Body.Version, in.Body.Pinned)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) changeVisit(ctx context.Context, in *struct {
	OnceKey
	Body days.VisitIn
}) (*Out[days.VisitChanged], error) {
	o, err := s.Days.ChangeVisit(ctx, keyOf(ctx), in.Body)
	return out(o), s.Problem(ctx, "visit", err)
}

func (s *Server) visitBack(ctx context.Context, in *struct {
	OnceKey
	Body struct {
		Was []days.WasAt `json:"was" minItems:"1" maxItems:"500"`
	}
}) (*Out[days.VisitChanged], error) {
	o, err := s.Days.VisitBack(ctx, keyOf(ctx), in.Body.Was)
	return out(o), s.Problem(ctx, "job", err)
}

func (s *Server) lostDay(ctx context.Context, in *struct {
	Day  string `query:"day" format:"date" example:"2027-03-22" doc:"Today when absent"`
	Crew int64  `query:"crew" example:"1" doc:"Whose day; all crews' when absent"`
	Why  string `query:"why" default:"rain" enum:"rain,crew away,van broken" doc:"rain takes what wants it dry; the others take all"`
	All  bool   `query:"all" doc:"rain: all work comes off"`
}) (*Out[days.Lost], error) {
	on, err := dayOr("day", in.Day, s.Estate.Today())
	if err != nil {
		return nil, s.Problem(ctx, "day", err)
	}
	o, err := s.Days.LostDay(ctx, days.LostIn{Day: on, Crew: in.Crew, Why: in.Why, All: in.All})
	return out(o), s.Problem(ctx, "crew", err)
}

func (s *Server) loseDay(ctx context.Context, in *struct {
	OnceKey
	Body days.LostIn
}) (*Out[days.VisitChanged], error) {
	o, err := s.Days.LoseDay(ctx, keyOf(ctx), in.Body)
	return out(o), s.Problem(ctx, "crew", err)
}
