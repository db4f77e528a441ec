package api

import (
	"bytes"
	"context"
	"fmt"
	"strings"
	"time"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/exchange"
	"mezzadro/house/treat"
	"mezzadro/house/work"
)

func (s *Server) storeRoutes(a huma.API) {
	op(a, crew, get, "/actives", doc{"actives", "Stores", "Means by what works in them", "With the limits that hold before any label.", reads, 0}, s.actives)
	op(a, crew, get, "/products", doc{"products", "Stores", "Product cards with what is on hand", "In the order they were entered.", reads, 0}, s.products)
	op(a, planner, post, "/products", doc{"add-product", "Stores", "Enter a product card", "As its label says.", writes, 0}, s.addProduct, `{"name": "Soft soap, 1 L", "active": "soap", "unit": "mL", "rates": [{"amount": 20, "per": "L"}], "packs": [{"size": 1000, "price": 9.5}], "supplier": "Farm shop"}`)
	op(a, planner, put, "/products/{id}", doc{"change-product", "Stores", "Change a product card", "All its fields, based on a version.", writes, 0}, s.changeProduct, `{"name": "Soft soap, 1 L", "active": "soap", "unit": "mL", "rates": [{"amount": 25, "per": "L"}], "packs": [{"size": 1000, "price": 9.5}], "version": 1}`)
	op(a, planner, remove, "/products/{id}", doc{"remove-product", "Stores", "Remove a product card", "It goes out of sight, and can be restored; what was used of it stays.", writes, 0}, s.removeProduct)
	op(a, planner, post, "/products/{id}/restore", doc{"restore-product", "Stores", "Bring a removed product card back", "As it was.", writes, 0}, s.restoreProduct)
	op(a, planner, post, "/products/{id}/stock", doc{"add-lot", "Stores", "Count in what was bought", "By lot.", writes, 0}, s.addLot, `{"amount": 1000, "lot": "A 17", "expires": "2029-06-30"}`)
	op(a, planner, put, "/products/{id}/label", doc{"keep-label", "Stores", "Keep the label of a product", "A picture (JPEG, PNG, WebP, GIF) or a PDF; it takes the place of the one before.", files, -1}, s.keepLabel)
	op(a, crew, get, "/products/{id}/label", doc{"label", "Stores", "The label of a product", "As it was kept: a JPEG or a PDF.", readsOf, 0}, s.label)
	op(a, planner, remove, "/products/{id}/label", doc{"drop-label", "Stores", "Take a label off its card", "The card stays.", writes, 0}, s.dropLabel)
	op(a, planner, get, "/shopping", doc{"shopping", "Stores", "What is to be bought", "For the treatments that stand as jobs until a day, over all properties, in packs.", reads, 0}, s.shopping)
	op(a, crew, get, "/mixes", doc{"mixes", "Stores", "What is mixed for a day", "For the treatments that are on it: tanks of a size, with what goes into each.", reads, 0}, s.mixes)
	op(a, crew, get, "/uses", doc{"uses", "Stores", "The use record", "What was used or done against a cause, the newest first.", reads, 0}, s.uses)
	op(a, planner, get, "/uses.csv", doc{"uses-csv", "Stores", "The use record as CSV", "Of a span of days.", reads, 0}, s.usesCSV)
	op(a, planner, get, "/uses.pdf", doc{"uses-pdf", "Stores", "The use record to print", "Of a span of days, as PDF.", reads, 0}, s.usesPDF)
	op(a, crew, get, "/finds/{id}/treatment", doc{"treatment", "Causes", "What is done about a find", "The ladder with the least that works, its steps on their days, and the jobs that stand.", readsOf, 0}, s.treatment)
	op(a, planner, post, "/finds/{id}/treatment", doc{"keep-treatment", "Causes", "Make jobs of a find's treatment", "Of the steps that do not stand yet, all in one write.", writes, 0}, s.keepTreatment, `{"plants": []}`)
	op(a, crew, get, "/plants/{id}/guards", doc{"guards", "Causes", "What a plant can be guarded against", "What its kind has again and again first, with the next step of each and the wishes that stand.", readsOf, 0}, s.guards)
	op(a, planner, post, "/plants/{id}/feeding", doc{"keep-feeding", "Stores", "Make a job of a plant's feeding", "In the season that runs or comes next; ticked off it comes again till that ends.", writes, 0}, s.keepFeeding, `{"bed_m2": 6}`)
	op(a, crew, get, "/people", doc{"people", "Firm", "Who works for the firm", "By name, with skills and licences.", reads, 0}, s.people)
	op(a, planner, post, "/people", doc{"add-person", "Firm", "Enter a person", "Name, skills and licences.", writes, 0}, s.addPerson, `{"name": "Rosa", "skills": ["licence for restricted products"]}`)
	op(a, planner, put, "/people/{id}", doc{"change-person", "Firm", "Change a person", "All fields, based on a version.", writes, 0}, s.changePerson, `{"name": "Rosa", "skills": ["ladder"], "version": 1}`)
	op(a, planner, remove, "/people/{id}", doc{"remove-person", "Firm", "Remove a person", "Out of sight, and can be restored; what they did stays.", writes, 0}, s.removePerson)
	op(a, planner, post, "/people/{id}/restore", doc{"restore-person", "Firm", "Bring a removed person back", "As they were.", writes, 0}, s.restorePerson)
	op(a, crew, get, "/skills", doc{"skills", "Firm", "Skills and licences work may ask for", "As words.", reads, 0}, s.skills)
	op(a, crew, post, "/reckon/treatment", doc{"reckon-treatment", "Reckon", "What is done about a cause", "The ladder, the least that works, its steps on their days with reasons, what they take by the " +
		"given product cards, and cautions. Nothing is stored.", asks, 0}, s.reckonTreatment, `{"cause": "lace-bug", "species": "azalea-evergreen", "date": "2027-06-10", "property": 1, "share": 0.5, "count": 12, "affected": 4}`)
	op(a, crew, post, "/reckon/feeding", doc{"reckon-feeding", "Reckon", "When and with what a plant is fed", "By its kind, the season, its pot, what frost did to it, its soil's pH and the house rules. Nothing is " +
		"stored.", asks, 0}, s.reckonFeeding, `{"species": "citrus-limon", "date": "2027-03-18", "property": 1, "pot_l": 60, "ph": 6.2}`)
}

