package demo

import (
	"fmt"
	"strings"
)

// Client is somebody the firm works for.
type Client struct {
	Name     string   `yaml:"name"`
	Phone    string   `yaml:"phone"`
	Email    string   `yaml:"email"`
	Address  string   `yaml:"address"`
	Note     string   `yaml:"note"`
	Property string   `yaml:"property"`
	Role     string   `yaml:"role"`
	Gets     []string `yaml:"gets"`
}

// Offer is an estimate of a property's jobs, sent where answers are told.
type Offer struct {
	Property string   `yaml:"property"`
	Words    string   `yaml:"words"`
	Jobs     []string `yaml:"jobs"` // the words that their titles begin with
	Send     bool     `yaml:"send"`
	Answers  []Said   `yaml:"answers"`
}

// Said is what a client said to a job.
type Said struct {
	Job    string `yaml:"job"`
	Yes    bool   `yaml:"yes"`
	Name   string `yaml:"name"`
	Remark string `yaml:"remark"`
}

// Told is a report of a property.
type Told struct {
	Property string `yaml:"property"`
	Kind     string `yaml:"kind"`
	Send     bool   `yaml:"send"`
}

// tellLedger does what a day has of rates, clients, estimates and charges.
func (t *teller) tellLedger(s Step) error {
	if s.Rates != nil {
		if err := t.put("/rates", s.Rates, nil); err != nil {
			return fmt.Errorf("rates: %w", err)
		}
	}
	for _, c := range s.Clients {
		id, err := t.property(c.Property)
		if err == nil {
			_, err = t.post(
				"/clients",
				map[string]any{"name": c.Name, "phone": c.Phone, "email": c.Email, "address": c.Address, "note": c.Note,
					"of": []map[string]any{{"property_id": id, "role": c.Role, "gets": append([]string{}, c.Gets...)}}},
			)
		}
		if err != nil {
			return fmt.Errorf("client %s: %w", c.Name, err)
		}
	}
	for _, o := range s.Offers {
		if err := t.offer(o); err != nil {
			return fmt.Errorf("estimate for %s: %w", o.Property, err)
		}
	}
	for _, r := range s.Reports {
		if err := t.reported(r); err != nil {
			return fmt.Errorf("report of %s: %w", r.Property, err)
		}
	}
	for _, name := range s.Charges {
		if err := t.charge(name, s.Day); err != nil {
			return fmt.Errorf("charge of %s: %w", name, err)
		}
	}
	return nil
}

// offered is an estimate as the operations tell it.
type offered struct {
	ID      int64            `json:"id"`
	Edition int              `json:"edition"`
	Until   string           `json:"until"`
	Visits  int              `json:"visits"`
	Lines   []map[string]any `json:"lines"`
	Version int              `json:"version"`
}

// offer drafts an estimate, and has it sent and answered.
func (t *teller) offer(o Offer) error {
	property, err := t.property(o.Property)
	if err != nil {
		return err
	}
	orders := []int64{}
	for _, job := range o.Jobs {
		f, err := t.find(o.Property, job)
		if err != nil {
			return err
		}
		orders = append(orders, f.ID)
	}
	id, err := t.post("/estimates", map[string]any{"property_id": property, "orders": orders})
	if err != nil {
		return err
	}
	at := fmt.Sprintf("/estimates/%d", id)
	var e offered
	if err := t.get(at, &e); err != nil {
		return err
	}
	if err := t.put(at, map[string]any{"until": e.Until, "words": o.Words, "lines": e.Lines, "visits": e.Visits, "version": e.Version}, &e); err != nil ||
		!o.Send {
		return err
	}
	if _, err := t.post(at+"/send", map[string]any{"version": e.Version}); err != nil {
		return err
	}
	for _, a := range o.Answers {
		for _, l := range e.Lines {
			if title, _ := l["title"].(string); strings.HasPrefix(title, a.Job) {
				body := map[string]any{
					"line":    l["id"],
					"edition": e.Edition,
					"yes":     a.Yes,
					"name":    a.Name,
					"remark":  a.Remark,
				}
				if _, err := t.post(at+"/answers", body); err != nil {
					return err
				}
			}
		}
	}
	return nil
}

// reported has a report written, and sent where it is.
func (t *teller) reported(r Told) error {
	property, err := t.property(r.Property)
	if err != nil {
		return err
	}
	id, err := t.post("/reports", map[string]any{"property_id": property, "kind": r.Kind})
	if err != nil || !r.Send {
		return err
	}
	_, err = t.post(fmt.Sprintf("/reports/%d/send", id), map[string]any{"version": 1})
	return err
}

// charge charges all that was done at a property and has a price.
func (t *teller) charge(name, on string) error {
	property, err := t.property(name)
	if err != nil {
		return err
	}
	var done struct {
		Items []struct {
			Order    int64 `json:"order"`
			Unpriced bool  `json:"unpriced"`
			Charged  int   `json:"charged"`
		} `json:"items"`
	}
	if err := t.get(fmt.Sprintf("/work-done?from=2026-03-01&to=%s&property=%d", on, property), &done); err != nil {
		return err
	}
	orders := []int64{}
	for _, w := range done.Items {
		if !w.Unpriced && w.Charged == 0 {
			orders = append(orders, w.Order)
		}
	}
	_, err = t.post("/charges", map[string]any{"property_id": property, "orders": orders, "visits": 2})
	return err
}
