package treat

import (
	"cmp"
	"context"
	"database/sql"
	"fmt"
	"slices"
	"strings"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/house/finds"
	"mezzadro/house/work"
	"mezzadro/store"
)

// licensed refuses a product that needs a licence where who used it holds none.
func licensed(ctx context.Context, tx store.Tx, product, licence, who string) error {
	people, err := tx.People(ctx)
	if err != nil {
		return err
	}
	holders := []string{}
	for _, p := range people {
		if slices.Contains(p.Skills.V, job.Restricted) {
			if strings.EqualFold(p.Name, who) {
				return nil
			}
			holders = append(holders, p.Name)
		}
	}
	text := fmt.Sprintf("%s needs a licence (%s)", product, licence)
	switch {
	case len(holders) == 0:
		text += ": nobody of the firm holds one by Settings, People"
	case who == "":
		text += fmt.Sprintf(": who used it? Licensed: %s", strings.Join(holders, ", "))
	default:
		text += fmt.Sprintf(", which %s does not hold. Licensed: %s", who, strings.Join(holders, ", "))
	}
	return invalid.One("use.who", who, text)
}

// treated keeps the use record of a treatment that was done, and asks for its next time or for the look whether it
// helped.
func (h *Room) treated(ctx context.Context, tx store.Tx, k store.OrderFull, on day.Day, in work.TickOffIn) (bool, error) {
	f, err := h.Store.Find(ctx, k.OriginID)
	if err != nil {
		return true, err
	}
	a, pl, p, err := h.treatmentAsk(ctx, f)
	if err != nil {
		return true, err
	}
	params := k.Params.V
	u := store.Use{
		PropertyID: k.PropertyID,
		PlantID:    k.PlantID,
		FindID:     sql.NullInt64{Int64: f.ID, Valid: true},
		OrderID:    sql.NullInt64{Int64: k.ID, Valid: true},
		Active:     params.Use,
		Cause:      params.Cause,
		Rung:       params.Rung,
		Step:       params.Step,
		Day:        on.String(),
		Plants:     max(1, p.Count),
		Note:       in.Note,
	}
	if err := h.usedProduct(ctx, tx, &u, in.Use, params); err != nil {
		return true, err
	}
	if err := within(a, u.Active, on, in); err != nil {
		return true, err
	}
	u.TempC, u.WindMS = weatherOf(pl, on, in.Use)
	if _, err := tx.AddUse(ctx, u); err != nil {
		return true, err
	}
	a.Uses = append(a.Uses, treatment.Use{Day: on, Active: u.Active, Step: u.Step, Rung: u.Rung})
	a.Date = max(a.Date, on)
	answer, err := treatment.Built().Plan(a)
	if err != nil {
		return true, err
	}
	for _, d := range answer.Steps {
		if d.N == params.Step && answer.Rung == params.Rung {
			o := answer.Order(a, d)
			_, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, o, k.ID, d))
			return true, err
		}
	}
	if answer.Look.Given() && (answer.Ends == "done" || len(answer.Steps) == 0) {
		o := job.Order{
			Key:     "look",
			Kind:    job.Look,
			Title:   "Look whether it helped: " + strings.ToLower(finds.CauseName(f.Cause)),
			Origin:  job.Programme,
			For:     pl.Today,
			Minutes: 10,
			Crew:    1,
			Params: job.Params{
				When: job.OnDay,
				Due:  answer.Look,
			},
			Skills:   []string{},
			Kit:      []string{},
			Reasons:  []string{"The treatment is done; close the find if it helped."},
			Cautions: []string{},
		}
		_, err := tx.AddOrder(ctx, h.treatOrder(pl, f, p, o, k.ID, treatment.Dated{}))
		return true, err
	}
	return true, nil
}

// within refuses a use on a day that lies within a wait, unless who enters it says that it was so, and why.
func within(a treatment.Ask, active string, on day.Day, in work.TickOffIn) error {
	broken := treatment.Built().Breaks(a, active, on)
	if len(broken) == 0 {
		return nil
	}
	if in.Use == nil || !in.Use.Anyway {
		return invalid.One(
			"use.anyway",
			false,
			fmt.Sprintf(
				"on %s that was within a wait: %s. If it was used all the same, say so, and why",
				quantity.Day(on),
				strings.Join(broken, "; "),
			),
		)
	}
	if strings.TrimSpace(in.Note) == "" {
		return invalid.One("note", in.Note, "is missing: why was it used within a wait?")
	}
	return nil
}

