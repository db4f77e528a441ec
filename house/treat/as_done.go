package treat

import (
	"cmp"
	"context"
	"database/sql"
	"fmt"
	"slices"
	"strings"
	"time"

	"mezzadro/core/day"
	"mezzadro/core/invalid"
	"mezzadro/core/job"
	"mezzadro/core/quantity"
	"mezzadro/core/treatment"
	"mezzadro/house/estate"
	"mezzadro/house/work"
	"mezzadro/store"
)

// hourAs is how an hour of a day is entered.
const hourAs = "15:04"

// asDone keeps when and in what weather something was put on: as noted, else by the station's hours of that time.
func (h *Room) asDone(ctx context.Context, pl *estate.Place, u *store.Use, on day.Day, in *work.UseIn) error {
	if in == nil {
		in = &work.UseIn{}
	}
	begun, ended, err := span(in)
	if err != nil {
		return err
	}
	u.Details.V.Begun, u.Details.V.Ended = in.Begun, in.Ended
	u.Details.V.AreaM2, u.Details.V.WindFrom = in.AreaM2, in.WindFrom
	u.TempC, u.WindMS, err = h.weatherThen(ctx, pl, on, begun, ended)
	if err != nil {
		return err
	}
	if in.TempC != nil {
		u.TempC = sql.NullFloat64{Float64: *in.TempC, Valid: true}
	}
	if in.WindMS != nil {
		u.WindMS = sql.NullFloat64{Float64: *in.WindMS, Valid: true}
	}
	return nil
}

// span is from when to when something was put on, minutes of the day; both -1 where no hour was told.
func span(in *work.UseIn) (begun, ended int, err error) {
	var bad invalid.Fields
	read := func(field, text string) int {
		if text == "" {
			return -1
		}
		at, err := time.Parse(hourAs, text)
		if err != nil {
			bad.Add("use."+field, text, "%q is no hour of a day: write it as 06:30 or 14:05", text)
			return -1
		}
		return 60*at.Hour() + at.Minute()
	}
	begun, ended = read("begun", in.Begun), read("ended", in.Ended)
	switch {
	case begun < 0 && ended >= 0 && len(bad) == 0:
		bad.Add("use.begun", in.Begun, "is missing: it ended at %s, when was it begun?", in.Ended)
	case ended >= 0 && ended < begun:
		bad.Add("use.ended", in.Ended, "is before it was begun, at %s", in.Begun)
	}
	return begun, ended, bad.Err()
}

// weatherThen is how warm it was and how the wind blew as the station saw it: over the hours from begun to ended, else
// the warmest of the day alone.
func (h *Room) weatherThen(
	ctx context.Context, pl *estate.Place, on day.Day, begun, ended int,
) (temp, wind sql.NullFloat64, err error) {
	if e, seen := pl.Year.Extremes(on); seen {
		temp = sql.NullFloat64{Float64: quantity.Tenth(e.Max), Valid: true}
	}
	if begun < 0 {
		return temp, wind, nil
	}
	y, m, d := on.Time().Date()
	at := func(minutes int) time.Time { return time.Date(y, m, d, 0, minutes, 0, 0, pl.Zone) }
	from := at(begun).Truncate(time.Hour)
	to := at(max(begun, ended)).Truncate(time.Hour).Add(time.Hour)
	hours, err := h.Store.Weather(ctx, pl.Property.ID, from.UTC(), to.UTC())
	if err != nil || len(hours) == 0 {
		return temp, wind, err
	}
	warm, blows, told := 0.0, 0.0, 0
	for _, x := range hours {
		warm += x.TempC / float64(len(hours))
		if x.WindMS == x.WindMS { // not told where it is no number
			blows, told = blows+x.WindMS, told+1
		}
	}
	temp = sql.NullFloat64{Float64: quantity.Tenth(warm), Valid: true}
	if told > 0 {
		wind = sql.NullFloat64{Float64: quantity.Tenth(blows / float64(told)), Valid: true}
	}
	return temp, wind, nil
}

// holder is the number of the licence of who used a product, and what is wrong where it needs one that they do not
// hold: by its label or what works in it, or because any spraying for hire does there.
func holder(
	ctx context.Context, tx store.Tx, c treatment.Card, use, who string, anySpray bool,
) (string, invalid.Fields, error) {
	people, err := tx.People(ctx)
	if err != nil {
		return "", nil, err
	}
	act := treatment.Built().Active(use)
	licence, skills := c.Licence, []string{job.Restricted}
	switch {
	case licence != "" || act != nil && act.Licence:
		licence = cmp.Or(licence, "for restricted products")
	case anySpray && treatment.Built().Pesticide(use):
		licence, skills = "any spraying for hire needs one there", append(skills, job.Spraying)
	}
	number, holders := "", []string{}
	for _, p := range people {
		named := strings.EqualFold(p.Name, who)
		if named {
			number = p.Licence
		}
		if slices.ContainsFunc(skills, func(s string) bool { return slices.Contains(p.Skills.V, s) }) {
			holders = append(holders, p.Name)
			if named {
				return number, nil, nil
			}
		}
	}
	if licence == "" {
		return number, nil, nil
	}
	return number, unlicensed(c.Name, licence, who, holders), nil
}

// unlicensed says that who used a product holds no licence for it, and who does.
func unlicensed(product, licence, who string, holders []string) (bad invalid.Fields) {
	text := fmt.Sprintf("%s needs a licence (%s)", product, licence)
	switch {
	case len(holders) == 0:
		text += ": nobody of the firm holds one by Settings, People"
	case who == "":
		text += fmt.Sprintf(": who used it? Licensed: %s", strings.Join(holders, ", "))
	default:
		text += fmt.Sprintf(", which %s does not hold. Licensed: %s", who, strings.Join(holders, ", "))
	}
	bad.Add("use.who", who, "%s", text)
	return bad
}
