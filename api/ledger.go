package api

import (
	"bytes"
	"context"
	"fmt"
	"slices"
	"strconv"

	"github.com/danielgtaylor/huma/v2"

	"mezzadro/core/day"
	"mezzadro/core/estimate"
	"mezzadro/core/quantity"
	"mezzadro/exchange"
	"mezzadro/house/clients"
	"mezzadro/house/firm"
	"mezzadro/house/ledger"
)

func (s *Server) ledgerRoutes(a huma.API) {
	op(a, planner, get, "/ledger", doc{"ledger", "Ledger", "What the ledger asks for now", "What waits on clients, what is agreed and not done, what was done and not charged, and the month so far.", reads, 0}, s.ledger)
	op(a, planner, get, "/rates", doc{"rates", "Ledger", "What the firm asks for its work", "Version 0 while nothing was entered.", reads, 0}, s.rates)
	op(a, owner, put, "/rates", doc{"set-rates", "Ledger", "Enter what the firm asks for its work", "Estimates that were made keep the rates they were made with.", writes, 0}, s.setRates,
		`{"currency": "EUR", "hour": 4200, "skills": {"climbing": 6800}, "visit": 2500, "waste_m3": 3000, "markup": 2500, "tax": 2200, "tax_name": "VAT", "valid_days": 30, "plans": "answered", "stuff": [{"name": "mulch", "unit": "m3", "price": 4500}], "digits": 2, "version": 0}`)
	op(a, crew, get, "/clients", doc{"clients", "Ledger", "The firm's clients", "By name, with their properties; of one property where it is asked for.", readsOf, 0}, s.clients)
	op(a, planner, post, "/clients", doc{"add-client", "Ledger", "Enter a client", "With the properties they have to do with, and what they get of each.", writes, 0}, s.addClient,
		`{"name": "Noemi Tarsello", "phone": "+39 0555 010 010", "email": "noemi@example.com", "of": [{"property_id": 1, "role": "owner", "gets": ["days", "estimates"]}]}`)
	op(a, planner, put, "/clients/{id}", doc{"change-client", "Ledger", "Change a client", "All fields, based on a version.", writes, 0}, s.changeClient, `{"name": "Noemi Tarsello", "of": [{"property_id": 1, "role": "owner"}], "version": 1}`)
	op(a, planner, remove, "/clients/{id}", doc{"remove-client", "Ledger", "Remove a client", "Out of sight, and can be restored.", writes, 0}, s.removeClient)
	op(a, planner, post, "/clients/{id}/restore", doc{"restore-client", "Ledger", "Bring a removed client back", "As it was.", writes, 0}, s.restoreClient)
	op(a, planner, get, "/estimates", doc{"estimates", "Ledger", "Estimates", "The newest first; of one property where it is asked for.", readsOf, 0}, s.estimates)
	op(a, planner, post, "/estimates", doc{"add-estimate", "Ledger", "Draft an estimate", "Of a property's jobs, priced by the firm's rates: work by its minutes, what is used up, what is taken away, from–to.", adds, 0}, s.addEstimate, `{"property_id": 1}`)
	op(a, planner, get, "/estimates/{id}", doc{"estimate", "Ledger", "One estimate", "With its lines, what they were reckoned from, and what was said to them.", readsOf, 0}, s.estimate)
	op(a, planner, put, "/estimates/{id}", doc{"change-estimate", "Ledger", "Change an estimate", "A line that was answered and is another now is asked for again. What was sent becomes the draft of another edition.", writes, 0}, s.changeEstimate, `{"until": "2027-05-01", "lines": [], "visits": 1, "version": 1}`)
	op(a, planner, post, "/estimates/{id}/send", doc{"send-estimate", "Ledger", "Have the client's link show an estimate", "It is kept as it is, and its jobs wait for an answer. No mail goes out.", writes, 0}, s.sendEstimate, `{"version": 1}`)
	op(a, planner, post, "/estimates/{id}/withdraw", doc{"withdraw-estimate", "Ledger", "Take an estimate back", "It cannot be answered any more; what was agreed stays agreed.", writes, 0}, s.withdrawEstimate, `{"version": 1}`)
	op(a, planner, post, "/estimates/{id}/answers", doc{"told-answer", "Ledger", "Keep what a client told the firm", "To one line, with who said it.", writes, 0}, s.toldAnswer, `{"line": 1, "edition": 1, "yes": true, "name": "Noemi"}`)
	op(a, planner, get, "/estimates/{id}/estimate.pdf", doc{"estimate-pdf", "Ledger", "An estimate as PDF", "As it stands.", readsOf, 0}, s.estimatePDF)
	op(a, anyone, post, "/client/estimates/{id}/answers", doc{"client-answer", "Ledger", "Answer a line of an estimate", "By the client's link that this browser opened, and of its property alone.", writes, 0}, s.clientAnswer, `{"line": 1, "edition": 1, "yes": true, "name": "Noemi"}`)
	op(a, planner, get, "/work-done", doc{"work-done", "Ledger", "Work that was done", "From a day until another: hours planned and noted, what it comes to by the rates, and what of it was charged; with sums.", readsOf, 0}, s.workDone)
	op(a, planner, get, "/work-done.csv", doc{"work-done-csv", "Ledger", "Work that was done as CSV", "A line a job, amounts in whole units of the currency.", readsOf, 0}, s.workDoneCSV)
	op(a, planner, get, "/charges", doc{"charges", "Ledger", "What was charged", "Drafts of invoices, the newest first.", readsOf, 0}, s.charges)
	op(a, planner, post, "/charges", doc{"add-charge", "Ledger", "Charge work that was done", "A draft of an invoice under the next number. It stays as it is.", adds, 0}, s.addCharge, `{"property_id": 1, "orders": [1], "visits": 1}`)
	op(a, planner, get, "/charges/{id}/charge.pdf", doc{"charge-pdf", "Ledger", "A draft of an invoice as PDF", "No invoice by law: local rules say what one has to hold.", readsOf, 0}, s.chargePDF)
}