// usedProduct checks what was used against its card and what is on hand.
func (h *Room) usedProduct(ctx context.Context, tx store.Tx, u *store.Use, in *work.UseIn, params job.Params) error {
	var bad invalid.Fields
	if in == nil {
		in = &work.UseIn{}
	}
	u.Who, u.SprayL = strings.TrimSpace(in.Who), in.SprayL
	if in.ProductID == 0 {
		if params.Use != "" && in.Amount > 0 {
			bad.Add("use.product_id", nil, "is missing: which product was it?")
		}
		return bad.Err()
	}
	c, err := tx.Product(ctx, in.ProductID)
	switch {
	case err != nil:
		bad.Add("use.product_id", in.ProductID, "is not there, or was removed")
		return bad
	case !serves(c.Card.V.Active, params.Use):
		bad.Add("use.product_id", in.ProductID, "%s holds another means than this step asks for", c.Card.V.Name)
	case !(in.Amount > 0):
		bad.Add("use.amount", in.Amount, "how much of %s was used?", c.Card.V.Name)
	case in.Amount > c.OnHand+1e-6:
		bad.Add(
			"use.amount",
			in.Amount,
			"%g %s is more than the %g %s on hand: add the lot that was bought",
			in.Amount,
			c.Card.V.Unit,
			quantity.Tenth(c.OnHand),
			c.Card.V.Unit,
		)
	}
	if act := treatment.Built().Active(params.Use); err == nil &&
		(c.Card.V.Licence != "" || act != nil && act.Licence) {
		if err := licensed(ctx, tx, c.Card.V.Name, cmp.Or(c.Card.V.Licence, "for restricted products"), u.Who); err != nil {
			bad = append(bad, invalid.Of(err)...)
		}
	}
	u.ProductID, u.Product = sql.NullInt64{Int64: c.ID, Valid: true}, c.Card.V.Name
	u.Amount, u.Unit = in.Amount, c.Card.V.Unit
	return bad.Err()
}

// feeds are the means a plant is fed with by its kind: the card in hand serves.
var feeds = []string{"organic-feed", "mineral-feed"}

// serves reports that a card's means is what a job asks for.
func serves(card, asked string) bool {
	return card == asked || slices.Contains(feeds, card) && slices.Contains(feeds, asked)
}

// fed keeps what a plant was fed with.
func (h *Room) fed(ctx context.Context, tx store.Tx, k store.OrderFull, on day.Day, in work.TickOffIn) (bool, error) {
	if k.Params.V.Use == "" {
		return false, nil
	}
	u := store.Use{
		PropertyID: k.PropertyID,
		PlantID:    k.PlantID,
		OrderID:    sql.NullInt64{Int64: k.ID, Valid: true},
		Active:     k.Params.V.Use,
		Day:        on.String(),
		Plants:     1,
		Note:       in.Note,
	}
	if p, err := h.Store.Plant(ctx, k.PlantID.Int64); err == nil {
		u.Plants = max(1, p.Count)
	}
	if err := h.usedProduct(ctx, tx, &u, in.Use, k.Params.V); err != nil {
		return false, err
	}
	_, err := tx.AddUse(ctx, u)
	return false, err
}

// weatherOf is the weather of the day as noted, or as the station saw it.
func weatherOf(pl *estate.Place, on day.Day, in *work.UseIn) (temp, wind sql.NullFloat64) {
	if e, seen := pl.Year.Extremes(on); seen {
		temp = sql.NullFloat64{Float64: quantity.Tenth(e.Max), Valid: true}
	}
	if in != nil && in.TempC != nil {
		temp = sql.NullFloat64{Float64: *in.TempC, Valid: true}
	}
	if in != nil && in.WindMS != nil {
		wind = sql.NullFloat64{Float64: *in.WindMS, Valid: true}
	}
	return temp, wind
}