func (s *Server) reckonTreatment(ctx context.Context, in *struct{ Body treat.TreatmentIn }) (*Out[treatment.Answer], error) {
	o, err := s.Treat.ReckonTreatment(ctx, in.Body)
	return out(o), s.Problem(ctx, "plant or property", err)
}

func (s *Server) reckonFeeding(ctx context.Context, in *struct{ Body treat.FeedingIn }) (*Out[treatment.Feeding], error) {
	f, err := s.Treat.ReckonFeeding(ctx, in.Body)
	return out(f), s.Problem(ctx, "plant or property", err)
}

func (s *Server) actives(context.Context, *struct{}) (*Out[Run[treatment.Active]], error) {
	return out(Run[treatment.Active]{Items: treatment.Built().Actives}), nil
}

func (s *Server) products(ctx context.Context, _ *struct{}) (*Out[Run[treat.Product]], error) {
	list, err := s.Treat.Products(ctx)
	return out(Run[treat.Product]{Items: list}), s.Problem(ctx, "products", err)
}

func (s *Server) addProduct(ctx context.Context, in *struct {
	OnceKey
	Body treat.ProductIn
}) (*Out[treat.Product], error) {
	p, err := s.Treat.AddProduct(ctx, keyOf(ctx), in.Body)
	return out(p), s.Problem(ctx, "product", err)
}