// mayMoney lets those go on who may read the ledger's money: owners, and planners where the firm says so.
func (s *Server) mayMoney(ctx context.Context) error {
	who, signed := whoOf(ctx)
	if !signed || who.Role == firm.RoleOwner {
		return nil
	}
	r, err := s.Ledger.Rates(ctx)
	if err != nil {
		return s.Problem(ctx, "rates", err)
	}
	if !r.Planners {
		return huma.Error403Forbidden("the ledger's money is for owners alone; they can let planners read it, under Rates")
	}
	return nil
}

// OfProperty asks for what is of one property.
type OfProperty struct {
	Property int64 `query:"property" doc:"Of this one alone; of all when absent"`
}

func (s *Server) ledger(ctx context.Context, _ *struct{}) (*Out[ledger.Overview], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	o, err := s.Ledger.Overview(ctx)
	return out(o), s.Problem(ctx, "ledger", err)
}

func (s *Server) rates(ctx context.Context, _ *struct{}) (*Out[ledger.Rates], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	r, err := s.Ledger.Rates(ctx)
	return out(r), s.Problem(ctx, "rates", err)
}

func (s *Server) setRates(ctx context.Context, in *struct {
	OnceKey
	Body ledger.Rates
}) (*Out[ledger.Rates], error) {
	r, err := s.Ledger.SetRates(ctx, keyOf(ctx), in.Body)
	return out(r), s.Problem(ctx, "rates", err)
}

func (s *Server) clients(ctx context.Context, in *OfProperty) (*Out[Run[clients.Client]], error) {
	list, err := s.Clients.Clients(ctx, in.Property)
	return out(Run[clients.Client]{Items: list}), s.Problem(ctx, "clients", err)
}

func (s *Server) addClient(ctx context.Context, in *struct {
	OnceKey
	Body clients.ClientIn
}) (*Out[clients.Client], error) {
	c, err := s.Clients.KeepClient(ctx, keyOf(ctx), 0, in.Body)
	return out(c), s.Problem(ctx, "property", err)
}

func (s *Server) changeClient(ctx context.Context, in *struct {
	Write
	Body clients.ClientIn
}) (*Out[clients.Client], error) {
	c, err := s.Clients.KeepClient(ctx, keyOf(ctx), in.ID, in.Body)
	return out(c), s.Problem(ctx, "client", err)
}

func (s *Server) removeClient(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "client", s.Clients.RemoveClient(ctx, keyOf(ctx), in.ID, true))
}

func (s *Server) restoreClient(ctx context.Context, in *Write) (*struct{}, error) {
	return nil, s.Problem(ctx, "client", s.Clients.RemoveClient(ctx, keyOf(ctx), in.ID, false))
}

