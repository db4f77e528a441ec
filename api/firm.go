package api

import (
	"context"
	"errors"

	"mezzadro/core/day"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/rules"
	"mezzadro/house/firm"
	"mezzadro/house/overview"
	"mezzadro/store"

	"github.com/danielgtaylor/huma/v2"
)

func (s *Server) firmRoutes(a huma.API) {
	op(a, crew, get, "/frame", doc{"frame", "Firm", "What every screen shows", "Today, the firm, and how much wants " +
		"attention in each place.", reads, 0}, s.frame)
	op(a, planner, put, "/today", doc{"move-today", "Firm", "Move the sample's day", "Only the made-up sample's day can be " +
		"moved; its simulated weather is read up to there and every window follows.", outside, 0}, s.moveToday, `{"day": "2027-04-01"}`)
	op(a, crew, get, "/firm", doc{"firm", "Firm", "The firm's settings", "Name, units, first day of the week and house " +
		"rules.", reads, 0}, s.firm)
	op(a, owner, put, "/firm", doc{"change-firm", "Firm", "Change the firm's settings", "Texts are told in the new units " +
		"from then on; the windows of orders follow the house rules.", writes, 0}, s.changeFirm, `{"name": "Tre Gelsi", "units": "metric", "week_start": 1, "rules": {"perennials": "stand"}, "version": 1}`)
	op(a, owner, get, "/removed", doc{"removed", "Firm", "What was removed", "Out of sight, the latest first: each may be brought " +
		"back, or erased for good.", reads, 0}, s.removed)
	op(a, owner, remove, "/removed/{kind}/{id}", doc{"erase", "Firm", "Erase for good what was removed", "With all that hangs on " +
		"it, and pictures that nothing else tells of. Of people only the names go. It cannot be taken back.", writes, 0}, s.erase)
	op(a, crew, get, "/night-watch", doc{"night-watch", "Firm", "What to do before the cold nights that are told", "By property, for tonight and the night after: what is carried in, covered and mulched, what saves most in a minute first. " +
		"It rests on the weather ahead as the station tells it.", reads, 0}, s.nightWatch)
	op(a, crew, get, "/lookout", doc{"lookout", "Firm", "What weather and season ask now", "Events, the look-list by " +
		"property, tender plants, follow-ups, overdue jobs and windows that close, over all properties.", reads, 0}, s.lookout)
	op(a, crew, get, "/find", doc{"find", "Firm", "Find a plant, property, species, cause or job", "All words given have to be " +
		"there. Up to limit of each kind; more says that there are others.", reads, 0}, s.find)
}

func (s *Server) removed(ctx context.Context, _ *struct{}) (*Out[[]firm.Removed], error) {
	list, err := s.Firm.Removed(ctx)
	return out(list), s.Problem(ctx, "record", err)
}

func (s *Server) erase(ctx context.Context, in *struct {
	Kind string `path:"kind" enum:"property,plant,photo,order-photo,person,client,account" example:"photo" doc:"What it is"`
	Write
}) (*Out[firm.Erased], error) {
	e, err := s.Firm.Erase(ctx, in.Kind, in.ID)
	return out(e), s.Problem(ctx, "removed "+in.Kind, err)
}

// FirmOut is the firm with its settings.
type FirmOut struct {
	Name      string      `json:"name"`
	Sample    bool        `json:"sample" doc:"The data is the made-up sample"`
	Units     string      `json:"units" enum:"metric,imperial"`
	WeekStart int         `json:"week_start" doc:"First day of the week: 0 Sunday, 1 Monday, 6 Saturday"`
	DayOrder  string      `json:"day_order,omitempty" enum:"day,month," doc:"What stands first in a date; absent: as each reader's region has it"`
	Clock     string      `json:"clock,omitempty" enum:"24,12," doc:"Hours of a day; absent: as each reader's region has it"`
	Paper     string      `json:"paper,omitempty" enum:"A4,letter," doc:"Size of what is printed; absent: as each reader's region has it"`
	Rules     rules.House `json:"rules" doc:"House rules"`
	Version   int         `json:"version"`
}