func (s *Server) changeProduct(ctx context.Context, in *struct {
	Write
	Body treat.ProductIn
}) (*Out[treat.Product], error) {
	p, err := s.Treat.ChangeProduct(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.Problem(ctx, "product", err)
}

func (s *Server) removeProduct(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "product", s.Treat.RemoveProduct(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreProduct(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "product", s.Treat.RemoveProduct(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) addLot(ctx context.Context, in *struct {
	Write
	Body treat.LotIn
}) (*Out[treat.Product], error) {
	p, err := s.Treat.AddLot(ctx, keyOf(ctx), in.ID, in.Body)
	return out(p), s.Problem(ctx, "product", err)
}

// shoppingAhead is how far the shopping list looks where nobody said, days.
const shoppingAhead = 42

func (s *Server) shopping(ctx context.Context, in *struct {
	Until string `query:"until" format:"date" example:"2027-05-01" doc:"Six weeks ahead when absent"`
}) (*Out[treat.Shopping], error) {
	until, err := dayOr("until", in.Until, s.Estate.Today()+shoppingAhead)
	if err != nil {
		return nil, s.Problem(ctx, "shopping", err)
	}
	l, err := s.Treat.Shopping(ctx, until)
	return out(l), s.Problem(ctx, "jobs", err)
}

func (s *Server) mixes(ctx context.Context, in *struct {
	Day   string  `query:"day" format:"date" example:"2027-03-18" doc:"Today when absent"`
	TankL float64 `query:"tank_l" default:"15" minimum:"0.5" maximum:"5000" doc:"Size of the tank, L"`
}) (*Out[treat.MixCard], error) {
	on, err := dayOr("day", in.Day, s.Estate.Today())
	if err != nil {
		return nil, s.Problem(ctx, "mixes", err)
	}
	m, err := s.Treat.Mixes(ctx, on, in.TankL)
	return out(m), s.Problem(ctx, "mixes", err)
}

func (s *Server) uses(ctx context.Context, in *struct {
	UseSpan
	Property int64 `query:"property" doc:"Of one property; all when absent"`
}) (*Out[Run[treat.Used]], error) {
	from, to, err := s.span(in.UseSpan)
	if err != nil {
		return nil, s.Problem(ctx, "uses", err)
	}
	list, err := s.Treat.Uses(ctx, in.Property, from, to)
	return out(Run[treat.Used]{Items: list}), s.Problem(ctx, "property", err)
}

// span is a span of days, the last year where nobody said.
func (s *Server) span(in UseSpan) (from, to day.Day, err error) {
	if to, err = dayOr("to", in.To, s.Estate.Today()); err != nil {
		return from, to, err
	}
	from, err = dayOr("from", in.From, to-366)
	return from, to, err
}

// dayOr is the day a query names, or another where it names none.
func dayOr(field, text string, otherwise day.Day) (day.Day, error) {
	if text == "" {
		return otherwise, nil
	}
	d, err := day.Parse(text)
	if err != nil {
		return d, invalid.One(field, text, err.Error())
	}
	return d, nil
}

func (s *Server) treatment(ctx context.Context, in *ByID) (*Out[treat.Treatment], error) {
	t, err := s.Treat.TreatmentOf(ctx, in.ID)
	return out(t), s.Problem(ctx, "find", err)
}

func (s *Server) keepTreatment(ctx context.Context, in *struct {
	Write
	Body *treat.KeepTreatmentIn
}) (*Out[treat.Treatment], error) {
	var body treat.KeepTreatmentIn
	if in.Body != nil {
		body = *in.Body
	}
	t, err := s.Treat.KeepTreatment(ctx, keyOf(ctx), in.ID, body)
	return out(t), s.Problem(ctx, "find", err)
}

func (s *Server) guards(ctx context.Context, in *ByID) (*Out[Run[treat.Guard]], error) {
	list, err := s.Treat.Guards(ctx, in.ID)
	return out(Run[treat.Guard]{Items: list}), s.Problem(ctx, "plant", err)
}

func (s *Server) keepFeeding(ctx context.Context, in *struct {
	Write
	Body *treat.FeedingIn
}) (*Out[work.Order], error) {
	var body treat.FeedingIn
	if in.Body != nil {
		body = *in.Body
	}
	o, err := s.Treat.KeepFeeding(ctx, keyOf(ctx), in.ID, body)
	return out(o), s.Problem(ctx, "plant", err)
}

// UseSpan is a span of the use record.
type UseSpan struct {
	From string `query:"from" format:"date" example:"2027-01-01" doc:"A year back when absent"`
	To   string `query:"to" format:"date" example:"2027-03-18" doc:"Today when absent"`

	Language string `header:"Accept-Language"`
}

// useLines are those of the record of a span of days, as they go out.
func (s *Server) useLines(ctx context.Context, in *UseSpan) ([]exchange.UseLine, string, error) {
	from, to, err := s.span(*in)
	if err != nil {
		return nil, "", err
	}
	list, err := s.Treat.Uses(ctx, 0, from, to)
	lines, style := make([]exchange.UseLine, len(list)), s.StyleOf(ctx, in.Language)
	for i, u := range list {
		weather := ""
		if u.TempC != nil {
			weather = style.Text(quantity.Temperature(*u.TempC))
		}
		if u.WindMS != nil {
			weather = strings.TrimSpace(weather + " " + style.Text(quantity.Speed(*u.WindMS)))
		}
		plant := u.Plant
		if u.Plants > 1 {
			plant += fmt.Sprintf(" × %d", u.Plants)
		}
		if u.WindFrom != "" {
			weather += " from " + u.WindFrom
		}
		lines[i] = exchange.UseLine{Day: u.Day.String(), Hours: hoursOf(u, style), Property: u.Property, Plant: plant, Reason: u.Cause,
			Product: u.Product, Registration: u.Registration, Active: u.Active, Amount: style.Noted(u.Amount, u.Unit),
			Spray: style.Noted(u.SprayL, "L"), Who: u.Who, Licence: u.Licence, Weather: strings.TrimSpace(weather), Note: u.Note}
		if u.AreaM2 > 0 {
			lines[i].Area = style.Text(quantity.Area(u.AreaM2))
		}
		if u.ReentryH > 0 {
			lines[i].Reentry = fmt.Sprintf("%g h", u.ReentryH)
		}
		if u.HarvestDays > 0 {
			lines[i].Harvest = (u.Day + day.Day(u.HarvestDays)).String()
		}
	}
	return lines, fmt.Sprintf("%s to %s", from, to), err
}

// hoursOf are the hours of a use, as the reader writes them; none where they were not told.
func hoursOf(u treat.Used, style quantity.Style) string {
	at := func(text string) string {
		t, err := time.Parse("15:04", text)
		if err != nil {
			return ""
		}
		return style.Text(quantity.Hour(60*t.Hour() + t.Minute()))
	}
	switch from, to := at(u.Begun), at(u.Ended); {
	case from != "" && to != "":
		return from + " to " + to
	default:
		return from
	}
}

func (s *Server) usesCSV(ctx context.Context, in *UseSpan) (*File, error) {
	lines, span, err := s.useLines(ctx, in)
	if err != nil {
		return nil, s.Problem(ctx, "uses", err)
	}
	var b bytes.Buffer
	err = exchange.WriteUses(&b, lines)
	return attached("use record "+span, "uses.csv", "text/csv", b.Bytes()), s.Problem(ctx, "uses", err)
}

func (s *Server) usesPDF(ctx context.Context, in *UseSpan) (*File, error) {
	lines, span, err := s.useLines(ctx, in)
	if err != nil {
		return nil, s.Problem(ctx, "uses", err)
	}
	f, err := s.Estate.Firm(ctx)
	if err != nil {
		return nil, s.Problem(ctx, "firm", err)
	}
	var b bytes.Buffer
	err = exchange.PrintUses(&b, s.paper(ctx, in.Language), "Use record, "+f.Name+", "+span, lines)
	return attached("use record "+span, "uses.pdf", "application/pdf", b.Bytes()), s.Problem(ctx, "uses", err)
}