func (s *Server) estimates(ctx context.Context, in *OfProperty) (*Out[Run[ledger.Estimate]], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	list, err := s.Ledger.Estimates(ctx, in.Property)
	return out(Run[ledger.Estimate]{Items: list}), s.Problem(ctx, "estimates", err)
}

func (s *Server) addEstimate(ctx context.Context, in *struct {
	OnceKey
	Reader
	Body ledger.EstimateIn
}) (*Out[ledger.Estimate], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	e, err := s.Ledger.AddEstimate(ctx, keyOf(ctx), in.Body, s.StyleOf(ctx, in.Language))
	return out(e), s.Problem(ctx, "property", err)
}

func (s *Server) estimate(ctx context.Context, in *ByID) (*Out[ledger.Estimate], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	e, err := s.Ledger.Estimate(ctx, in.ID)
	return out(e), s.Problem(ctx, "estimate", err)
}

func (s *Server) changeEstimate(ctx context.Context, in *struct {
	Write
	Reader
	Body ledger.Change
}) (*Out[ledger.Estimate], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	e, err := s.Ledger.ChangeEstimate(ctx, keyOf(ctx), in.ID, in.Body, s.StyleOf(ctx, in.Language))
	return out(e), s.Problem(ctx, "estimate", err)
}

// Based is what a step is based on.
type Based struct {
	Version int `json:"version" doc:"The version that was read"`
}

// OfVersion is a step that is based on a version.
type OfVersion struct {
	Write
	Body Based
}

func (s *Server) sendEstimate(ctx context.Context, in *OfVersion) (*Out[ledger.Estimate], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	e, err := s.Ledger.Send(ctx, keyOf(ctx), in.ID, in.Body.Version)
	return out(e), s.Problem(ctx, "estimate", err)
}

func (s *Server) withdrawEstimate(ctx context.Context, in *OfVersion) (*Out[ledger.Estimate], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	e, err := s.Ledger.Withdraw(ctx, keyOf(ctx), in.ID, in.Body.Version)
	return out(e), s.Problem(ctx, "estimate", err)
}

// AnswerTo is what is said to a line of an estimate.
type AnswerTo struct {
	Write
	Body ledger.AnswerIn
}

func (s *Server) toldAnswer(ctx context.Context, in *AnswerTo) (*Out[ledger.Estimate], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	e, err := s.Ledger.Answer(ctx, keyOf(ctx), in.ID, in.Body, "told")
	return out(e), s.Problem(ctx, "estimate", err)
}

func (s *Server) clientAnswer(ctx context.Context, in *AnswerTo) (*Out[ledger.Estimate], error) {
	e, err := s.Ledger.AnswerAsClient(ctx, keyOf(ctx), s.sessions.GetString(ctx, sessionClient), in.ID, in.Body)
	return out(e), s.Problem(ctx, "estimate", err)
}

func (s *Server) estimatePDF(ctx context.Context, in *struct {
	ByID
	Reader
}) (*File, error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	e, err := s.Ledger.Estimate(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "estimate", err)
	}
	own, err := s.Estate.Firm(ctx)
	style := dated(s.StyleOf(ctx, in.Language))
	o := exchange.Offer{Title: fmt.Sprintf("Estimate %d", e.Number), From: []string{own.Name}, To: []string{e.Client}, Words: e.Words, Lines: e.Lines,
		Visit: e.Visit, Total: e.Total, TaxLabel: taxLabel(e.Tax, e.TaxName), Included: e.Included, Currency: e.Currency, Digits: e.Digits}
	o.Facts = []string{"For " + e.Property, style.Text("Made on " + quantity.Day(e.Made) + ", holds until " + quantity.Day(e.Until))}
	if e.Edition > 1 {
		o.Title += fmt.Sprintf(", edition %d", e.Edition)
	}
	o.Ends = []string{"Each line can be agreed or declined by itself."}
	if e.Total.Gross.From != e.Total.Gross.To {
		o.Ends = append(o.Ends, "From–to: how long work takes shows only while it is done.")
	}
	return s.offerPDF(ctx, o, e.Property, in.Language, err)
}