func tellFirm(f store.Firm) FirmOut {
	return FirmOut{f.Name, f.Sample, f.Units, f.WeekStart, f.DayOrder, f.Clock, f.Paper, f.Rules.V, f.Version}
}

// Frame is what every screen shows round its work.
type Frame struct {
	Today   day.Day           `json:"today" format:"date"`
	Movable bool              `json:"movable" doc:"The day can be moved: the sample's only"`
	Home    day.Day           `json:"home,omitempty" format:"date" doc:"The day the sample starts at, where it can be moved"`
	Firm    FirmOut           `json:"firm"`
	Counts  overview.Counts   `json:"counts"`
	Levels  []job.Level       `json:"levels" doc:"The words for what a day costs, the best first"`
	Style   quantity.Style    `json:"style" doc:"How the reader wants figures and days written"`
	Trouble string            `json:"trouble,omitempty" doc:"What is wrong with the disk: nothing can be kept, and the windows of jobs stay as they were last worked out"`
	First   *store.FirstSteps `json:"first,omitempty" doc:"How far a new record has come; absent once a verdict stands"`
}

// Reader tells who reads: by the language, how figures and days are written.
type Reader struct {
	Language string `header:"Accept-Language"`
}

func (s *Server) frame(ctx context.Context, in *Reader) (*Out[Frame], error) {
	f, err := s.Overview.Frame(ctx)
	style := s.StyleOf(ctx, in.Language)
	return out(Frame{f.Today, f.Movable, f.Home, tellFirm(f.Firm), f.Counts, job.Levels(), style, f.Trouble, f.First}), s.Problem(ctx, "frame", err)
}

func (s *Server) moveToday(ctx context.Context, in *struct {
	OnceKey
	Reader
	Body struct {
		Day day.Day `json:"day" format:"date"`
	}
}) (*Out[Frame], error) {
	if err := s.Overview.MoveToday(ctx, in.Body.Day); err != nil {
		return nil, s.Problem(ctx, "day", err)
	}
	return s.frame(ctx, &in.Reader)
}

func (s *Server) firm(ctx context.Context, _ *struct{}) (*Out[FirmOut], error) {
	f, err := s.Estate.Firm(ctx)
	return out(tellFirm(f)), s.Problem(ctx, "firm", err)
}

func (s *Server) changeFirm(ctx context.Context, in *struct {
	OnceKey
	Body firm.FirmIn
}) (*Out[FirmOut], error) {
	f, err := s.Firm.ChangeFirm(ctx, keyOf(ctx), in.Body)
	if stale := (store.Stale{}); errors.As(err, &stale) {
		if now, ok := stale.Current.(store.Firm); ok {
			err = store.Stale{Yours: stale.Yours, Current: tellFirm(now)}
		}
	}
	return out(tellFirm(f)), s.Problem(ctx, "firm", err)
}

func (s *Server) nightWatch(ctx context.Context, _ *struct{}) (*Out[overview.NightWatch], error) {
	n, err := s.Overview.NightWatch(ctx)
	return out(n), s.Problem(ctx, "plants", err)
}

func (s *Server) lookout(ctx context.Context, _ *struct{}) (*Out[overview.Lookout], error) {
	o, err := s.Overview.Lookout(ctx)
	return out(o), s.Problem(ctx, "plants", err)
}

func (s *Server) find(ctx context.Context, in *struct {
	Text  string `query:"text" required:"true" maxLength:"200" example:"priory camellia" doc:"Words that all have to be there"`
	Limit int    `query:"limit" default:"12" minimum:"1" maximum:"100"`
}) (*Out[overview.Hits], error) {
	h, err := s.Overview.Find(ctx, in.Text, in.Limit)
	return out(h), s.Problem(ctx, "search", err)
}