func (s *Server) chargePDF(ctx context.Context, in *struct {
	ByID
	Reader
}) (*File, error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	c, err := s.Ledger.Charge(ctx, in.ID)
	if err != nil {
		return nil, s.Problem(ctx, "charge", err)
	}
	own, err := s.Estate.Firm(ctx)
	o := exchange.Offer{Title: fmt.Sprintf("Invoice draft %d", c.Number), From: []string{own.Name}, To: []string{c.Client, c.Address}, Words: c.Words, Lines: c.Lines,
		Visit: c.Visit, Total: c.Total, TaxLabel: taxLabel(c.Tax, c.TaxName), Included: c.Included, Currency: c.Currency, Digits: c.Digits}
	o.Facts = []string{"For work at " + c.Property, dated(s.StyleOf(ctx, in.Language)).Text("Day: " + quantity.Day(c.Day))}
	o.Ends = []string{"A draft: local rules say what an invoice has to hold."}
	return s.offerPDF(ctx, o, c.Property, in.Language, err)
}

// offerPDF writes a paper with prices.
func (s *Server) offerPDF(ctx context.Context, o exchange.Offer, of, language string, err error) (*File, error) {
	o.Lines = slices.Clone(o.Lines)
	for i, l := range o.Lines {
		o.Lines[i] = ledger.Written(l, s.StyleOf(ctx, language))
	}
	var b bytes.Buffer
	if err == nil {
		err = exchange.WriteOffer(&b, s.paper(ctx, language), o)
	}
	return attached(of+" "+o.Title, "paper.pdf", "application/pdf", b.Bytes()), s.Problem(ctx, "paper", err)
}

// dated is a style in which every day carries its year, as a paper that is kept wants it.
func dated(s quantity.Style) quantity.Style {
	s.Year = -1
	return s
}

// taxLabel is a tax with its per cents; empty where there is none.
func taxLabel(t estimate.Share, name string) string {
	if t == 0 {
		return ""
	}
	if name == "" {
		name = "Tax"
	}
	return fmt.Sprintf("%s %s %%", name, strconv.FormatFloat(float64(t)/100, 'f', -1, 64))
}

// InDays asks for what was done in some days.
type InDays struct {
	OfProperty
	From string `query:"from" doc:"First day; the first of this month when absent"`
	To   string `query:"to" doc:"Last day; today when absent"`
}

func (s *Server) done(ctx context.Context, in *InDays) (ledger.Done, error) {
	today := s.Estate.Today()
	from, err := dayOr("from", in.From, day.Of(today.Year(), today.Month(), 1))
	if err != nil {
		return ledger.Done{}, err
	}
	to, err := dayOr("to", in.To, today)
	if err != nil {
		return ledger.Done{}, err
	}
	return s.Ledger.Done(ctx, in.Property, from, to)
}

func (s *Server) workDone(ctx context.Context, in *InDays) (*Out[ledger.Done], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	d, err := s.done(ctx, in)
	return out(d), s.Problem(ctx, "work", err)
}

func (s *Server) workDoneCSV(ctx context.Context, in *struct {
	InDays
	Reader
}) (*File, error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	d, err := s.done(ctx, &in.InDays)
	if err != nil {
		return nil, s.Problem(ctx, "work", err)
	}
	var b bytes.Buffer
	lines := make([]exchange.WorkLine, len(d.Items))
	style := s.StyleOf(ctx, in.Language)
	for i, x := range d.Items {
		charged := ""
		if x.Charged > 0 {
			charged = strconv.Itoa(x.Charged)
		}
		lines[i] = exchange.WorkLine{Day: x.Day.String(), Property: x.Property, Plant: x.Plant, Job: style.Text(x.Title), Kind: string(x.Kind), By: x.By,
			Planned: strconv.Itoa(x.Planned), Took: strconv.Itoa(x.Took), Agreed: x.Agreed, Amount: x.Amount.Plain(d.Digits), Currency: d.Currency, Charged: charged}
	}
	err = exchange.WriteWorkCSV(&b, lines)
	return attached("work done", d.From.String()+"-"+d.To.String()+".csv", "text/csv", b.Bytes()), s.Problem(ctx, "work", err)
}

func (s *Server) charges(ctx context.Context, in *OfProperty) (*Out[Run[ledger.Charge]], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	list, err := s.Ledger.Charges(ctx, in.Property)
	return out(Run[ledger.Charge]{Items: list}), s.Problem(ctx, "charges", err)
}

func (s *Server) addCharge(ctx context.Context, in *struct {
	OnceKey
	Reader
	Body ledger.ChargeIn
}) (*Out[ledger.Charge], error) {
	if err := s.mayMoney(ctx); err != nil {
		return nil, err
	}
	c, err := s.Ledger.AddCharge(ctx, keyOf(ctx), in.Body, s.StyleOf(ctx, in.Language))
	return out(c), s.Problem(ctx, "property", err)
}
